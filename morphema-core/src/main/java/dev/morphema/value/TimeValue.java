package dev.morphema.value;

import java.time.LocalTime;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** A time of day, printed as ISO 8601 with seconds ({@code 14:30:00}). */
public final class TimeValue extends Value implements Comparable<TimeValue> {
    private final LocalTime time;

    /** @param time the time of day */
    public TimeValue(LocalTime time) {
        this.time = Objects.requireNonNull(time);
    }

    /** {@return the time of day} */
    public LocalTime time() {
        return time;
    }

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
    public boolean equals(@Nullable Object other) {
        return other instanceof TimeValue same && same.time.equals(time);
    }

    @Override
    public int hashCode() {
        return Hashing.of(time.toNanoOfDay(), 0);
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
