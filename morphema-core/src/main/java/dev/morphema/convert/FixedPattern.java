package dev.morphema.convert;

import dev.morphema.value.EightBytes;
import dev.morphema.value.Kind;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Month;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.temporal.TemporalAccessor;
import org.jspecify.annotations.Nullable;

/**
 * A date pattern in which each field has its place, so that it is read and printed digit by digit.
 * A text that does not follow it to the letter is left to the general way, which then says what is
 * wrong. Immutable.
 */
final class FixedPattern {
    private static final String FIELDS = "yMdHms";
    private static final FixedPattern ISO_SECONDS = of("yyyy-MM-dd'T'HH:mm:ss");
    private static final int SECONDS_END = 19;
    private static final int LONGEST_ISO = SECONDS_END + 6;
    private static final int MOST_YEAR = 9999;

    /** Digits and marks; where a field stands there is its letter. */
    private final char[] template;
    /** For each field where it begins, or -1. */
    private final int[] starts;

    /**
     * The marks, and a zero for each digit; the bits that these share with what may stand there;
     * and what can be added to that so that these bits stay the same.
     */
    private final byte[] marksAndZeros;

    private final byte[] shared;
    private final byte[] harmless;

    private FixedPattern(char[] template, int[] starts) {
        this.template = template;
        this.starts = starts;
        this.marksAndZeros = new byte[template.length];
        this.shared = new byte[template.length];
        this.harmless = new byte[template.length];
        for (int i = 0; i < template.length; i++) {
            boolean digit = template[i] == '\0';
            marksAndZeros[i] = digit ? (byte) '0' : (byte) template[i];
            shared[i] = (byte) (digit ? 0xF0 : 0xFF);
            harmless[i] = (byte) (digit ? 6 : 0);
        }
    }

    /**
     * {@return the pattern, or null if its fields have no fixed places, or it lacks some of a date
     * or time}
     */
    static @Nullable FixedPattern of(String pattern) {
        StringBuilder template = new StringBuilder();
        StringBuilder marks = new StringBuilder();
        int[] starts = {-1, -1, -1, -1, -1, -1};
        boolean quoted = false;
        for (int i = 0; i < pattern.length(); ) {
            char c = pattern.charAt(i);
            int field = quoted ? -1 : FIELDS.indexOf(c == 'u' ? 'y' : c);
            if (c == '\'') {
                quoted = !quoted;
                i++;
            } else if (field >= 0) {
                int length = field == 0 ? 4 : 2;
                int end = i;
                while (end < pattern.length() && pattern.charAt(end) == c) {
                    end++;
                }
                if (end - i != length || starts[field] >= 0) {
                    return null;
                }
                starts[field] = template.length();
                template.append("0".repeat(length));
                marks.append(String.valueOf(FIELDS.charAt(field)).repeat(length));
                i = end;
            } else if (!quoted && (Character.isLetter(c) || c == '[' || c == ']') || c > 0x7F) {
                return null;
            } else {
                template.append(c);
                marks.append('\0');
                i++;
            }
        }
        boolean date = starts[0] >= 0 && starts[1] >= 0 && starts[2] >= 0;
        boolean noDate = starts[0] < 0 && starts[1] < 0 && starts[2] < 0;
        boolean time = starts[3] >= 0 && starts[4] >= 0;
        boolean noTime = starts[3] < 0 && starts[4] < 0 && starts[5] < 0;
        if (quoted || pattern.contains("''") || !(date || noDate) || !(time || noTime) || noDate && noTime) {
            return null;
        }
        for (int i = 0; i < template.length(); i++) {
            if (marks.charAt(i) != '\0') {
                template.setCharAt(i, '\0');
            }
        }
        return new FixedPattern(template.toString().toCharArray(), starts);
    }

    /**
     * {@return the date, time or datetime of a text, or null if it does not follow the pattern to
     * the letter}
     */
    @Nullable
    TemporalAccessor parse(String text) {
        byte[] bytes = text.length() == template.length ? ascii(text) : null;
        return bytes == null ? null : parseStart(bytes, 0);
    }

    /** As {@link #parse(String)}, for a text in ASCII. */
    @Nullable
    TemporalAccessor parse(byte[] text, int from, int to) {
        return to - from == template.length ? parseStart(text, from) : null;
    }

    /** {@return the bytes of a text, or null if it is not in ASCII} */
    private static byte @Nullable [] ascii(String text) {
        byte[] bytes = new byte[text.length()];
        for (int i = 0; i < bytes.length; i++) {
            char c = text.charAt(i);
            if (c > 0x7F) {
                return null;
            }
            bytes[i] = (byte) c;
        }
        return bytes;
    }

    private @Nullable TemporalAccessor parseStart(byte[] text, int from) {
        if (!isAt(text, from)) {
            return null;
        }
        try {
            LocalDate date = starts[0] < 0
                    ? null
                    : LocalDate.of(
                            two(text, from + starts[0]) * 100 + two(text, from + starts[0] + 2),
                            two(text, from + starts[1]),
                            two(text, from + starts[2]));
            if (starts[3] < 0) {
                return date;
            }
            LocalTime time = LocalTime.of(
                    two(text, from + starts[3]),
                    two(text, from + starts[4]),
                    starts[5] < 0 ? 0 : two(text, from + starts[5]));
            return date == null ? time : LocalDateTime.of(date, time);
        } catch (DateTimeException e) {
            // no such day or time: the general way tells so in its own words
            return null;
        }
    }

    /** Whether there are digits and marks where the pattern has them. */
    private boolean isAt(byte[] text, int from) {
        int last = template.length - Long.BYTES;
        if (last < 0) {
            return areOneByOne(text, from);
        }
        for (int i = 0; i < last; i += Long.BYTES) {
            if (!areEight(text, from + i, i)) {
                return false;
            }
        }
        return areEight(text, from + last, last);
    }

    private boolean areOneByOne(byte[] text, int from) {
        for (int i = 0; i < template.length; i++) {
            byte c = text[from + i];
            if (template[i] == '\0' ? c < '0' || c > '9' : c != template[i]) {
                return false;
            }
        }
        return true;
    }

    /**
     * As {@link #isAt}, for eight bytes: digits have the same upper half, also when six is added.
     */
    private boolean areEight(byte[] text, int place, int at) {
        long eight = EightBytes.at(text, place);
        long expected = EightBytes.at(marksAndZeros, at);
        long raised = eight + EightBytes.at(harmless, at);
        return ((eight ^ expected | raised ^ expected) & EightBytes.at(shared, at)) == 0;
    }

    /**
     * Prints a text that follows the pattern as ISO 8601 has it, as the value that is read from it
     * would be.
     *
     * @param kind of that value
     * @return where the printed text ends, or -1 if the text does not follow the pattern, or not
     *     all of the value is in it
     */
    int printIso(Kind kind, byte[] text, int from, int to, byte[] into, int at) {
        boolean date = kind != Kind.TIME;
        boolean time = kind != Kind.DATE;
        boolean complete = date == starts[0] >= 0 && time == starts[3] >= 0;
        if (!complete || to - from != template.length || !isAt(text, from)) {
            return -1;
        }
        int end = at;
        if (date) {
            if (text[from + starts[0]] == '0' || !isDay(text, from)) {
                return -1;
            }
            copyTwo(text, from + starts[0], into, end);
            copyTwo(text, from + starts[0] + 2, into, end + 2);
            into[end + 4] = '-';
            copyTwo(text, from + starts[1], into, end + 5);
            into[end + 7] = '-';
            copyTwo(text, from + starts[2], into, end + 8);
            end += 10;
        }
        if (date && time) {
            into[end++] = 'T';
        }
        if (time) {
            if (two(text, from + starts[3]) > 23
                    || two(text, from + starts[4]) > 59
                    || starts[5] >= 0 && two(text, from + starts[5]) > 59) {
                return -1;
            }
            copyTwo(text, from + starts[3], into, end);
            into[end + 2] = ':';
            copyTwo(text, from + starts[4], into, end + 3);
            into[end + 5] = ':';
            into[end + 6] = '0';
            into[end + 7] = '0';
            if (starts[5] >= 0) {
                copyTwo(text, from + starts[5], into, end + 6);
            }
            end += 8;
        }
        return end;
    }

    /** Whether there is such a day; one that comes late in a month may be taken for none. */
    private boolean isDay(byte[] text, int from) {
        int month = two(text, from + starts[1]);
        int day = two(text, from + starts[2]);
        if (month < 1 || month > 12 || day < 1) {
            return false;
        }
        return day <= 28
                || month != 2 && (day <= 30 || day == 31 && Month.of(month).maxLength() == 31);
    }

    private static void copyTwo(byte[] text, int from, byte[] into, int at) {
        into[at] = text[from];
        into[at + 1] = text[from + 1];
    }

    private static int two(byte[] text, int at) {
        return (text[at] - '0') * 10 + text[at + 1] - '0';
    }

    /**
     * {@return a datetime as ISO 8601 writes it with seconds, with or without offset; null if it is
     * written otherwise}
     */
    static @Nullable TemporalAccessor isoDateTime(String written) {
        byte[] text = written.length() <= LONGEST_ISO ? ascii(written) : null;
        if (text == null || text.length < SECONDS_END) {
            return null;
        }
        int length = text.length;
        boolean utc = length == SECONDS_END + 1 && text[SECONDS_END] == 'Z';
        if (length > SECONDS_END && !utc && !(length == LONGEST_ISO && isOffset(text))) {
            return null;
        }
        TemporalAccessor local = ISO_SECONDS.parseStart(text, 0);
        if (local == null || length == SECONDS_END) {
            return local;
        }
        return OffsetDateTime.of((LocalDateTime) local, utc ? ZoneOffset.UTC : offset(text));
    }

    private static boolean isOffset(byte[] text) {
        byte sign = text[SECONDS_END];
        boolean digits = text[22] == ':';
        for (int i : new int[] {20, 21, 23, 24}) {
            digits &= text[i] >= '0' && text[i] <= '9';
        }
        return digits && (sign == '+' || sign == '-') && two(text, 20) < 18 && two(text, 23) < 60;
    }

    private static ZoneOffset offset(byte[] text) {
        int sign = text[SECONDS_END] == '-' ? -1 : 1;
        return ZoneOffset.ofHoursMinutes(sign * two(text, 20), sign * two(text, 23));
    }

    /** {@return the text of a date, time or datetime, or null if the general way must print it} */
    @Nullable
    String print(TemporalAccessor value) {
        LocalDateTime local = value instanceof LocalDateTime datetime
                ? datetime
                : value instanceof OffsetDateTime offset ? offset.toLocalDateTime() : null;
        LocalDate date = local == null ? value instanceof LocalDate d ? d : null : local.toLocalDate();
        LocalTime time = local == null ? value instanceof LocalTime t ? t : null : local.toLocalTime();
        boolean lacks = starts[0] >= 0 && (date == null || date.getYear() < 0 || date.getYear() > MOST_YEAR)
                || starts[3] >= 0 && time == null;
        if (lacks) {
            return null;
        }
        char[] text = template.clone();
        if (starts[0] >= 0 && date != null) {
            put(text, starts[0], date.getYear() / 100);
            put(text, starts[0] + 2, date.getYear() % 100);
            put(text, starts[1], date.getMonthValue());
            put(text, starts[2], date.getDayOfMonth());
        }
        if (starts[3] >= 0 && time != null) {
            put(text, starts[3], time.getHour());
            put(text, starts[4], time.getMinute());
            if (starts[5] >= 0) {
                put(text, starts[5], time.getSecond());
            }
        }
        return new String(text);
    }

    private static void put(char[] text, int at, int value) {
        text[at] = (char) ('0' + value / 10);
        text[at + 1] = (char) ('0' + value % 10);
    }
}
