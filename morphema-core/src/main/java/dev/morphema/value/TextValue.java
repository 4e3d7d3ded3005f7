package dev.morphema.value;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A text, possibly empty. Texts of inputs often only go through, from the bytes of one file to
 * those of another: one that its reader knows to be {@linkplain Value#printed plain} stays bytes
 * until somebody asks for its characters.
 */
public sealed class TextValue extends Value permits ElementText {
    /** The empty text. */
    public static final TextValue EMPTY = new TextValue("");

    private static final VarHandle EIGHT = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.BIG_ENDIAN);

    private static final long ONES = 0x0101010101010101L;
    private static final long HIGHEST_BITS = 0x80 * ONES;
    private static final long SPACES = ' ' * ONES;
    private static final long QUOTES = '"' * ONES;
    private static final long APOSTROPHES = '\'' * ONES;
    private static final long GREATER_THANS = '>' * ONES;
    private static final long BACKSLASHES = '\\' * ONES;
    private static final long DELETES = 0x7F * ONES;

    private static final boolean[] PLAIN = new boolean[256];

    static {
        for (int c = ' '; c < 0x7F; c++) {
            PLAIN[c] = "\"'&<>\\".indexOf(c) < 0;
        }
    }

    /**
     * Null until it is asked for, if there are the bytes. Threads may each make it: all make the
     * same.
     */
    private @Nullable String text;
    /**
     * The characters of a text that is known to be plain, and zeros up to a multiple of eight
     * bytes; else null.
     */
    private final byte @Nullable [] plain;

    private final int length;

    TextValue(String text) {
        this.text = Objects.requireNonNull(text);
        this.plain = null;
        this.length = text.length();
    }

    /** @param plain with zeros up to a multiple of eight; the text's own from now on */
    TextValue(byte[] plain, int length) {
        this.plain = plain;
        this.length = length;
    }

    /** {@return the value of a text} */
    public static TextValue of(String text) {
        return text.isEmpty() && EMPTY != null ? EMPTY : new TextValue(text);
    }

    /** {@return the text of some characters, known to be plain if all of them are} */
    public static TextValue of(char[] characters, int from, int length) {
        byte[] plain = plain(characters, from, length);
        return plain == null ? of(new String(characters, from, length)) : new TextValue(plain, length);
    }

    /** {@return the value of a text that is written again and again, known to be plain if it is} */
    public static TextValue often(String text) {
        return of(text.toCharArray(), 0, text.length());
    }

    /**
     * {@return the text of some bytes in UTF-8, perhaps none, known to be plain if all of them are}
     */
    public static TextValue of(byte[] utf8, int from, int to) {
        TextValue plain = ifPlain(utf8, from, to);
        return plain == null ? of(new String(utf8, from, to - from, StandardCharsets.UTF_8)) : plain;
    }

    /**
     * {@return the text of some bytes, all of which are {@linkplain #isPlain plain}, and at least
     * one}
     */
    public static TextValue ofPlain(byte[] ascii, int from, int to) {
        return new TextValue(copied(ascii, from, to), to - from);
    }

    /**
     * {@return the text of some bytes if all of them are {@linkplain #isPlain plain}, and there is
     * one; else null}
     */
    public static @Nullable TextValue ifPlain(byte[] bytes, int from, int to) {
        byte[] plain = plain(bytes, from, to);
        return plain == null ? null : new TextValue(plain, to - from);
    }

    /**
     * {@return bytes for {@link #TextValue(byte[], int)}, or null if there are none or one of them
     * is not plain}
     */
    static byte @Nullable [] plain(byte[] bytes, int from, int to) {
        int length = to - from;
        byte[] copy = room(length);
        if (length == 0 || from + copy.length > bytes.length) {
            return length > 0 && arePlain(bytes, from, to) ? copied(bytes, from, to) : null;
        }
        int last = copy.length - Long.BYTES;
        if (last > 0 && !copyPlain(bytes, from, copy, last)) {
            return null;
        }
        // What stands behind the text is taken for spaces.
        long behind = -1L >>> Byte.SIZE * (length - last - 1) >>> Byte.SIZE;
        long eight = (long) EIGHT.get(bytes, from + last) & ~behind;
        if (!arePlain(eight | behind & SPACES)) {
            return null;
        }
        EIGHT.set(copy, last, eight);
        return copy;
    }

    /**
     * {@return the texts of some values one after the other, known to be plain if all of them are};
     * what is nothing has none.
     */
    public static TextValue joined(Value... values) {
        int most = 0;
        boolean plain = true;
        for (Value value : values) {
            most += value.mostBytes();
            plain &= value.mostBytes() > 0 || hasNoText(value);
        }
        TextValue text = plain ? joinedPlain(values, new byte[most]) : null;
        return text == null ? of(joinedText(values)) : text;
    }

    private static boolean hasNoText(Value value) {
        return value.isMissing() || value instanceof TextValue text && text.length == 0;
    }

    private static @Nullable TextValue joinedPlain(Value[] values, byte[] room) {
        int end = 0;
        for (Value value : values) {
            if (!hasNoText(value)) {
                end = value.printed(room, end);
            }
            if (end < 0) {
                return null;
            }
        }
        return end == 0 ? EMPTY : ofPlain(room, 0, end);
    }

    private static String joinedText(Value[] values) {
        StringBuilder text = new StringBuilder();
        for (Value value : values) {
            if (!value.isMissing()) {
                text.append(value);
            }
        }
        return text.toString();
    }

    private static byte[] copied(byte[] bytes, int from, int to) {
        byte[] copy = room(to - from);
        System.arraycopy(bytes, from, copy, 0, to - from);
        return copy;
    }

    /** Copies a multiple of eight bytes if all of them are plain; says whether they are. */
    private static boolean copyPlain(byte[] bytes, int from, byte[] into, int count) {
        for (int i = 0; i < count; i += Long.BYTES) {
            long eight = (long) EIGHT.get(bytes, from + i);
            if (!arePlain(eight)) {
                return false;
            }
            EIGHT.set(into, i, eight);
        }
        return true;
    }

    private static boolean arePlain(byte[] bytes, int from, int to) {
        for (int i = from; i < to; i++) {
            if (!PLAIN[bytes[i] & 0xFF]) {
                return false;
            }
        }
        return true;
    }

    /**
     * Whether eight bytes are plain, by steps that look at all of them: a subtraction reaches the
     * highest bit of a byte where that is too small or zero, and of the bytes that are not plain
     * some differ in one bit only.
     */
    private static boolean arePlain(long eight) {
        long beyond = eight | eight - SPACES | zeros(eight ^ DELETES);
        long ampersandOrApostrophe = zeros((eight | ONES) ^ APOSTROPHES);
        long angle = zeros((eight | 2 * ONES) ^ GREATER_THANS);
        return ((beyond | ampersandOrApostrophe | angle | zeros(eight ^ QUOTES) | zeros(eight ^ BACKSLASHES))
                        & HIGHEST_BITS)
                == 0;
    }

    /**
     * Sets the highest bit of bytes that are zero; of bytes beyond ASCII, and of those before a
     * zero, it may be anything.
     */
    private static long zeros(long eight) {
        return eight - ONES & ~eight;
    }

    /** {@return whether a text with this character can be plain} */
    public static boolean isPlain(int character) {
        return character >= 0 && character < PLAIN.length && PLAIN[character];
    }

    /**
     * {@return bytes for {@link #TextValue(byte[], int)}, or null if there are none or one of the
     * characters is not plain}
     */
    static byte @Nullable [] plain(char[] characters, int from, int length) {
        if (length == 0) {
            return null;
        }
        byte[] plain = room(length);
        for (int i = 0; i < length; i++) {
            char c = characters[from + i];
            if (c >= PLAIN.length || !PLAIN[c]) {
                return null;
            }
            plain[i] = (byte) c;
        }
        return plain;
    }

    /** An array takes a multiple of eight bytes anyway, and so eight can be read at a time. */
    private static byte[] room(int length) {
        return new byte[length + Long.BYTES - 1 & -Long.BYTES];
    }

    /** {@return the text itself} */
    public final String text() {
        String known = text;
        if (known == null) {
            known = new String(Objects.requireNonNull(plain), 0, length, StandardCharsets.ISO_8859_1);
            text = known;
        }
        return known;
    }

    /** {@return how many characters there are} */
    public final int length() {
        return length;
    }

    /** {@return whether the text is known to be {@linkplain Value#printed plain}} */
    public final boolean isPlain() {
        return plain != null;
    }

    /**
     * {@return eight characters of a plain text as a number, the first the highest; zeros stand
     * after the last}
     *
     * @param from a multiple of eight, less than the length
     */
    public final long eightFrom(int from) {
        return (long) EIGHT.get(Objects.requireNonNull(plain), from);
    }

    /** {@return the characters from one to before another, counted from 0} */
    public final TextValue part(int from, int to) {
        if (from == to) {
            return EMPTY;
        }
        return plain == null ? of(text().substring(from, to)) : ofPlain(plain, from, to);
    }

    /** {@return the text in upper case, as it is without a language} */
    public final TextValue upper() {
        return plain == null ? of(text().toUpperCase(Locale.ROOT)) : new TextValue(LetterCase.upper(plain), length);
    }

    /** {@return the text in lower case, as it is without a language} */
    public final TextValue lower() {
        return plain == null ? of(text().toLowerCase(Locale.ROOT)) : new TextValue(LetterCase.lower(plain), length);
    }

    @Override
    public final Kind kind() {
        return Kind.TEXT;
    }

    @Override
    public final int mostBytes() {
        return plain == null ? 0 : plain.length;
    }

    @Override
    public final int printed(byte[] into, int from) {
        byte[] bytes = plain;
        if (bytes == null) {
            return -1;
        }
        // Most are short. A loop for these would take longer to begin than to go through.
        EIGHT.set(into, from, (long) EIGHT.get(bytes, 0));
        if (bytes.length == 2 * Long.BYTES) {
            EIGHT.set(into, from + Long.BYTES, (long) EIGHT.get(bytes, Long.BYTES));
        } else if (bytes.length > Long.BYTES) {
            System.arraycopy(bytes, Long.BYTES, into, from + Long.BYTES, bytes.length - Long.BYTES);
        }
        return from + length;
    }

    @Override
    public final boolean equals(@Nullable Object other) {
        if (this == other) {
            return true;
        }
        if (!(other instanceof TextValue t) || length != t.length) {
            return false;
        }
        if (plain == null || t.plain == null) {
            return text().equals(t.text());
        }
        for (int i = 0; i < length; i += Long.BYTES) {
            if (eightFrom(i) != t.eightFrom(i)) {
                return false;
            }
        }
        return true;
    }

    @Override
    public final int hashCode() {
        return Hashing.of(text());
    }

    @Override
    public final String toString() {
        return text();
    }
}
