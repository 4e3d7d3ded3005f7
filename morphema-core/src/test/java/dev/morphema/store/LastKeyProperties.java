package dev.morphema.store;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.FieldBytes;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;

/** The key that came last is the same exactly if its text is. */
class LastKeyProperties {
    /** {@return one text between others} */
    private static FieldBytes field(String text, int from) {
        byte[] all = ("x".repeat(from) + text + "another one, and room").getBytes(StandardCharsets.US_ASCII);
        FieldBytes.Row row = new FieldBytes.Row(1);
        row.beginPassing(all);
        row.plain(0, all, from, from + text.length());
        return Objects.requireNonNull(row.take());
    }

    @Provide
    Gen<String> texts() {
        // Few different ones, of all lengths around eight and sixteen, that differ at their ends.
        return Gens.oneOf(
                Gens.of("a", "b", "another"),
                Gens.strings().withChars("ab").ofMinLength(1).ofMaxLength(4),
                Gens.integers()
                        .between(1, 70)
                        .flatMap(length -> Gens.of("a".repeat(length), "a".repeat(length - 1) + "b")));
    }

    @Property(tries = 2_000)
    void aKeyIsStillTheSameIfItsTextIs(@ForAll List<@From("texts") String> texts) {
        LastKey last = new LastKey();
        String before = "";
        for (int i = 0; i < texts.size(); i++) {
            FieldBytes record = field(texts.get(i), i % 3);
            assertThat(last.isStill(record, 0)).isEqualTo(texts.get(i).equals(before));
            assertThat(last.isStill(record, 0)).isTrue();
            before = texts.get(i);
        }
    }
}
