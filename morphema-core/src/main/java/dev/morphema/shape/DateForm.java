package dev.morphema.shape;

import java.time.YearMonth;
import org.jspecify.annotations.Nullable;

/**
 * Tells quickly that a text is surely a date or time of a pattern, for what is asked of each value
 * of a file. Of a text that it does not know the conversion itself is to be asked. Immutable.
 */
final class DateForm {
    /**
     * Letters of patterns, each for a number in the order year, month, day, hour, minute, second.
     */
    private static final String FIELDS = "yMdHms";

    private static final int[] LEAST = {1, 1, 1, 0, 0, 0};
    private static final int[] MOST = {9999, 12, 31, 23, 59, 59};
    private static final int SURE_DAY = 28;
    private static final int CENTURY = 2000;
    private static final int LONGEST_FRACTION = 9;

    private final String pattern;
    /** Whether a fraction of the second and an offset may follow, as in ISO 8601. */
    private final boolean iso;

    private DateForm(String pattern, boolean iso) {
        this.pattern = pattern;
        this.iso = iso;
    }

    /** {@return the form of a pattern, or null if it has more than numbers and marks} */
    static @Nullable DateForm of(String pattern) {
        boolean numbers = pattern.chars().allMatch(c -> FIELDS.indexOf(c) >= 0 || !Character.isLetter(c))
                && !pattern.contains("MMM");
        return numbers ? new DateForm(pattern, false) : null;
    }

    /** {@return the form of a datetime in ISO 8601} */
    static DateForm isoDatetime() {
        return new DateForm("yyyy-MM-ddTHH:mm:ss", true);
    }

    /** {@return whether a text is surely of this form} */
    boolean surelyTakes(String text) {
        int[] found = {CENTURY, 1, 1, 0, 0, 0};
        int at = 0;
        for (int i = 0; i < pattern.length(); ) {
            char letter = pattern.charAt(i);
            int field = FIELDS.indexOf(letter);
            if (field < 0) {
                if (at >= text.length() || text.charAt(at++) != letter) {
                    return false;
                }
                i++;
                continue;
            }
            int width = 1;
            while (i + width < pattern.length() && pattern.charAt(i + width) == letter) {
                width++;
            }
            int end = Digits.end(text, at, width == 1 ? 2 : width);
            if (end - at < width) {
                return false;
            }
            int number = 0;
            while (at < end) {
                number = 10 * number + text.charAt(at++) - '0';
            }
            found[field] = number + (letter == 'y' && width == 2 ? CENTURY : 0);
            i += width;
        }
        return isDate(found) && (at == text.length() || iso && isRest(text, at));
    }

    private static boolean isDate(int[] found) {
        for (int i = 0; i < found.length; i++) {
            if (found[i] < LEAST[i] || found[i] > MOST[i]) {
                return false;
            }
        }
        return found[2] <= SURE_DAY || YearMonth.of(found[0], found[1]).isValidDay(found[2]);
    }

    /** Whether a fraction and a {@code Z} are all that follows; other offsets are seldom. */
    private static boolean isRest(String text, int from) {
        int at = from;
        if (text.charAt(at) == '.') {
            int end = Digits.end(text, at + 1, LONGEST_FRACTION);
            if (end == at + 1) {
                return false;
            }
            at = end;
        }
        return at == text.length() || at == text.length() - 1 && text.charAt(at) == 'Z';
    }
}
