package dev.morphema.json;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.formats.FieldOrder;
import dev.morphema.formats.KnownGap;
import dev.morphema.formats.PlainRun;
import dev.morphema.formats.ReadBuffer;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.NumberScan;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Utf8;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadConstraints;

/**
 * Finds the tokens of JSON in the bytes of UTF-8. It takes what the library takes, and refuses what
 * the library refuses, but does not say why; it is for inputs that can be read again, by the
 * library, which does. It takes half of the time, since texts and numbers become values without
 * characters between.
 */
final class ByteTokens implements JsonTokens {
    private static final int FIRST_DEPTH = 16;

    private static final int LONGEST_NUMBER = StreamReadConstraints.DEFAULT_MAX_NUM_LEN;

    /**
     * Bytes after those that were read, so that any of them can be the first of eight or sixteen.
     */
    private static final int SPARE = 2 * Long.BYTES;

    /** No array can have more, about. */
    private static final int LARGEST = Integer.MAX_VALUE - 2 * SPARE;

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

    private final InputStream in;
    // What is beyond is refused, as the library does.
    private final int mostDeep;
    private final int longestName;
    private final int longestText;
    private final JsonNames names = new JsonNames();

    private byte[] buffer;
    private int at;
    private int limit;
    private boolean ended;

    // Where we are: what is open, and what may come next.
    private boolean[] objects = new boolean[FIRST_DEPTH];
    private int depth;
    private boolean needsComma;
    private boolean named;

    // The token at hand.
    private @Nullable JsonToken token;
    private String name = "";
    private int from;
    private int to;
    private int kinds;
    /** The number at hand, if it has few digits. */
    private final NumberScan number = new NumberScan();

    private boolean scanned;

    // Where the gap to the name at hand begins: behind the value before it, or at the beginning of
    // its object.
    private long gapFrom;
    private int gapLine;
    private boolean gapAfterValue;

    private int line = 1;
    /** How many bytes were before those in the buffer, and before the line at hand. */
    private long dropped;

    private long lineStart;
    private boolean afterReturn;
    private int tokenLine = 1;
    private long tokenStart;

    /** Tells that a text is longer than allowed. */
    static final class TooLong extends RuntimeException {
        TooLong() {
            super(null, null, false, false);
        }
    }

    /** Tells that the input is no JSON. */
    static final class BadJson extends RuntimeException {
        BadJson() {
            super(null, null, false, false);
        }
    }

    /** @param bufferSize how many bytes to read at a time, at first */
    ByteTokens(InputStream in, int bufferSize, Limits limits) {
        this.in = in;
        this.mostDeep = limits.mostInt(Limit.DEPTH);
        this.longestName = limits.mostInt(Limit.NAME);
        this.longestText = limits.mostInt(Limit.TEXT);
        this.buffer = new byte[bufferSize + SPARE];
    }

    /**
     * Reads more, the bytes from a place on kept; that place is the first of the buffer then. Says
     * whether there are more.
     */
    private boolean more(int keptFrom) throws IOException {
        if (ended) {
            return false;
        }
        int kept = limit - keptFrom;
        if (kept > longestText) {
            throw new TooLong();
        }
        int size = buffer.length - SPARE;
        if (kept == size) {
            size = Math.min(kept, LARGEST / 2) * 2;
            buffer = Arrays.copyOf(buffer, size + SPARE);
        } else {
            System.arraycopy(buffer, keptFrom, buffer, 0, kept);
        }
        dropped += keptFrom;
        at -= keptFrom;
        from -= keptFrom;
        to -= keptFrom;
        limit = kept;
        int read = in.read(buffer, limit, size - limit);
        ended = read < 0;
        limit += Math.max(read, 0);
        return !ended;
    }

    /** Goes on to the next byte that is no white space; gives it, or -1 at the end. */
    private int skipWhite() throws IOException {
        while (true) {
            while (at < limit) {
                byte b = buffer[at];
                if (b > ' ') {
                    return b;
                }
                if (b == '\n' || b == '\r') {
                    line += b == '\r' || !afterReturn ? 1 : 0;
                    lineStart = dropped + at + 1;
                } else if (b != ' ' && b != '\t') {
                    throw new BadJson();
                }
                afterReturn = b == '\r';
                at++;
            }
            if (!more(at)) {
                return -1;
            }
        }
    }

    @Override
    public @Nullable JsonToken next() throws IOException {
        token = found();
        return token;
    }

    private @Nullable JsonToken found() throws IOException {
        if (named) {
            named = false;
            return value(skipWhite());
        }
        gapFrom = dropped + at;
        gapLine = line;
        gapAfterValue = needsComma;
        int b = skipWhite();
        if (depth == 0) {
            return b == -1 && at == limit ? null : value(b);
        }
        boolean inObject = objects[depth];
        if (b == (inObject ? '}' : ']')) {
            start();
            at++;
            depth--;
            needsComma = true;
            return inObject ? JsonToken.END_OBJECT : JsonToken.END_ARRAY;
        }
        if (needsComma) {
            if (b != ',') {
                throw new BadJson();
            }
            pass();
            b = skipWhite();
        }
        if (!inObject) {
            return value(b);
        }
        if (b != '"') {
            throw new BadJson();
        }
        fieldName();
        return JsonToken.PROPERTY_NAME;
    }

    /** Goes on behind a mark: a line feed that follows it ends a line of its own. */
    private void pass() {
        at++;
        afterReturn = false;
    }

    private void start() {
        tokenLine = line;
        tokenStart = dropped + at;
        afterReturn = false;
    }

    private void fieldName() throws IOException {
        string();
        if (to - from > longestName) {
            throw new BadJson();
        }
        name = (kinds & JsonText.ESCAPED) == 0 ? names.of(buffer, from, to, kinds) : escapedName();
        if (skipWhite() != ':') {
            throw new BadJson();
        }
        pass();
        named = true;
    }

    private String escapedName() {
        try {
            return JsonText.of(buffer, from, to, kinds);
        } catch (JsonText.HalfCharacter e) {
            // The library refuses such a name, too, and says where.
            throw new BadJson();
        }
    }

    private JsonToken value(int first) throws IOException {
        needsComma = true;
        switch (first) {
            case '"':
                string();
                return JsonToken.VALUE_STRING;
            case '{':
                return open(true);
            case '[':
                return open(false);
            case 't':
                return word("true", JsonToken.VALUE_TRUE);
            case 'f':
                return word("false", JsonToken.VALUE_FALSE);
            case 'n':
                return word("null", JsonToken.VALUE_NULL);
            default:
                return digits();
        }
    }

    private JsonToken open(boolean object) {
        start();
        at++;
        if (depth == mostDeep) {
            throw new BadJson();
        }
        if (++depth == objects.length) {
            objects = Arrays.copyOf(objects, depth * 2);
        }
        objects[depth] = object;
        needsComma = false;
        return object ? JsonToken.START_OBJECT : JsonToken.START_ARRAY;
    }

    /** Finds the end of the text at whose first quote we are. */
    private void string() throws IOException {
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
    private int plainUntil(int from) {
        return PLAIN.end(buffer, from, limit);
    }

    private JsonToken word(String word, JsonToken meant) throws IOException {
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

    private JsonToken digits() throws IOException {
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
        requireEnd();
        return JsonToken.VALUE_NUMBER_FLOAT;
    }

    private static boolean isInNumber(byte b) {
        return b >= '0' && b <= '9' || b == '-' || b == '.' || b == '+' || b == 'e' || b == 'E';
    }

    /** After a number there is white space, the end or, within something, a mark. */
    private void requireEnd() throws IOException {
        if (at < limit || more(from)) {
            byte b = buffer[at];
            boolean mark = depth > 0 && (b == ',' || b == ']' || b == '}');
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

    @Override
    public @Nullable JsonToken current() {
        return token;
    }

    @Override
    public @Nullable String nextName() throws IOException {
        return next() == JsonToken.PROPERTY_NAME ? name : null;
    }

    @Override
    public @Nullable Value nextScalar() throws IOException {
        JsonToken next = nextValue();
        if (next == JsonToken.VALUE_STRING) {
            return text();
        }
        return next == JsonToken.VALUE_NUMBER_FLOAT ? number() : null;
    }

    @Override
    public void beginRecord() throws IOException {
        if (ReadBuffer.isLow(buffer, limit - at, in)) {
            more(at);
        }
    }

    @Override
    public boolean nextBytes(FieldBytes.Row row, int slot) throws IOException {
        JsonToken next = nextValue();
        if (next == JsonToken.VALUE_STRING) {
            return kinds <= JsonText.ASCII && from < to && row.text(slot, buffer, from, to);
        }
        return next == JsonToken.VALUE_NUMBER_FLOAT
                && scanned
                && number.asPrinted()
                && row.number(slot, buffer, from, to);
    }

    @Override
    public FieldOrder.@Nullable Field fields(
            FieldOrder place, FieldBytes.Row row, @Nullable Value @Nullable [] values) {
        byte[] bytes = buffer;
        int p = at;
        boolean afterValue = needsComma;
        for (KnownGap gap = place.gap(); isNext(gap, bytes, p, afterValue); gap = place.gap()) {
            FieldOrder.Field field = gap.field();
            int first = p + gap.length();
            place.goOn();
            if (gap.lines() > 0) {
                line += gap.lines();
                lineStart = dropped + p + gap.lineStart();
            }
            p = scalar(field, row, values, first);
            if (p < 0) {
                isNamed(field.local(), first);
                return field;
            }
            afterValue = true;
        }
        if (p > at) {
            at = p;
            needsComma = true;
            afterReturn = false;
        }
        return null;
    }

    private boolean isNext(@Nullable KnownGap gap, byte[] bytes, int place, boolean afterValue) {
        return gap != null && place + gap.length() < limit && gap.afterValue() == afterValue && gap.isAt(bytes, place);
    }

    /** We are at a place behind the name of a field. */
    private void isNamed(String thisName, int place) {
        at = place;
        name = thisName;
        named = true;
        token = JsonToken.PROPERTY_NAME;
        start();
    }

    /**
     * Takes a value of common form.
     *
     * @return the place after it, or -1 if it is not taken
     */
    private int scalar(FieldOrder.Field field, FieldBytes.Row row, @Nullable Value @Nullable [] values, int first) {
        int slot = field.slot();
        if (slot >= 0 && (row.has(slot) || values != null && values[slot] != null)) {
            return -1;
        }
        return buffer[first] == '"'
                ? scalarText(field, row, values, first + 1)
                : scalarNumber(field, row, values, first);
    }

    private int scalarText(FieldOrder.Field field, FieldBytes.Row row, @Nullable Value @Nullable [] values, int first) {
        int slot = field.slot();
        int end = plainUntil(first);
        if (end >= limit || buffer[end] != '"') {
            return mixedText(field, row, values, first);
        }
        boolean taken = slot < 0;
        if (slot >= 0 && field.passes()) {
            taken = end > first && row.text(slot, buffer, first, end);
        } else if (slot >= 0 && values != null) {
            values[slot] = TextValue.of(buffer, first, end);
            taken = true;
        }
        return taken ? end + 1 : -1;
    }

    /**
     * Takes a text in which there are escapes or characters beyond ASCII; gives the place after
     * it, or -1.
     */
    private int mixedText(FieldOrder.Field field, FieldBytes.Row row, @Nullable Value @Nullable [] values, int first) {
        int slot = field.slot();
        int begin = row.beginText();
        int end = mixedTextInto(row, first);
        if (end >= 0 && slot >= 0 && field.passes()) {
            return row.end(slot, begin) ? end : -1;
        }
        if (end >= 0 && slot >= 0 && values != null) {
            values[slot] = row.text(begin);
        }
        row.drop(begin);
        return slot < 0 || values != null ? end : -1;
    }

    private int scalarNumber(
            FieldOrder.Field field, FieldBytes.Row row, @Nullable Value @Nullable [] values, int first) {
        int slot = field.slot();
        int end = number.read(buffer, first, limit) ? number.end() : limit;
        if (end == limit || buffer[end] != ',' && buffer[end] != '}' && buffer[end] > ' ') {
            return -1;
        }
        boolean taken = slot < 0;
        if (slot >= 0 && field.passes()) {
            taken = number.asPrinted() && row.number(slot, buffer, first, end);
        } else if (slot >= 0 && values != null) {
            values[slot] = number.value();
            taken = true;
        }
        return taken ? end : -1;
    }

    /**
     * Adds a text as pieces, without escapes; gives the place after it, or -1 if it is not of
     * common form.
     */
    private int mixedTextInto(FieldBytes.Row row, int start) {
        byte[] bytes = buffer;
        int i = start;
        while (true) {
            int plain = plainUntil(i);
            row.put(bytes, i, plain);
            i = plain;
            int length = 0;
            if (i < limit && bytes[i] == '"') {
                return i + 1;
            } else if (i < limit && bytes[i] < 0) {
                length = Utf8.length(bytes, i, limit);
                row.put(bytes, i, i + length);
            } else if (i + 1 < limit && bytes[i] == '\\') {
                int escaped = JsonText.escaped(bytes[i + 1]);
                length = escaped < 0 ? 0 : 2;
                row.put(escaped);
            }
            if (length == 0) {
                return -1;
            }
            i += length;
        }
    }

    @Override
    public void learn(FieldOrder place, FieldOrder.Field field) {
        if (gapFrom < dropped || !place.wantsWay() || (kinds & JsonText.ESCAPED) != 0) {
            return;
        }
        int begin = (int) (gapFrom - dropped);
        int end = at;
        while (end < limit && buffer[end] == ' ') {
            end++;
        }
        place.learn(
                new KnownGap(field, gapAfterValue, buffer, begin, end, line - gapLine, (int) (lineStart - gapFrom)));
    }

    /** As {@link #next}, but for the value of a field, which is mostly a text. */
    private @Nullable JsonToken nextValue() throws IOException {
        if (!named || at >= limit || buffer[at] != '"') {
            return next();
        }
        named = false;
        needsComma = true;
        string();
        token = JsonToken.VALUE_STRING;
        return token;
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public TextValue text() throws IOException {
        TextValue plain = kinds <= JsonText.ASCII ? TextValue.ifPlain(buffer, from, to) : null;
        return plain == null ? TextValue.of(JsonText.of(buffer, from, to, kinds)) : plain;
    }

    @Override
    public Value number() {
        return scanned
                ? number.value()
                : NumberValue.of(new BigDecimal(new String(buffer, from, to - from, StandardCharsets.ISO_8859_1)));
    }

    @Override
    public void skip() throws IOException {
        int around = depth - 1;
        if (token == JsonToken.START_OBJECT || token == JsonToken.START_ARRAY) {
            while (depth > around) {
                if (next() == null) {
                    throw new BadJson();
                }
                checkText();
            }
        } else {
            checkText();
        }
    }

    /** A text that nobody wants may hold no wrong bytes or escapes either. */
    private void checkText() throws IOException {
        if (token == JsonToken.VALUE_STRING && kinds >= JsonText.OTHER) {
            JsonText.check(buffer, from, to, kinds);
        }
    }

    @Override
    public int line() {
        return tokenLine;
    }

    @Override
    public int column() {
        return (int) Math.min(Integer.MAX_VALUE, tokenStart - lineStart + 1);
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
