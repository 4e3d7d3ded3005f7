package dev.morphema.formats;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Bytes that are looked at eight at a time are compared and found as one by one. */
class KnownBytesProperties {
    private static final int SPARE = 2 * Long.BYTES;

    @Provide
    Gen<byte[]> bytes() {
        Gen<String> texts = Gens.oneOf(
                Gens.strings().withChars("<a>\n &é").ofMaxLength(40),
                Gens.strings().withChars("abc").ofMaxLength(40));
        return texts.map(text -> text.getBytes(StandardCharsets.UTF_8));
    }

    @Property
    void theyStandWhereTheyStand(
            @ForAll("bytes") byte[] text,
            @ForAll @IntRange(max = 40) int from,
            @ForAll @IntRange(max = 40) int length) {
        int start = Math.min(from, text.length);
        int end = Math.min(text.length, start + Math.max(1, length));
        if (start == end) {
            return;
        }
        KnownBytes known = new KnownBytes(text, start, end);
        byte[] buffer = Arrays.copyOf(text, text.length + SPARE);
        for (int place = 0; place + known.length() <= text.length; place++) {
            assertThat(known.areAt(buffer, place))
                    .isEqualTo(Arrays.equals(text, place, place + known.length(), text, start, end));
        }
        assertThat(known.areSame(new KnownBytes(text, start, end))).isTrue();
        for (int i = start; i < end; i++) {
            byte[] other = buffer.clone();
            other[i] ^= 1;
            assertThat(known.areAt(other, start)).isFalse();
        }
    }

    @Property
    void aPlainRunEndsBeforeTheFirstByteThatIsNotPlain(
            @ForAll("bytes") byte[] text, @ForAll @IntRange(max = 40) int from) {
        byte[] buffer = Arrays.copyOf(text, text.length + SPARE);
        Arrays.fill(buffer, text.length, buffer.length, (byte) 'a');
        int start = Math.min(from, text.length);
        int expected = start;
        while (expected < text.length && text[expected] >= ' ' && "<>&".indexOf(text[expected]) < 0) {
            expected++;
        }
        assertThat(new PlainRun("<>&").end(buffer, start, text.length)).isEqualTo(expected);
    }
}
