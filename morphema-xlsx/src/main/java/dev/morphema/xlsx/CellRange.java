package dev.morphema.xlsx;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A part of a sheet. Columns and rows count from 0, and the last ones are within it.
 *
 * @param firstColumn the leftmost
 * @param firstRow the topmost
 * @param lastColumn the rightmost
 * @param lastRow the lowest
 */
record CellRange(int firstColumn, int firstRow, int lastColumn, int lastRow) {
    /** All of a sheet. */
    static final CellRange ALL = new CellRange(0, 0, Integer.MAX_VALUE, Integer.MAX_VALUE);

    private static final Pattern WRITTEN = Pattern.compile("([A-Za-z]{1,3})(\\d{1,7})?:([A-Za-z]{1,3})(\\d{1,7})?");

    /** {@return a range as spreadsheets write it, or null if it is none} */
    static @Nullable CellRange parse(String written) {
        Matcher found = WRITTEN.matcher(written.strip());
        if (!found.matches()) {
            return null;
        }
        CellRange range = new CellRange(
                column(found.group(1)),
                found.group(2) == null ? 0 : Integer.parseInt(found.group(2)) - 1,
                column(found.group(3)),
                found.group(4) == null ? Integer.MAX_VALUE : Integer.parseInt(found.group(4)) - 1);
        boolean inOrder =
                range.firstColumn <= range.lastColumn && range.firstRow <= range.lastRow && range.firstRow >= 0;
        return inOrder ? range : null;
    }

    private static int column(String letters) {
        int column = 0;
        for (char letter : letters.toUpperCase(Locale.ROOT).toCharArray()) {
            column = column * 26 + letter - 'A' + 1;
        }
        return column - 1;
    }

    /** {@return the letters of a column} */
    static String letters(int column) {
        StringBuilder letters = new StringBuilder();
        for (int left = column + 1; left > 0; left = (left - 1) / 26) {
            letters.insert(0, (char) ('A' + (left - 1) % 26));
        }
        return letters.toString();
    }
}
