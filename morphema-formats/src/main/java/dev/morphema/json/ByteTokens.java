package dev.morphema.json;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.formats.FieldOrder;
import dev.morphema.formats.KnownGap;
import dev.morphema.value.FieldBytes;
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

/**
 * Finds the tokens of JSON in the bytes of UTF-8. It takes what the library takes, and refuses what
 * the library refuses, but does not say why; it is for inputs that can be read again, by the
 * library, which does. It takes half of the time, since texts and numbers become values without
 * characters between.
 */
final class ByteTokens extends JsonLexemes implements JsonTokens {
    private static final int FIRST_DEPTH = 16;

    // What is beyond is refused, as the library does.
    private final int mostDeep;
    private final int longestName;
    private final JsonNames names = new JsonNames();

    // Where we are: what is open, and what may come next.
    private boolean[] objects = new boolean[FIRST_DEPTH];
    private int depth;
    private boolean needsComma;
    private boolean named;

    // The token at hand.
    private @Nullable JsonToken token;
    private String name = "";
    // Where the gap to the name at hand begins: behind the value before it, or at the beginning of
    // its object.
    private long gapFrom;
    private int gapLine;
    private boolean gapAfterValue;

    /** @param bufferSize how many bytes to read at a time, at first */
    ByteTokens(InputStream in, int bufferSize, Limits limits) {
        super(in, bufferSize, limits.mostInt(Limit.TEXT));
        this.mostDeep = limits.mostInt(Limit.DEPTH);
        this.longestName = limits.mostInt(Limit.NAME);
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
                return digits(depth > 0);
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
        topUp();
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
}
