package dev.morphema.function;

import static dev.morphema.function.Calls.call;
import static dev.morphema.function.Calls.items;
import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.Missing;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Functions of texts give what Java gives for the code points, whether the text was made of
 * characters or of bytes.
 */
class TextFunctionProperties {
    @Provide
    Gen<String> texts() {
        return Gens.of("a", "b", "Ab", "ß", "é", "e\u0301", "İ", "ﬁ", "Σ", "😀", "𝄞", " ", "\t", "\u00A0", ".", "12")
                .list()
                .ofMaxSize(9)
                .map(parts -> String.join("", parts));
    }

    @Provide
    Gen<String> marks() {
        return Gens.of("a", "b", "Ab", "😀", " ", ".", "aa");
    }

    private static int[] codePoints(String text) {
        return text.codePoints().toArray();
    }

    private static String part(String text, int from, int to) {
        int[] all = codePoints(text);
        int start = Math.min(from, all.length);
        return new String(all, start, Math.max(0, Math.min(to, all.length) - start));
    }

    /** Both kinds of texts must give the same. */
    private static void gives(String expected, String name, String text, Object... others) {
        Object[] arguments = new Object[others.length + 1];
        System.arraycopy(others, 0, arguments, 1, others.length);
        arguments[0] = text;
        assertThat(call(name, arguments)).hasToString(expected);
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        arguments[0] = TextValue.of(utf8, 0, utf8.length);
        assertThat(call(name, arguments)).hasToString(expected);
    }

    @Property
    void partsAreCountedInCodePoints(
            @ForAll("texts") String text, @ForAll @IntRange(max = 11) int count, @ForAll @IntRange(max = 11) int from) {
        int length = codePoints(text).length;
        gives(part(text, 0, count), "left", text, count);
        gives(part(text, Math.max(0, length - count), length), "right", text, count);
        gives(part(text, from, length), "substring", text, from + 1);
        gives(part(text, from, from + count), "substring", text, from + 1, count);
        gives(String.valueOf(length), "length", text);
        gives(String.valueOf(text.getBytes(StandardCharsets.UTF_8).length), "byteLength", text);
    }

    @Property
    void textsAreFilledUpToALength(@ForAll("texts") String text, @ForAll @IntRange(max = 12) int length) {
        for (String fill : List.of("0", "😀")) {
            String more = fill.repeat(Math.max(0, length - codePoints(text).length));
            gives(more + text, "padLeft", text, length, fill);
            gives(text + more, "padRight", text, length, fill);
        }
        gives(text + " ".repeat(Math.max(0, length - codePoints(text).length)), "padRight", text, length);
    }

    @Property
    void whatIsFoundIsWhatJavaFinds(@ForAll("texts") String text, @ForAll("marks") String mark) {
        gives(String.valueOf(text.contains(mark)), "contains", text, mark);
        gives(String.valueOf(text.startsWith(mark)), "startsWith", text, mark);
        gives(String.valueOf(text.endsWith(mark)), "endsWith", text, mark);
        gives(text.replace(mark, "<>"), "replace", text, mark, "<>");
        int at = text.indexOf(mark);
        if (at < 0) {
            assertThat(call("before", text, mark)).isEqualTo(Missing.ABSENT);
            assertThat(call("after", text, mark)).isEqualTo(Missing.ABSENT);
        } else {
            gives(text.substring(0, at), "before", text, mark);
            gives(text.substring(at + mark.length()), "after", text, mark);
        }
    }

    @Property
    void theMarkPutBetweenThePartsGivesTheTextAgain(@ForAll("texts") String text, @ForAll("marks") String mark) {
        Value parts = call("split", text, mark);
        assertThat(items(parts)).isEqualTo(Arrays.asList(text.split(Pattern.quote(mark), -1)));
        assertThat(Calls.over("join", items(parts), mark)).hasToString(text);
    }

    @Property
    void casesAreThoseOfUnicode(@ForAll("texts") String text) {
        gives(text.toUpperCase(Locale.ROOT), "upper", text);
        gives(text.toLowerCase(Locale.ROOT), "lower", text);
    }

    @Property
    void onlyTheWhiteSpaceOfXmlIsTrimmed(@ForAll("texts") String text) {
        gives(text.replaceAll("^[ \t\r\n]+|[ \t\r\n]+$", ""), "trim", text);
        gives(text.replaceAll("^[ \t\r\n]+|[ \t\r\n]+$", "").replaceAll("[ \t\r\n]+", " "), "normalizeSpace", text);
        assertThat(call("blank", text)).hasToString(String.valueOf(text.matches("[ \t\r\n]*")));
        assertThat(call("filled", text)).isEqualTo(text.matches("[ \t\r\n]*") ? Missing.ABSENT : Calls.value(text));
    }

    @Property
    void textsAreJoinedWhole(@ForAll List<@From("texts") String> texts) {
        assertThat(call("concat", texts.toArray())).hasToString(String.join("", texts));
    }

    @Property
    void expressionsFindWhatThoseOfJavaFind(@ForAll("texts") String text) {
        for (String expression : List.of("a+", "(b)|(a)", "[^a-z]", "^.b", "A?b$", "\\p{Lu}", "(x)?.")) {
            Matcher java =
                    Pattern.compile(expression, Pattern.UNICODE_CHARACTER_CLASS).matcher(text);
            assertThat(call("matches", text, expression)).hasToString(String.valueOf(java.matches()));
            assertThat(call("replaceAll", text, expression, "<$0>")).hasToString(java.replaceAll("<$0>"));
            java.reset();
            Value found = call("extract", text, expression);
            String group = !java.find() ? null : java.groupCount() == 0 ? java.group() : java.group(1);
            assertThat(found).isEqualTo(group == null ? Missing.ABSENT : Calls.value(group));
        }
    }
}
