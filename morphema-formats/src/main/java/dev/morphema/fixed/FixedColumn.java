package dev.morphema.fixed;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A column, as a mapping writes it: {@code kg 9-16}, {@code L.kg 9-16} for lines with the code L,
 * and of a target {@code kg 9-16 right 0} for numbers that are filled with zeros.
 *
 * @param code of the lines that have it, or null for all
 * @param name of the field
 * @param from where it begins, counted from 0
 * @param to behind its last character
 * @param right whether a shorter text stands at its end
 * @param fill what stands in the rest of it
 */
record FixedColumn(@Nullable String code, String name, int from, int to, boolean right, char fill) {
    private static final Pattern WRITTEN = Pattern.compile(
            "(?:([^\\s.]+)\\.)?([^\\s.]+)\\s+(\\d{1,6})(?:-(\\d{1,6}))?(?:\\s+(left|right)(?:\\s+(\\S))?)?");

    /** {@return a column, or null if it is not written as one} */
    static @Nullable FixedColumn parse(String written) {
        Matcher found = WRITTEN.matcher(written.strip());
        if (!found.matches()) {
            return null;
        }
        int from = Integer.parseInt(found.group(3)) - 1;
        int to = found.group(4) == null ? from + 1 : Integer.parseInt(found.group(4));
        char fill = found.group(6) == null ? ' ' : found.group(6).charAt(0);
        return from < 0 || to <= from
                ? null
                : new FixedColumn(found.group(1), found.group(2), from, to, "right".equals(found.group(5)), fill);
    }

    int width() {
        return to - from;
    }

    boolean overlaps(FixedColumn other) {
        return from < other.to && other.from < to;
    }
}
