package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** Records: their layouts are shared while that is worth it, and hold any number of names. */
class RecordValueTest {
    private static RecordValue record(int from, int count) {
        RecordValue.Builder builder = RecordValue.builder(Layout.start(name -> null), null);
        for (int i = from; i < from + count; i++) {
            builder.add(FieldName.of("k" + i), NumberValue.of(i));
        }
        return builder.build();
    }

    @Test
    @DisplayName("records with the same fields in the same order share a layout")
    void sharedLayouts() {
        Layout start = Layout.start(name -> null);
        RecordValue.Builder a = RecordValue.builder(start, null);
        RecordValue.Builder b = RecordValue.builder(start, null);
        a.add(FieldName.of("x"), BooleanValue.TRUE);
        b.add(FieldName.of("x"), BooleanValue.FALSE);
        assertThat(a.build().layout()).isSameAs(b.build().layout());
    }

    @Test
    @DisplayName("a record with very many names keeps all, in order, repeated ones too")
    void manyNames() {
        RecordValue record = record(0, 20_000);
        assertThat(record.layout().size()).isEqualTo(20_000);
        assertThat(record.layout().name(19_999).local()).isEqualTo("k19999");
        assertThat(record.get(FieldName.of("k12345"))).isEqualTo(NumberValue.of(12_345));
        assertThat(record.get(FieldName.of("none"))).isEqualTo(Missing.ABSENT);
    }

    @Test
    @DisplayName("a name that comes again has many values")
    void repeatedNames() {
        RecordValue.Builder builder = RecordValue.builder(Layout.EMPTY, null);
        builder.add(FieldName.of("a"), NumberValue.of(1));
        builder.add(FieldName.of("b"), NumberValue.of(2));
        builder.add(FieldName.of("a"), NumberValue.of(3));
        RecordValue record = builder.build();
        assertThat(record.get(FieldName.of("a")))
                .isEqualTo(Many.of(java.util.List.of(NumberValue.of(1), NumberValue.of(3))));
        assertThat(record.get(FieldName.of("b"))).isEqualTo(NumberValue.of(2));
    }
}
