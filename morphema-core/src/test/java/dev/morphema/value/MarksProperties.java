package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Texts are copied eight bytes at a time as they would be character by character. */
class MarksProperties {
    private static final int SPARE = 2 * Long.BYTES;

    private static byte[][] written() {
        byte[][] written = new byte[128][];
        written['"'] = "\\\"".getBytes(StandardCharsets.US_ASCII);
        written['&'] = "&amp;".getBytes(StandardCharsets.US_ASCII);
        written['\n'] = "\\n".getBytes(StandardCharsets.US_ASCII);
        return written;
    }

    private static final Marks REPLACED = new Marks("\"&", written());
    private static final Marks REFUSED = new Marks(",;\"");

    @Provide
    Gen<String> texts() {
        return Gens.oneOf(
                Gens.strings()
                        .withChars("abc \"&\n,;ü€\uD83D\uDE00x")
                        .ofMaxLength(40)
                        .filter(MarksProperties::isWhole),
                Gens.strings().withChars("abcdefgh").ofMaxLength(40));
    }

    private static boolean isWhole(String text) {
        return StandardCharsets.UTF_8.newEncoder().canEncode(text);
    }

    /** There is no copy of nothing: a field without text is not kept as bytes. */
    @Provide
    Gen<String> someText() {
        return texts().filter(text -> !text.isEmpty());
    }

    /** With other bytes before and behind, which must not count. */
    private static String copied(Marks marks, String text, String around) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        byte[] source = (around + text + around.repeat(SPARE)).getBytes(StandardCharsets.UTF_8);
        byte[] into = new byte[6 * bytes.length + 3 * SPARE];
        int start = around.getBytes(StandardCharsets.UTF_8).length;
        int end = marks.copy(source, start, bytes.length, into, 5);
        return end < 0 ? "refused" : new String(into, 5, end - 5, StandardCharsets.UTF_8);
    }

    @Property
    void whatStandsForMarksIsWritten(@ForAll("someText") String text) {
        String expected = text.replace("&", "&amp;").replace("\"", "\\\"").replace("\n", "\\n");
        for (String around : Arrays.asList("\"", "a", "\n", "ü")) {
            assertThat(copied(REPLACED, text, around)).isEqualTo(expected);
        }
    }

    @Property
    void aMarkThatNothingStandsForIsRefused(@ForAll("someText") String text) {
        boolean plain = text.chars().noneMatch(c -> ",;\"".indexOf(c) >= 0 || c < ' ');
        for (String around : Arrays.asList(",", "a", "\n")) {
            assertThat(copied(REFUSED, text, around)).isEqualTo(plain ? text : "refused");
        }
    }

    @Property
    void fieldsOfARowAreWhatWasAdded(@ForAll("texts") String first, @ForAll("texts") String second) {
        FieldBytes.Row row = new FieldBytes.Row(3);
        for (int record = 0; record < 2; record++) {
            boolean one = add(row, 0, first);
            boolean other = addInPieces(row, 2, second);
            FieldBytes taken = row.take();
            assertThat(taken == null).isEqualTo(!one && !other);
            if (taken != null) {
                assertThat(taken.has(0)).isEqualTo(one);
                assertThat(taken.has(1)).isFalse();
                assertThat(taken.has(2)).isEqualTo(other);
                assertThat(one ? taken.value(0).toString() : first).isEqualTo(first);
                assertThat(other ? taken.value(2).toString() : second).isEqualTo(second);
            }
            assertThat(row.take()).isNull();
        }
    }

    private static byte[] spared(String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        return Arrays.copyOf(bytes, bytes.length + SPARE);
    }

    private static boolean add(FieldBytes.Row row, int slot, String text) {
        byte[] bytes = spared(text);
        return bytes.length > SPARE && row.text(slot, bytes, 0, bytes.length - SPARE);
    }

    private static boolean addInPieces(FieldBytes.Row row, int slot, String text) {
        byte[] bytes = spared(text);
        int end = bytes.length - SPARE;
        int begin = row.beginText();
        row.put(bytes, 0, end / 2);
        row.put(bytes, end / 2, end);
        return row.end(slot, begin);
    }
}
