package dev.morphema.xml;

import java.io.FilterReader;
import java.io.IOException;
import java.io.Reader;

/**
 * Gives the characters of a document to a parser: line ends as line feeds (XML 1.0, section 2.11),
 * and never U+FFFE and U+FFFF, which are no characters (section 2.2) but which the parser takes.
 * Not thread-safe.
 */
final class XmlCharacterReader extends FilterReader {
    /** Declarations of entities are looked up as slowly as names. */
    static final int MOST_OF_PROLOG = 1 << 18;

    private boolean afterReturn;
    private boolean forbidden;
    private long count;
    private boolean inProlog = true;
    private int line = 1;
    private int column = 1;

    /** There is too much before the root element. */
    static final class LongPrologException extends IOException {
        private static final long serialVersionUID = 1L;

        LongPrologException() {
            super("Long prolog");
        }
    }

    /** There is a character that a document cannot have. */
    static final class ForbiddenCharacterException extends IOException {
        private static final long serialVersionUID = 1L;

        private final int line;
        private final int column;

        ForbiddenCharacterException(int line, int column) {
            super("Illegal character");
            this.line = line;
            this.column = column;
        }

        int line() {
            return line;
        }

        int column() {
            return column;
        }
    }

    XmlCharacterReader(Reader in) {
        super(in);
    }

    /** The root element begins: from now on there may be more. */
    void endProlog() {
        inProlog = false;
    }

    /** {@return how many characters were read} */
    long count() {
        return count;
    }

    @Override
    public int read(char[] into, int offset, int length) throws IOException {
        if (length == 0) {
            return 0;
        }
        int to = offset;
        while (to == offset) {
            if (forbidden) {
                throw new ForbiddenCharacterException(line, column);
            }
            int count = super.read(into, offset, length);
            if (count < 0) {
                return -1;
            }
            this.count += count;
            if (inProlog && this.count - count > MOST_OF_PROLOG) {
                throw new LongPrologException();
            }
            to = normalize(into, offset, offset + count);
        }
        return to - offset;
    }

    /** Normalizes line ends, up to a forbidden character; gives where the rest ends. */
    private int normalize(char[] chars, int from, int end) {
        int to = from;
        for (int i = from; i < end; i++) {
            char c = chars[i];
            if (c >= 0xFFFE) {
                forbidden = true;
                return to;
            }
            if (c != '\n' || !afterReturn) {
                chars[to++] = c == '\r' ? '\n' : c;
                boolean ends = c == '\r' || c == '\n';
                line += ends ? 1 : 0;
                column = ends ? 1 : column + 1;
            }
            afterReturn = c == '\r';
        }
        return to;
    }

    @Override
    public int read() throws IOException {
        char[] one = new char[1];
        return read(one, 0, 1) < 0 ? -1 : one[0];
    }
}
