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
        String text = local.toLocalDate() + "T" + TimeValue.printed(local.toLocalTime());
        return offset == null ? text : text + offset;
    }
}
