package dev.morphema.value;

import java.time.LocalDate;
import java.time.LocalTime;

/** Prints dates and times of four-digit years and whole seconds digit by digit. */
final class Digits {
    /** The longest form: 2026-03-05T14:30:00+01:00:00. */
    static final int MOST_BYTES = 28;

    private static final int LEAST_YEAR = 1000;
    private static final int MOST_YEAR = 9999;

    private Digits() {}

    /** {@return where the date ends, or -1 if its year has not four digits} */
    static int date(LocalDate date, byte[] into, int from) {
        int year = date.getYear();
        if (year < LEAST_YEAR || year > MOST_YEAR) {
            return -1;
        }
        two(into, from, year / 100);
        two(into, from + 2, year % 100);
        into[from + 4] = '-';
        two(into, from + 5, date.getMonthValue());
        into[from + 7] = '-';
        two(into, from + 8, date.getDayOfMonth());
        return from + 10;
    }

    /** {@return where the time ends, or -1 if its seconds are not whole} */
    static int time(LocalTime time, byte[] into, int from) {
        if (time.getNano() != 0) {
            return -1;
        }
        two(into, from, time.getHour());
        into[from + 2] = ':';
        two(into, from + 3, time.getMinute());
        into[from + 5] = ':';
        two(into, from + 6, time.getSecond());
        return from + 8;
    }

    private static void two(byte[] into, int at, int value) {
        into[at] = (byte) ('0' + value / 10);
        into[at + 1] = (byte) ('0' + value % 10);
    }
}
