package dev.morphema.value;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.jspecify.annotations.Nullable;

/**
 * A date with a time of day, with or without an offset from UTC, printed as ISO 8601 with seconds
 * ({@code 2026-03-05T14:30:00+01:00}).
 *
 * @param local the date and time as the clock on the wall shows it
 * @param offset the offset of that clock, or null if it is not known
 */
public record DateTimeValue(LocalDateTime local, @Nullable ZoneOffset offset) implements Value {
    @Override
    public Kind kind() {
        return Kind.DATETIME;
    }

    @Override
    public String toString() {
        String text = local.getYear() >= 1000 && local.getYear() <= 9999 && local.getNano() == 0
                ? seconds()
                : local.toLocalDate() + "T" + TimeValue.printed(local.toLocalTime());
        return offset == null ? text : text + offset;
    }

    /** The common form, digit by digit. */
    private String seconds() {
        char[] text = "0000-00-00T00:00:00".toCharArray();
        two(text, 0, local.getYear() / 100);
        two(text, 2, local.getYear() % 100);
        two(text, 5, local.getMonthValue());
        two(text, 8, local.getDayOfMonth());
        two(text, 11, local.getHour());
        two(text, 14, local.getMinute());
        two(text, 17, local.getSecond());
        return new String(text);
    }

    private static void two(char[] text, int at, int value) {
        text[at] = (char) ('0' + value / 10);
        text[at + 1] = (char) ('0' + value % 10);
    }
}
