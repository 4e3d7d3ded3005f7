package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.format.BareRecord;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.Layout;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** The key that came last is the same exactly if its text is. */
class LastKeyProperties {
    /** One text between others. */
    private record OneField(String text, int from) implements BareRecord {
        @Override
        public Layout layout() {
            return Layout.EMPTY;
        }

        @Override
        public byte[] bytes() {
            return ("x".repeat(from) + text + "another one").getBytes(StandardCharsets.US_ASCII);
        }

        @Override
        public int from(int slot) {
            return from;
        }

        @Override
        public int to(int slot) {
            return from + text.length();
        }

        @Override
        public Origin origin() {
            return new Origin("test", 1, 1);
        }

        @Override
        public RecordValue value() {
            throw new AssertionError("nobody needs the value");
        }
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
            OneField record = new OneField(texts.get(i), i % 3);
            assertThat(last.isStill(record, 0)).isEqualTo(texts.get(i).equals(before));
            assertThat(last.isStill(record, 0)).isTrue();
            before = texts.get(i);
        }
    }
}
