package dev.morphema.value;

import java.time.LocalTime;

/** A time of day, printed as ISO 8601 with seconds ({@code 14:30:00}). */
public record TimeValue(LocalTime time) implements AsciiValue, Comparable<TimeValue> {
    @Override
    public Kind kind() {
        return Kind.TIME;
    }

    @Override
    public int compareTo(TimeValue other) {
        return time.compareTo(other.time);
    }

    @Override
    public int mostBytes() {
        return Digits.MOST_BYTES;
    }

    @Override
    public int printed(byte[] into, int from) {
        return Digits.time(time, into, from);
    }

    @Override
    public String toString() {
        return printed(time);
    }

    /** {@return a time with its seconds, and its fraction only where there is one} */
    static String printed(LocalTime time) {
        String iso = time.toString();
        return iso.length() == 5 ? iso + ":00" : iso;
    }
}
