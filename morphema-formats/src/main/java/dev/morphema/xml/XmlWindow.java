package dev.morphema.xml;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.formats.PlainRun;
import dev.morphema.formats.ReadBuffer;
import dev.morphema.value.Utf8;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;

/**
 * The bytes of a document, in UTF-8, as far as they have been read and are still needed. Not
 * thread-safe.
 */
abstract class XmlWindow {
    /**
     * Bytes after those that were read, so that any of them can be the first of eight or sixteen.
     */
    private static final int SPARE = 2 * Long.BYTES;
    /** A tag, a comment or a marked section that is longer is left to the library. */
    private static final int LONGEST = 1 << 20;

    /** What ends text that stands as it is. */
    static final PlainRun PLAIN = new PlainRun("<>&");

    private static final PlainRun IN_QUOTES = new PlainRun("\"<&");
    private static final PlainRun IN_APOSTROPHES = new PlainRun("'<&");

    private final InputStream in;
    private final int longest;
    byte[] buffer;
    /** Where we are, and where the bytes end that have been read. */
    int at;

    int limit;
    boolean ended;
    /** How many bytes were before those in the buffer. */
    long dropped;

    int line = 1;

    /** @param bufferSize how many bytes to read at a time, at first */
    XmlWindow(InputStream in, int bufferSize, Limits limits) {
        this.in = in;
        this.longest = Math.min(LONGEST, limits.mostInt(Limit.TEXT));
        this.buffer = new byte[bufferSize + SPARE];
    }

    /** Reads more, the bytes from the place at hand on kept; says whether there are more. */
    final boolean more() throws IOException {
        int kept = limit - at;
        if (ended || kept > longest) {
            return false;
        }
        int size = buffer.length - SPARE;
        if (kept == size) {
            size = kept * 2;
            buffer = Arrays.copyOfRange(buffer, at, at + size + SPARE);
        } else {
            System.arraycopy(buffer, at, buffer, 0, kept);
        }
        dropped += at;
        at = 0;
        limit = kept;
        int read = in.read(buffer, limit, size - limit);
        ended = read < 0;
        limit += Math.max(read, 0);
        return !ended;
    }

    /** Reads on if there is little left. */
    final void topUp() throws IOException {
        if (ReadBuffer.isLow(buffer, limit - at, in)) {
            more();
        }
    }

    final void needMore() throws IOException {
        if (!more()) {
            throw new XmlByteTokens.Unusual();
        }
    }

    /** {@return whether some bytes stand at the place at hand} */
    final boolean stands(byte[] mark) throws IOException {
        while (limit - at < mark.length) {
            needMore();
        }
        return Arrays.equals(buffer, at, at + mark.length, mark, 0, mark.length);
    }

    /** {@return where a mark stands first, as many bytes behind the place at hand or further} */
    final int find(String mark, int behind) throws IOException {
        int i = at + behind;
        while (true) {
            for (; i + mark.length() <= limit; i++) {
                int same = 0;
                while (same < mark.length() && buffer[i + same] == mark.charAt(same)) {
                    same++;
                }
                if (same == mark.length()) {
                    return i;
                }
            }
            i -= at;
            needMore();
            i += at;
        }
    }

    /** Goes past a return and a line feed that belongs to it: together they are one line end. */
    final void pastReturn() throws IOException {
        if (at + 1 == limit) {
            more();
        }
        at += at + 1 < limit && buffer[at + 1] == '\n' ? 2 : 1;
        line++;
    }

    /**
     * {@return where text ends that stands as it is, counting its lines}: before a mark, or before
     * the limit
     */
    final int textEnd(int from) {
        int i = from;
        while (i < limit) {
            i = PLAIN.end(buffer, i, limit);
            if (i == limit) {
                break;
            }
            byte b = buffer[i];
            if (b == '<' || b == '&' || b == '\r') {
                return i;
            }
            if (b == '\n' || b == '\t') {
                line += b == '\n' ? 1 : 0;
                i++;
            } else if (b == '>') {
                require(i < 2 || i - from < 2 || buffer[i - 1] != ']' || buffer[i - 2] != ']');
                i++;
            } else {
                require(b < 0);
                int length = Utf8.length(buffer, i, limit);
                if (length == 0) {
                    require(XmlReferences.mayGoOn(i, limit) && !ended);
                    return i;
                }
                i += length;
            }
        }
        // Brackets may be the start of what must not stand in a text.
        int end = i;
        while (end > from && buffer[end - 1] == ']') {
            end--;
        }
        return ended ? i : end;
    }

    /** {@return where a text ends that is all of an element and stands as it is, or the limit} */
    final int leafEnd(int from) {
        return PLAIN.endOfText(buffer, from, limit);
    }

    /** {@return what finds the end of the value of an attribute, which begins with a quote} */
    static PlainRun inQuotes(byte quote) {
        return quote == '"' ? IN_QUOTES : IN_APOSTROPHES;
    }

    /** Gives up unless something is common. */
    static void require(boolean common) {
        if (!common) {
            throw new XmlByteTokens.Unusual();
        }
    }

    static boolean isWhite(byte b) {
        return b == ' ' || b == '\n' || b == '\t';
    }
}
