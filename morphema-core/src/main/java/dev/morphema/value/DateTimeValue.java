package dev.morphema.value;

import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A date with a time of day, with or without an offset from UTC, printed as ISO 8601 with seconds
 * ({@code 2026-03-05T14:30:00+01:00}).
 */
public final class DateTimeValue extends Value {
    private final LocalDateTime local;
    private final @Nullable ZoneOffset offset;

    /**
     * @param local the date and time as the clock on the wall shows it
     * @param offset the offset of that clock, or null if it is not known
     */
    public DateTimeValue(LocalDateTime local, @Nullable ZoneOffset offset) {
        this.local = Objects.requireNonNull(local);
        this.offset = offset;
    }

    /** {@return the date and time as the clock on the wall shows it} */
    public LocalDateTime local() {
        return local;
    }

    /** {@return the offset of that clock, or null if it is not known} */
    public @Nullable ZoneOffset offset() {
        return offset;
    }

    @Override
    public Kind kind() {
        return Kind.DATETIME;
    }

    @Override
    public int mostBytes() {
        return Digits.MOST_BYTES;
    }

    @Override
    public int printed(byte[] into, int from) {
        int end = Digits.date(local.toLocalDate(), into, from);
        if (end < 0) {
            return end;
        }
        into[end] = 'T';
        end = Digits.time(local.toLocalTime(), into, end + 1);
        return end < 0 || offset == null ? end : printed(offset.getId(), into, end);
    }

    private static int printed(String id, byte[] into, int from) {
        for (int i = 0; i < id.length(); i++) {
            into[from + i] = (byte) id.charAt(i);
        }
        return from + id.length();
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof DateTimeValue same && same.local.equals(local) && Objects.equals(same.offset, offset);
    }

    @Override
    public int hashCode() {
        return Hashing.of(
                local.toLocalDate().toEpochDay() * Integer.MAX_VALUE + Objects.hashCode(offset),
                local.toLocalTime().toNanoOfDay());
    }

    @Override
    public String toString() {
        byte[] ascii = new byte[Digits.MOST_BYTES];
        int end = printed(ascii, 0);
        if (end >= 0) {
            return new String(ascii, 0, end, StandardCharsets.US_ASCII);
        }
        String text = local.toLocalDate() + "T" + TimeValue.printed(local.toLocalTime());
        return offset == null ? text : text + offset;
    }
}
