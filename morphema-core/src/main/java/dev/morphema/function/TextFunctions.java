package dev.morphema.function;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Functions of texts. Positions count from 1, in code points. */
final class TextFunctions implements FunctionTable.Family {
    @Override
    public void addTo(FunctionSet functions) {
        functions.scalar("upper(text: text): text", a -> ((TextValue) a[0]).upper());
        functions.scalar("lower(text: text): text", a -> ((TextValue) a[0]).lower());
        functions.scalar("trim(text: text): text", TextFunctions::trim);
        functions.scalar("normalizeSpace(text: text): text", a -> TextValue.of(WhiteSpace.normalize(text(a, 0))));
        functions.scalar("length(text: text): number", a -> NumberValue.of(codePoints((TextValue) a[0])));
        functions.scalar(
                "byteLength(text: text): number",
                a -> NumberValue.of(text(a, 0).getBytes(StandardCharsets.UTF_8).length));
        functions.scalar("substring(text: text, start: integer, length?: integer): text", TextFunctions::substring);
        functions.scalar("left(text: text, length: integer): text", a -> part((TextValue) a[0], 0, size(a, 1)));
        functions.scalar("right(text: text, length: integer): text", TextFunctions::right);
        functions.scalar("before(text: text, mark: text): text", TextFunctions::before);
        functions.scalar("after(text: text, mark: text): text", TextFunctions::after);
        functions.scalar("replace(text: text, old: text, new: text): text", TextFunctions::replace);
        functions.scalar("split(text: text, mark: text): list", TextFunctions::split);
        functions.scalar(
                "contains(text: text, part: text): boolean",
                a -> BooleanValue.of(text(a, 0).contains(text(a, 1))));
        functions.scalar(
                "startsWith(text: text, part: text): boolean",
                a -> BooleanValue.of(text(a, 0).startsWith(text(a, 1))));
        functions.scalar(
                "endsWith(text: text, part: text): boolean",
                a -> BooleanValue.of(text(a, 0).endsWith(text(a, 1))));
        functions.scalar("padLeft(text: text, length: integer, fill?: text): text", a -> pad(a, true));
        functions.scalar("padRight(text: text, length: integer, fill?: text): text", a -> pad(a, false));
        functions.scalar("concat(part...: text): text", TextValue::joined);
    }

    static String text(Value[] arguments, int index) {
        return ((TextValue) arguments[index]).text();
    }

    /** A number of characters that is not negative and not beyond what a text can have. */
    private static int size(Value[] arguments, int index) {
        NumberValue number = (NumberValue) arguments[index];
        if (number.sign() < 0) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "A length cannot be negative.")
                    .withValue(number.toString()));
        }
        return (int) Math.min(number.nearestLong(), Integer.MAX_VALUE);
    }

    private static Value trim(Value[] a) {
        String all = text(a, 0);
        String trimmed = WhiteSpace.trim(all);
        int from = all.indexOf(trimmed);
        return ((TextValue) a[0]).part(from, from + trimmed.length());
    }

    /** The part of a text, by code points counted from 0; what lies outside is left out. */
    private static TextValue part(TextValue value, int from, int length) {
        int count = codePoints(value);
        int start = Math.min(from, count);
        int end = (int) Math.min((long) start + length, count);
        if (count == value.length()) {
            return value.part(start, end);
        }
        String text = value.text();
        int startIndex = text.offsetByCodePoints(0, start);
        return value.part(startIndex, text.offsetByCodePoints(startIndex, end - start));
    }

    private static int codePoints(TextValue text) {
        return text.isPlain() ? text.length() : text.text().codePointCount(0, text.length());
    }

    private static Value substring(Value[] a) {
        if (((NumberValue) a[1]).sign() <= 0) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "Positions in a text count from 1.")
                    .withValue(a[1].toString())
                    .withHelp("right(text, n) takes characters from the end"));
        }
        int start = size(a, 1);
        return part((TextValue) a[0], start - 1, a.length > 2 ? size(a, 2) : Integer.MAX_VALUE);
    }

    private static Value right(Value[] a) {
        TextValue text = (TextValue) a[0];
        return part(text, Math.max(0, codePoints(text) - size(a, 1)), Integer.MAX_VALUE);
    }

    private static Value before(Value[] a) {
        int at = text(a, 0).indexOf(text(a, 1));
        return at < 0 ? Missing.ABSENT : ((TextValue) a[0]).part(0, at);
    }

    private static Value after(Value[] a) {
        TextValue text = (TextValue) a[0];
        int at = text.text().indexOf(text(a, 1));
        return at < 0 ? Missing.ABSENT : text.part(at + text(a, 1).length(), text.length());
    }

    private static Value replace(Value[] a) {
        if (text(a, 1).isEmpty()) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "The text to replace is empty."));
        }
        return TextValue.of(text(a, 0).replace(text(a, 1), text(a, 2)));
    }

    /** All parts, empty ones too. */
    private static Value split(Value[] a) {
        String text = text(a, 0);
        String mark = text(a, 1);
        if (mark.isEmpty()) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "The separator is empty."));
        }
        List<Value> parts = new ArrayList<>();
        int from = 0;
        for (int at = text.indexOf(mark); at >= 0; at = text.indexOf(mark, from)) {
            parts.add(TextValue.of(text.substring(from, at)));
            from = at + mark.length();
        }
        parts.add(TextValue.of(text.substring(from)));
        return ListValue.owned(parts);
    }

    private static Value pad(Value[] a, boolean left) {
        String text = text(a, 0);
        String fill = a.length > 2 ? text(a, 2) : " ";
        if (fill.codePointCount(0, fill.length()) != 1) {
            throw new ProblemException(Problem.error(Code.OUT_OF_RANGE, "The fill must be one character.")
                    .withValue(fill));
        }
        int wanted = size(a, 1);
        if (wanted > 1_000_000) {
            throw new ProblemException(
                    Problem.error(Code.OUT_OF_RANGE, "A text is padded to 1,000,000 characters at most."));
        }
        int missing = wanted - text.codePointCount(0, text.length());
        String padding = fill.repeat(Math.max(0, missing));
        return TextValue.of(left ? padding + text : text + padding);
    }
}
