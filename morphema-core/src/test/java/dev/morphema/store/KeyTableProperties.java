package dev.morphema.store;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.Comparison;
import dev.morphema.value.DateValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A table of keys numbers them as a map of Java would, whatever their kind and length. */
class KeyTableProperties {
    @Provide
    Gen<Value> values() {
        Gen<String> texts = Gens.oneOf(
                Gens.of("", "B1", "fifteen letters", "sixteen letters.", "a text of many more letters", "süß", "€"),
                Gens.strings().withChars("ab\u00E9 ").ofMaxLength(17));
        Gen<Value> numbers = Gens.of("0", "1", "1.0", "1.50", "1.5", "-7", "12345678901234567890.5")
                .map(text -> NumberValue.of(new BigDecimal(text)));
        Gen<Value> others = Gens.of(
                Missing.ABSENT,
                Missing.NULL,
                BooleanValue.TRUE,
                BooleanValue.FALSE,
                new DateValue(LocalDate.of(2026, 1, 1)),
                new DateValue(LocalDate.of(2026, 1, 2)));
        return Gens.oneOf(texts.map(TextValue::of), texts.map(KeyTableProperties::ofBytes), numbers, others);
    }

    /** The same text, but known by its bytes where it can be. */
    private static Value ofBytes(String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        return TextValue.of(Arrays.copyOf(bytes, bytes.length + 16), 0, bytes.length);
    }

    @Property(tries = 500)
    void keysOfOneValueAreNumberedAsByAMap(@ForAll List<@From("values") Value> all) {
        isNumberedAsByAMap(all.stream().map(value -> new Value[] {value}).toList(), 0);
    }

    @Property(tries = 500)
    void keysOfSeveralValuesAreNumberedAsByAMap(
            @ForAll List<@From("values") Value> all, @ForAll @IntRange(min = 2, max = 3) int parts) {
        List<Value[]> keys = new ArrayList<>();
        for (int i = 0; i + parts <= all.size(); i++) {
            keys.add(all.subList(i, i + parts).toArray(new Value[0]));
        }
        isNumberedAsByAMap(keys, 2);
    }

    private static void isNumberedAsByAMap(List<Value[]> keys, int cells) {
        KeyTable table = new KeyTable(cells);
        Map<List<Object>, Integer> map = new LinkedHashMap<>();
        KeyCode code = new KeyCode();
        for (Value[] key : keys) {
            code.set(key);
            int number = table.find(code);
            Integer expected = map.get(asKey(key));
            if (expected == null) {
                assertThat(number).isEqualTo(-1);
                map.put(asKey(key), table.add(code));
                countOf(table, cells, map.size() - 1, true);
            } else {
                assertThat(number).isEqualTo(expected);
                countOf(table, cells, number, false);
            }
        }
        assertThat(table.size()).isEqualTo(map.size());
        map.forEach((key, number) -> assertThat(number).isLessThan(map.size()));
        for (Value[] key : keys) {
            code.set(key);
            assertThat(table.find(code)).isEqualTo(map.get(asKey(key)));
        }
    }

    /** What was put beside a key is still there, however the table grew. */
    private static void countOf(KeyTable table, int cells, int number, boolean isNew) {
        for (int i = 0; i < cells; i++) {
            int at = table.cellsOf(number) + i;
            assertThat(table.cells()[at]).isEqualTo(isNew ? 0 : number + 1L);
            table.cells()[at] = number + 1L;
        }
    }

    private static List<Object> asKey(Value[] key) {
        return Arrays.stream(key).map(Comparison::key).toList();
    }
}
