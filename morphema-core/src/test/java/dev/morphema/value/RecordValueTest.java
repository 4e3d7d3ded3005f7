package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** Records: their layouts are shared while that is worth it, and hold any number of names. */
class RecordValueTest {
    private static RecordValue record(int from, int count) {
        RecordBuilder builder = RecordValue.builder(Layout.start(name -> null), null);
        for (int i = from; i < from + count; i++) {
            builder.add(FieldName.of("k" + i), NumberValue.of(i));
        }
        return builder.build();
    }

    @Test
    @DisplayName("records with the same fields in the same order share a layout")
    void sharedLayouts() {
        Layout start = Layout.start(name -> null);
        RecordBuilder a = RecordValue.builder(start, null);
        RecordBuilder b = RecordValue.builder(start, null);
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
        RecordBuilder builder = RecordValue.builder(Layout.EMPTY, null);
        builder.add(FieldName.of("a"), NumberValue.of(1));
        builder.add(FieldName.of("b"), NumberValue.of(2));
        builder.add(FieldName.of("a"), NumberValue.of(3));
        RecordValue record = builder.build();
        assertThat(record.get(FieldName.of("a"))).isEqualTo(Many.of(List.of(NumberValue.of(1), NumberValue.of(3))));
        assertThat(record.get(FieldName.of("b"))).isEqualTo(NumberValue.of(2));
    }

    private static final FieldName A = FieldName.of("a");
    private static final FieldName B = FieldName.of("b");
    private static final FieldName KIND = FieldName.attribute("kind");

    private static List<String> parts(RecordValue record) {
        return record.parts().stream()
                .map(part -> (part.name() == null ? "" : part.name() + "=") + part.value())
                .toList();
    }

    @Test
    @DisplayName("text between children keeps its place, also behind a child that comes again")
    void mixedText() {
        RecordBuilder builder =
                RecordValue.builder(Layout.start(name -> null), null).element(B);
        builder.add(KIND, TextValue.of("k"));
        builder.add(A, TextValue.of("1"));
        builder.add(A, TextValue.of("2"));
        builder.text(TextValue.of("between "));
        builder.add(A, TextValue.of("3"));
        builder.text(TextValue.of("after"));
        RecordValue record = builder.build();
        assertThat(parts(record)).containsExactly("a=1", "a=2", "between ", "a=3", "after");
        assertThat(record.get(FieldName.OWN_TEXT)).hasToString("between after");
        assertThat(record.isMixed()).isTrue();
        assertThat(record.hasText()).isTrue();
        assertThat(record.hasChildren()).isTrue();
        assertThat(record.element()).isEqualTo(B);
    }

    @Test
    @DisplayName("an element with nothing but text has no children and is not mixed")
    void onlyText() {
        RecordBuilder builder =
                RecordValue.builder(Layout.start(name -> null), null).element(A);
        assertThat(builder.first(FieldName.OWN_TEXT)).isNull();
        builder.text(TextValue.of("calm"));
        assertThat(builder.has(FieldName.OWN_TEXT)).isTrue();
        assertThat(builder.first(FieldName.OWN_TEXT)).hasToString("calm");
        RecordValue record = builder.build();
        assertThat(record.isMixed()).isFalse();
        assertThat(record.hasText()).isTrue();
        assertThat(record.hasChildren()).isFalse();
        assertThat(parts(record)).containsExactly("calm");
        assertThat(RecordValue.EMPTY.hasText()).isFalse();
    }

    @Test
    @DisplayName("a declared type holds for each of many, for items of lists, and for the text of an element")
    void typedFields() {
        Layout typed = Layout.start(name -> name.equals(A) ? value -> NumberValue.of(7) : null);
        Origin origin = new Origin("rows", 1, 2);
        RecordBuilder inner =
                RecordValue.builder(Layout.start(name -> null), origin).element(A);
        inner.add(KIND, TextValue.of("k"));
        inner.add(FieldName.OWN_TEXT, TextValue.of("1"));
        RecordBuilder builder = RecordValue.builder(typed, origin);
        builder.add(A, TextValue.of("1"));
        builder.add(A, ListValue.of(List.of(TextValue.of("2"), Missing.NULL)));
        builder.add(A, inner.build());
        builder.add(B, TextValue.of("1"));
        RecordValue record = builder.build();
        List<Value> many = ((Many) record.get(A)).items();
        assertThat(many.get(0)).isEqualTo(NumberValue.of(7));
        assertThat(((ListValue) many.get(1)).items()).containsExactly(NumberValue.of(7), Missing.NULL);
        RecordValue element = (RecordValue) many.get(2);
        assertThat(element.get(FieldName.OWN_TEXT)).isEqualTo(NumberValue.of(7));
        assertThat(element.get(KIND)).hasToString("k");
        assertThat(element.element()).isEqualTo(A);
        assertThat(record.get(B)).hasToString("1");
        assertThat(record.has(record.layout().slot(A))).isTrue();
        assertThat(record.isEmpty()).isFalse();
        assertThat(RecordValue.EMPTY.isEmpty()).isTrue();
    }

    @Test
    @DisplayName("a value that is not of the declared type is refused at its place, each time it is asked for")
    void wrongType() {
        Layout typed = Layout.start(name -> Converters::refuse);
        RecordBuilder builder = RecordValue.builder(typed, new Origin("rows", 3, 4));
        builder.add(A, TextValue.of("x"));
        RecordValue record = builder.build();
        for (int i = 0; i < 2; i++) {
            assertThatThrownBy(() -> record.get(A))
                    .isInstanceOfSatisfying(
                            ProblemException.class,
                            e -> assertThat(e.problem().input()).hasToString("rows:4, record 3, field a"));
        }
    }

    private static final class Converters {
        static Value refuse(Value value) {
            throw new ProblemException(Problem.error(Code.NOT_A_NUMBER, "no"));
        }
    }

    @Test
    @DisplayName("a record that begins with another has its fields, and the new ones behind them")
    void grownRecords() {
        RecordValue first = record(0, 3);
        RecordBuilder builder = RecordValue.builder(first);
        builder.put(FieldName.of("k1"), TextValue.of("new"));
        builder.put(A, Missing.ABSENT);
        builder.put(B, BooleanValue.TRUE);
        RecordValue grown = builder.build();
        assertThat(grown.get(FieldName.of("k0"))).isEqualTo(NumberValue.of(0));
        assertThat(grown.get(FieldName.of("k1"))).hasToString("new");
        assertThat(grown.get(A)).isEqualTo(Missing.ABSENT);
        assertThat(grown.get(B)).isEqualTo(BooleanValue.TRUE);
        assertThat(ValueSize.of(grown)).isGreaterThan(ValueSize.of(first));
        assertThat(ValueSize.of(first)).isBetween(100L, 400L);
    }
}
