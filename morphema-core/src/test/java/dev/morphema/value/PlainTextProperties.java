package dev.morphema.value;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.testing.Size;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/**
 * A text that its reader takes for plain is one, wherever its bytes stand and whatever stands
 * around them.
 */
class PlainTextProperties {
    @Property
    void isOneOfPlainBytesOnly(
            @ForAll @Size(max = 40) byte[] bytes,
            @ForAll @IntRange(max = 40) int start,
            @ForAll @IntRange(max = 40) int length) {
        int from = Math.min(start, bytes.length);
        int to = Math.min(from + length, bytes.length);
        boolean plain = to > from && IntStream.range(from, to).allMatch(i -> TextValue.isPlain(bytes[i] & 0xFF));

        TextValue text = TextValue.ifPlain(bytes, from, to);

        assertThat(text != null).isEqualTo(plain);
        if (text != null) {
            assertThat(text.text()).isEqualTo(new String(bytes, from, to - from, StandardCharsets.US_ASCII));
        }
    }

    @Property
    void hasTheCaseThatItsCharactersHave(@ForAll("latin") String text) {
        String mark = "\"'&<>\\";
        TextValue plain = TextValue.often(text.replaceAll("[^ -~]|[" + Pattern.quote(mark) + "]", "x"));
        for (TextValue each : new TextValue[] {TextValue.often(text), plain}) {
            assertThat(each.upper()).isEqualTo(TextValue.of(each.text().toUpperCase(Locale.ROOT)));
            assertThat(each.lower()).isEqualTo(TextValue.of(each.text().toLowerCase(Locale.ROOT)));
            assertThat(each.upper().isPlain()).isEqualTo(each.isPlain());
        }
    }

    @Property
    void isPlainInPartsAndJoinedWithOthers(
            @ForAll("texts") String text, @ForAll("texts") String other, @ForAll @IntRange(max = 12) int split) {
        int at = Math.min(split, text.length());
        TextValue whole = TextValue.often(text);
        TextValue start = whole.part(0, at);
        TextValue end = whole.part(at, text.length());
        assertThat(start.text()).isEqualTo(text.substring(0, at));
        assertThat(end.text()).isEqualTo(text.substring(at));
        assertThat(start.isPlain()).isEqualTo(whole.isPlain() && at > 0);
        Value number = NumberValue.of(-25);
        TextValue joined = TextValue.joined(start, Missing.ABSENT, end, number, TextValue.of(other), Missing.NULL);
        assertThat(joined).isEqualTo(TextValue.of(text + "-25" + other));
        assertThat(TextValue.joined(end, number).isPlain()).isEqualTo(end.isPlain() || end.length() == 0);
        assertThat(TextValue.joined(Missing.ABSENT, TextValue.EMPTY)).isEqualTo(TextValue.EMPTY);
    }

    @Provide
    Gen<String> latin() {
        return Gens.strings().withCharRange(' ', '\u017F').ofMaxLength(40);
    }

    @Provide
    Gen<String> texts() {
        return Gens.oneOf(
                Gens.strings().withChars("aB 9-").ofMaxLength(12),
                Gens.strings().withChars("a&\"\u00FC\u0141 ").ofMaxLength(12));
    }

    @Property(tries = 300)
    void isNoneWithAByteThatIsNotPlain(@ForAll byte odd, @ForAll @IntRange(min = 1, max = 20) int length) {
        for (int place = 0; place < length; place++) {
            byte[] bytes = "abcdefghijklmnopqrstuvwxyz &amp;".getBytes(StandardCharsets.US_ASCII);
            bytes[place] = odd;

            assertThat(TextValue.ifPlain(bytes, 0, length) != null).isEqualTo(TextValue.isPlain(odd & 0xFF));
        }
    }
}
