package dev.morphema.value;

import java.time.LocalDate;

/** A day of the calendar, printed as ISO 8601 ({@code 2026-03-05}). */
public record DateValue(LocalDate date) implements AsciiValue, Comparable<DateValue> {
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
    public String toString() {
        return date.toString();
    }
}
