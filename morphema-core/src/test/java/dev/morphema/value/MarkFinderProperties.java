package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.util.stream.IntStream;

/** Marks and control characters are found among eight bytes as one by one. */
class MarkFinderProperties {
    @Provide
    Gen<byte[]> eight() {
        Gen<Byte> any = Gens.bytes();
        // Characters that differ from a mark, or from a space, in one bit only.
        Gen<Byte> near = Gens.of(
                        '"', '\\', '\'', ' ', '!', '#', '$', '&', '*', ',', ';', '<', '>', '=', '?', '\u001F', '\0')
                .map(c -> (byte) (char) c);
        return Gens.frequencyOf(Gens.weighted(1, any), Gens.weighted(3, near))
                .array(byte[].class)
                .ofSize(Long.BYTES);
    }

    @Provide
    Gen<String> marks() {
        return Gens.of("\"", "\\", "\"\\", "\\\"", "<>&", "\"<>&", "\"<&", "'<&", ",\"", ";'", "|\"#", ",\"#");
    }

    @Property(tries = 5_000)
    void findsTheFirst(@ForAll("eight") byte[] eight, @ForAll("marks") String marks) {
        int expected = IntStream.range(0, Long.BYTES)
                .filter(i -> eight[i] >= 0 && (eight[i] < ' ' || marks.indexOf(eight[i]) >= 0))
                .findFirst()
                .orElse(Long.BYTES);

        long found = new MarkFinder(marks).find(EightBytes.at(eight, 0));

        assertThat(EightBytes.first(found)).isEqualTo(expected);
    }
}
