package dev.morphema.value;

import java.time.LocalDate;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** A day of the calendar, printed as ISO 8601 ({@code 2026-03-05}). */
public final class DateValue extends Value implements Comparable<DateValue> {
    private final LocalDate date;

    /** @param date the day */
    public DateValue(LocalDate date) {
        this.date = Objects.requireNonNull(date);
    }

    /** {@return the day} */
    public LocalDate date() {
        return date;
    }

    @Override
    public Kind kind() {
        return Kind.DATE;
    }

    @Override
    public int compareTo(DateValue other) {
        return date.compareTo(other.date);
    }

    @Override
    public int mostBytes() {
        return Digits.MOST_BYTES;
    }

    @Override
    public int printed(byte[] into, int from) {
        return Digits.date(date, into, from);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof DateValue same && same.date.equals(date);
    }

    @Override
    public int hashCode() {
        return date.hashCode();
    }

    @Override
    public String toString() {
        return date.toString();
    }
}
