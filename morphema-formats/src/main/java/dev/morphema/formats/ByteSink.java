package dev.morphema.formats;

import dev.morphema.value.Converter;
import dev.morphema.value.EightBytes;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.Kind;
import dev.morphema.value.Layout;
import dev.morphema.value.Marks;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Objects;

/**
 * A buffer in front of a stream, into which text is written as UTF-8 without a copy on the way.
 * What may not stand as it is goes through the escape of the format. Not thread-safe; a failure to
 * write is an {@link UncheckedIOException}.
 */
public final class ByteSink {
    /** Room for a short message; what is longer than that goes on in a larger buffer. */
    private static final int FIRST_SIZE = 1 << 11;

    /** How much larger the next buffer is each time. */
    private static final int GROWTH = 2;

    private static final int SIZE = 1 << 16;
    private static final int SPARE = 2 * Long.BYTES;
    /**
     * So many characters of a text are escaped at a time; there is always room for them in an empty
     * buffer.
     */
    private static final int CHARACTERS = 1 << 8;

    /** No character takes more bytes, escaped or not. */
    private static final int MOST_FOR_ONE = 6;

    private static final char REPLACEMENT = '\uFFFD';

    private final OutputStream out;
    private final char[] chars = new char[CHARACTERS];
    private byte[] buffer = new byte[FIRST_SIZE];
    private int at;
    /**
     * Where the last mark is in the buffer, or -1 if there is none: what follows it stays there.
     */
    private int marked = -1;

    /** @param out takes the bytes; whoever opened it closes it */
    public ByteSink(OutputStream out) {
        this.out = out;
    }

    /** Says how the ASCII characters of a text are written. Immutable. */
    public static final class Escape {
        private final byte[][] written;

        /**
         * @param written for each ASCII character what stands for it, at most 6 bytes; null if it
         * stands for itself
         */
        public Escape(byte[][] written) {
            this.written = written.clone();
        }
    }

    /** Bytes that are written often. Immutable. */
    public static final class Constant {
        /** With spare bytes, so that sixteen can be copied from any place. */
        private final byte[] bytes;

        private final int length;

        /** @param text what the bytes stand for, in UTF-8 */
        public Constant(String text) {
            byte[] exact = bytes(text);
            length = exact.length;
            bytes = Arrays.copyOf(exact, length + SPARE);
        }

        /** {@return how many bytes there are} */
        public int length() {
            return length;
        }

        /**
         * Copies all bytes from one on, to where there is room for fifteen more; gives where the
         * copy ends.
         */
        private int copy(int from, byte[] into, int at) {
            EightBytes.copy(bytes, from, into, at, length - from);
            return at + length - from;
        }
    }

    /** {@return the bytes of a constant} */
    public static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** Writes a constant. */
    public void write(Constant constant) {
        write(constant, 0, constant.length);
    }

    /** Writes a part of a constant, from one place to before another. */
    public void write(Constant constant, int from, int to) {
        byte[] bytes = constant.bytes;
        makeRoom(bytes.length);
        if (bytes.length > buffer.length) {
            write(bytes, from, to);
            return;
        }
        EightBytes.copy(bytes, from, buffer, at, to - from);
        at += to - from;
    }

    /** Writes a byte. */
    public void write(int b) {
        makeRoom(1);
        buffer[at++] = (byte) b;
    }

    /** Writes bytes. */
    public void write(byte[] bytes) {
        write(bytes, 0, bytes.length);
    }

    /** Writes some of the bytes, from one place to before another. */
    public void write(byte[] bytes, int from, int to) {
        int length = to - from;
        makeRoom(length);
        if (length > buffer.length) {
            writeThrough(bytes, from, length);
            return;
        }
        System.arraycopy(bytes, from, buffer, at, length);
        at += length;
    }

    /** Writes the text of a value, escaped where that can be needed. */
    public void write(Value value, Escape escape) {
        if (!writePlain(value)) {
            write(value.toString(), escape);
        }
    }

    /**
     * Writes the text of a value that is surely {@linkplain Value#printed plain}; says whether it
     * was.
     */
    public boolean writePlain(Value value) {
        int most = value.mostBytes();
        makeRoom(most);
        int end = most == 0 || most > buffer.length ? -1 : value.printed(buffer, at);
        if (end < 0) {
            return false;
        }
        at = end;
        return true;
    }

    /** Writes the text of a value between two marks, escaped where that can be needed. */
    public void write(int mark, Value value, Escape escape) {
        int most = value.mostBytes() + 2;
        makeRoom(most);
        int end = most == 2 || most > buffer.length ? -1 : value.printed(buffer, at + 1);
        if (end < 0) {
            write(mark);
            write(value.toString(), escape);
            write(mark);
            return;
        }
        buffer[at] = (byte) mark;
        buffer[end] = (byte) mark;
        at = end + 1;
    }

    /**
     * Writes fields that a record has as bytes, one after the other with what stands around each.
     *
     * @param affixes for each field
     * @param slots of the fields, -1 where there is none
     * @param from the first that is to be written
     * @param left out of what stands before the first
     * @return the first that was not written, since it is not there, or not in common form
     */
    public int write(Affix[] affixes, RecordValue record, int[] slots, int from, int left) {
        FieldBytes bytes = record.fieldBytes();
        Layout layout = record.layout();
        byte[] into = buffer;
        int to = at;
        int i = from;
        // All in one method: the fields of a record are few, and to call another for each takes as
        // long as to write it.
        while (bytes != null && i < affixes.length && slots[i] >= 0 && bytes.has(slots[i])) {
            int slot = slots[i];
            Converter type = layout.converter(slot);
            boolean number = type == null ? bytes.isNumber(slot) : type.prints() == Kind.NUMBER;
            Constant before = number ? affixes[i].beforeNumber() : affixes[i].beforeText();
            Constant after = number ? affixes[i].afterNumber() : affixes[i].afterText();
            int most = before.bytes.length + bytes.mostBytes(slot) + after.bytes.length;
            if (most > into.length - to) {
                at = to;
                makeRoom(most);
                into = buffer;
                to = at;
            }
            if (most > into.length - to) {
                break;
            }
            int start = before.copy(i > from ? 0 : left, into, to);
            int end = bytes.print(slot, type, affixes[i].marks(), into, start);
            // Where others stand for some marks there may be no room behind them any more.
            if (end < 0 || end + after.bytes.length > into.length) {
                break;
            }
            to = after.copy(0, into, end);
            i++;
        }
        at = to;
        return i;
    }

    /**
     * Writes a field that a record has as bytes, with nothing around it; says whether it was in
     * common form.
     */
    public boolean write(RecordValue record, int slot, Marks marks) {
        FieldBytes bytes = Objects.requireNonNull(record.fieldBytes());
        int most = bytes.mostBytes(slot);
        makeRoom(most);
        int end = most > buffer.length ? -1 : bytes.print(slot, record.layout().converter(slot), marks, buffer, at);
        at = Math.max(at, end);
        return end >= 0;
    }

    /**
     * Writes a text that a record has as bytes between two marks; says whether it could be written
     * like that.
     */
    public boolean write(int mark, RecordValue record, int slot, Marks marks) {
        FieldBytes bytes = Objects.requireNonNull(record.fieldBytes());
        int most = bytes.mostBytes(slot) + 2;
        makeRoom(most);
        int end = most > buffer.length ? -1 : bytes.print(slot, null, marks, buffer, at + 1);
        // Where others stand for some marks there may be no room behind them any more.
        if (end < 0 || end == buffer.length) {
            return false;
        }
        buffer[at] = (byte) mark;
        buffer[end] = (byte) mark;
        at = end + 1;
        return true;
    }

    /** As {@link #writePlain(Value)}, but writes no text in which a byte is found. */
    public boolean writePlainWithout(int b, Value value) {
        makeRoom(value.mostBytes());
        int start = at;
        if (!writePlain(value)) {
            return false;
        }
        for (int i = start; i < at; i++) {
            if (buffer[i] == b) {
                at = start;
                return false;
            }
        }
        return true;
    }

    /** Writes a text, escaped; half of a surrogate pair is written as the replacement character. */
    public void write(String text, Escape escape) {
        int length = text.length();
        for (int from = 0; from < length; ) {
            int to = Math.min(length, from + chars.length);
            if (to < length && Character.isHighSurrogate(text.charAt(to - 1))) {
                to--;
            }
            text.getChars(from, to, chars, 0);
            write(to - from, escape.written);
            from = to;
        }
    }

    private void write(int count, byte[][] written) {
        makeRoom(count * MOST_FOR_ONE);
        byte[] into = buffer;
        int to = at;
        for (int i = 0; i < count; i++) {
            char c = chars[i];
            if (c < 0x80) {
                byte[] other = written[c];
                if (other == null) {
                    into[to++] = (byte) c;
                } else {
                    System.arraycopy(other, 0, into, to, other.length);
                    to += other.length;
                }
            } else if (c < 0x800) {
                into[to++] = (byte) (0xC0 | c >> 6);
                into[to++] = (byte) (0x80 | c & 0x3F);
            } else if (Character.isHighSurrogate(c) && i + 1 < count && Character.isLowSurrogate(chars[i + 1])) {
                int code = Character.toCodePoint(c, chars[++i]);
                into[to++] = (byte) (0xF0 | code >> 18);
                into[to++] = (byte) (0x80 | code >> 12 & 0x3F);
                into[to++] = (byte) (0x80 | code >> 6 & 0x3F);
                into[to++] = (byte) (0x80 | code & 0x3F);
            } else {
                char whole = Character.isSurrogate(c) ? REPLACEMENT : c;
                into[to++] = (byte) (0xE0 | whole >> 12);
                into[to++] = (byte) (0x80 | whole >> 6 & 0x3F);
                into[to++] = (byte) (0x80 | whole & 0x3F);
            }
        }
        at = to;
    }

    /** Makes room for so many bytes if the buffer can hold them at all. */
    private void makeRoom(int most) {
        if (most > buffer.length - at) {
            if (marked < 0) {
                drain();
            } else {
                keepMarked(most);
            }
        }
    }

    /** Hands on what is before the mark, and makes room behind what is not. */
    private void keepMarked(int most) {
        writeThrough(buffer, 0, marked);
        int kept = at - marked;
        byte[] next = most > buffer.length - kept ? new byte[Math.max(SIZE, GROWTH * (kept + most))] : buffer;
        System.arraycopy(buffer, marked, next, 0, kept);
        buffer = next;
        at = kept;
        marked = 0;
    }

    /** Remembers this place, to which {@link #rewind} goes back. */
    public void mark() {
        marked = at;
    }

    /** Goes back to the mark. */
    public void rewind() {
        at = marked;
    }

    private void drain() {
        try {
            out.write(buffer, 0, at);
            at = 0;
            if (buffer.length < SIZE) {
                buffer = new byte[Math.min(SIZE, buffer.length * GROWTH)];
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void writeThrough(byte[] bytes, int from, int length) {
        try {
            out.write(bytes, from, length);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Hands all bytes to the stream.
     *
     * @throws IOException if that fails
     */
    public void flush() throws IOException {
        out.write(buffer, 0, at);
        at = 0;
        marked = -1;
        out.flush();
    }
}
