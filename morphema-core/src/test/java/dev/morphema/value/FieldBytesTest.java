package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Objects;
import org.junit.jupiter.api.Test;

/**
 * Fields of records as bytes: kept ones are copied, those of a record that passes stay where they
 * are.
 */
class FieldBytesTest {
    private static byte[] buffer(String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        return Arrays.copyOf(bytes, bytes.length + FieldBytes.SPARE);
    }

    private static FieldBytes taken(FieldBytes.Row row) {
        return Objects.requireNonNull(row.take());
    }

    @Test
    void keptFieldsStayWhatTheyAreWhenTheirSourceChanges() {
        byte[] source = buffer("Nordlys;12.50");
        FieldBytes.Row row = new FieldBytes.Row(3);
        row.begin();
        row.text(0, source, 0, 7);
        row.number(1, source, 8, 13);
        FieldBytes first = taken(row);

        Arrays.fill(source, (byte) 'x');
        row.begin();
        row.text(2, source, 0, 3);
        FieldBytes second = taken(row);

        assertThat(first.value(0)).isEqualTo(TextValue.of("Nordlys"));
        assertThat(first.value(1)).isEqualTo(NumberValue.of(new BigDecimal("12.50")));
        assertThat(first.has(2)).isFalse();
        assertThat(second.has(0)).isFalse();
        assertThat(second.value(2)).isEqualTo(TextValue.of("xxx"));
    }

    @Test
    void aRecordThatPassesHasWhatStandsInItsSource() {
        byte[] source = buffer("Nordlys;Sula;");
        FieldBytes.Row row = new FieldBytes.Row(2);
        row.beginPassing(source);
        row.text(0, source, 0, 7);
        row.text(1, source, 8, 12);
        FieldBytes first = taken(row);
        Value kept = first.value(0);
        assertThat(first.value(1)).isEqualTo(TextValue.of("Sula"));

        row.beginPassing(source);
        row.text(1, source, 1, 4);
        FieldBytes second = taken(row);
        assertThat(second.has(0)).isFalse();
        assertThat(second.value(1)).isEqualTo(TextValue.of("ord"));
        assertThat(kept).isEqualTo(TextValue.of("Nordlys"));

        row.beginPassing(source);
        assertThat(row.take()).isNull();
    }

    @Test
    void aKeptRecordAfterOneThatPassedIsItsOwn() {
        byte[] source = buffer("Nordlys;");
        FieldBytes.Row row = new FieldBytes.Row(1);
        row.beginPassing(source);
        row.text(0, source, 0, 4);
        row.take();
        row.begin();
        row.text(0, source, 0, 7);
        FieldBytes kept = taken(row);

        row.beginPassing(source);
        row.text(0, source, 2, 3);
        assertThat(kept.value(0)).isEqualTo(TextValue.of("Nordlys"));
    }

    @Test
    void whatIsTooFarOrTooLongIsNotTaken() {
        byte[] source = new byte[FieldBytes.MOST_START + 100];
        FieldBytes.Row row = new FieldBytes.Row(1);
        row.beginPassing(source);
        assertThat(row.text(0, source, FieldBytes.MOST_START + 1, FieldBytes.MOST_START + 2))
                .isFalse();
        assertThat(row.text(0, source, 0, FieldBytes.MOST_LENGTH + 1)).isFalse();
        assertThat(row.has(0)).isFalse();
        assertThat(row.text(0, source, FieldBytes.MOST_START, FieldBytes.MOST_START + 2))
                .isTrue();
    }
}
