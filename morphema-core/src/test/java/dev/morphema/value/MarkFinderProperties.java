package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.IntStream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.Tuple;

/** Marks and control characters are found among eight bytes as one by one. */
class MarkFinderProperties {
    @Provide
    Arbitrary<byte[]> eight() {
        Arbitrary<Byte> any = Arbitraries.bytes();
        // Characters that differ from a mark, or from a space, in one bit only.
        Arbitrary<Byte> near = Arbitraries.of(
                        '"', '\\', '\'', ' ', '!', '#', '$', '&', '*', ',', ';', '<', '>', '=', '?', '\u001F', '\0')
                .map(c -> (byte) (char) c);
        return Arbitraries.frequencyOf(Tuple.of(1, any), Tuple.of(3, near))
                .array(byte[].class)
                .ofSize(Long.BYTES);
    }

    @Provide
    Arbitrary<String> marks() {
        return Arbitraries.of("\"", "\\", "\"\\", "\\\"", "<>&", "\"<>&", "\"<&", "'<&", ",\"", ";'", "|\"#", ",\"#");
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
