package dev.morphema.json;

import dev.morphema.formats.PlainRun;
import dev.morphema.value.NumberScan;
import java.io.IOException;
import java.io.InputStream;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadConstraints;

/** Finds the ends of texts, words and numbers in the bytes of JSON. Not thread-safe. */
abstract class JsonLexemes extends JsonWindow {
    private static final int LONGEST_NUMBER = StreamReadConstraints.DEFAULT_MAX_NUM_LEN;

    private static final byte QUOTE = 4;
    private static final byte BACKSLASH = 5;
    private static final byte CONTROL = 6;

    private static final PlainRun PLAIN = new PlainRun("\"\\");

    /**
     * What bytes are within a text: plain, other ASCII, no ASCII, or something that does not stand
     * for itself.
     */
    private static final byte[] KINDS = new byte[256];

    static {
        for (int i = 0; i < KINDS.length; i++) {
            KINDS[i] = i < ' ' ? CONTROL : JsonText.kind(i);
        }
        KINDS['"'] = QUOTE;
        KINDS['\\'] = BACKSLASH;
    }

    /** What bytes there are in the text at hand. */
    int kinds;
    /** The number at hand, if it has few digits. */
    final NumberScan number = new NumberScan();

    boolean scanned;

    JsonLexemes(InputStream in, int bufferSize, int longest) {
        super(in, bufferSize, longest);
    }

    /** Finds the end of the text at whose first quote we are. */
    final void string() throws IOException {
        start();
        from = ++at;
        int seen = 0;
        while (true) {
            byte[] bytes = buffer;
            int end = limit;
            int i = plainUntil(at);
            seen |= i > at ? JsonText.ASCII : 0;
            int kind = 0;
            while (i < end && (kind = KINDS[bytes[i] & 0xFF]) < QUOTE) {
                seen |= kind;
                i++;
            }
            at = i;
            if (i == end) {
                if (!more(from)) {
                    throw new BadJson();
                }
            } else if (kind == QUOTE) {
                to = at++;
                kinds = seen;
                return;
            } else if (kind == CONTROL || at + 1 == limit && !more(from)) {
                throw new BadJson();
            } else {
                seen |= JsonText.ESCAPED;
                at += 2;
            }
        }
    }

    /**
     * {@return a place before which, from another on, there is nothing but ASCII that stands for
     * itself}; at most the limit
     */
    final int plainUntil(int from) {
        return PLAIN.end(buffer, from, limit);
    }

    /** Takes a word that means a value. */
    final JsonToken word(String word, JsonToken meant) throws IOException {
        start();
        while (limit - at < word.length()) {
            if (!more(at)) {
                throw new BadJson();
            }
        }
        for (int i = 0; i < word.length(); i++) {
            if (buffer[at++] != word.charAt(i)) {
                throw new BadJson();
            }
        }
        if ((at < limit || more(at)) && (buffer[at] < 0 || Character.isJavaIdentifierPart(buffer[at]))) {
            throw new BadJson();
        }
        return meant;
    }

    /**
     * Takes a number.
     *
     * @param within whether it stands in an object or a list
     */
    final JsonToken digits(boolean within) throws IOException {
        start();
        from = at;
        scanned = number.read(buffer, at, limit);
        if (scanned) {
            at = number.end();
        }
        while ((at < limit || more(from)) && isInNumber(buffer[at])) {
            at++;
            scanned = false;
        }
        to = at;
        if (!scanned && (to - from > LONGEST_NUMBER || !isNumber())) {
            throw new BadJson();
        }
        requireEnd(within);
        return JsonToken.VALUE_NUMBER_FLOAT;
    }

    private static boolean isInNumber(byte b) {
        return b >= '0' && b <= '9' || b == '-' || b == '.' || b == '+' || b == 'e' || b == 'E';
    }

    /** After a number there is white space, the end or, within something, a mark. */
    private void requireEnd(boolean within) throws IOException {
        if (at < limit || more(from)) {
            byte b = buffer[at];
            boolean mark = within && (b == ',' || b == ']' || b == '}');
            if (!mark && b != ' ' && b != '\n' && b != '\r' && b != '\t') {
                throw new BadJson();
            }
        }
    }

    private boolean isNumber() {
        int i = from < to && buffer[from] == '-' ? from + 1 : from;
        int whole = digitsFrom(i);
        if (whole == i || buffer[i] == '0' && whole > i + 1) {
            return false;
        }
        i = whole;
        if (i < to && buffer[i] == '.') {
            int fraction = digitsFrom(i + 1);
            if (fraction == i + 1) {
                return false;
            }
            i = fraction;
        }
        if (i < to && (buffer[i] == 'e' || buffer[i] == 'E')) {
            boolean signed = i + 1 < to && (buffer[i + 1] == '-' || buffer[i + 1] == '+');
            int first = signed ? i + 2 : i + 1;
            int exponent = digitsFrom(first);
            return exponent > first && exponent == to;
        }
        return i == to;
    }

    private int digitsFrom(int place) {
        int i = place;
        while (i < to && buffer[i] >= '0' && buffer[i] <= '9') {
            i++;
        }
        return i;
    }
}
