package dev.morphema.xml;

import dev.morphema.format.Limits;
import dev.morphema.formats.FieldOrder;
import dev.morphema.formats.PlainRun;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Finds the parts of XML in the bytes of UTF-8. It knows what is common, takes that as the library
 * does, and gives up on all else, faults included; it is for inputs that can be read again, by the
 * library. It takes half of the time, since texts become values without characters between.
 */
final class XmlByteTokens extends XmlPieces implements XmlTokens {
    private static final Pattern DECLARATION = Pattern.compile("<\\?xml\\s+version\\s*=\\s*(\"1\\.0\"|'1\\.0')"
            + "(\\s+encoding\\s*=\\s*(\"(?i:UTF-8)\"|'(?i:UTF-8)'))?"
            + "(\\s+standalone\\s*=\\s*(\"(yes|no)\"|'(yes|no)'))?\\s*\\?>");
    private static final int LONGEST_DECLARATION = 128;
    private static final byte[] COMMENT = "<!--".getBytes(StandardCharsets.US_ASCII);

    private int tokenLine = 1;

    /** Where we were behind the last tag, and behind the one before it when an element began. */
    private long tagEnd;

    private long before;

    private XmlScope scope = new XmlScope();
    /** The names of the elements that are open, and what was declared around each. */
    private XmlName[] open = new XmlName[16];

    private XmlScope[] scopes = new XmlScope[16];
    private int depth;
    private boolean started;
    private boolean rootSeen;
    /** The element that begins is empty, so it ends next. */
    private boolean empty;

    private final XmlAttributes attributes = new XmlAttributes();
    private final KnownElements known;

    /** Tells that there is something which is not common, or wrong. */
    static final class Unusual extends RuntimeException {
        Unusual() {
            super(null, null, false, false);
        }
    }

    /**
     * @param bufferSize how many bytes to read at a time, at first
     * @param input its name, for the places of records
     * @param limits beyond which the library is asked
     */
    XmlByteTokens(InputStream in, int bufferSize, String input, Limits limits) {
        super(in, bufferSize, limits);
        this.known = new KnownElements(input);
    }

    @Override
    public Token next() throws IOException {
        if (empty) {
            empty = false;
            endElement();
            return Token.END;
        }
        if (!started) {
            start();
        }
        while (at < limit || more()) {
            tokenLine = line;
            byte first = buffer[at];
            if (first != '<') {
                if (depth > 0) {
                    piece();
                    return Token.TEXT;
                }
                skipWhite(first);
                continue;
            }
            while (at + 1 == limit) {
                needMore();
            }
            switch (buffer[at + 1]) {
                case '/':
                    endTag();
                    return Token.END;
                case '!':
                    if (stands(COMMENT)) {
                        comment();
                        break;
                    }
                    require(depth > 0);
                    section();
                    return Token.TEXT;
                case '?':
                    instruction();
                    break;
                default:
                    while (!startTag()) {
                        needMore();
                    }
                    return Token.START;
            }
        }
        if (depth > 0 || !rootSeen) {
            throw new Unusual();
        }
        return Token.DONE;
    }

    /** Passes a byte order mark and the declaration. */
    private void start() throws IOException {
        started = true;
        while (limit < LONGEST_DECLARATION && more()) {
            // until the declaration is there as a whole
        }
        boolean mark = limit >= 3 && buffer[0] == (byte) 0xEF && buffer[1] == (byte) 0xBB && buffer[2] == (byte) 0xBF;
        at = mark ? 3 : 0;
        String begin = new String(buffer, at, Math.min(limit - at, LONGEST_DECLARATION), StandardCharsets.ISO_8859_1);
        if (begin.startsWith("<?xml") && begin.length() > 5 && begin.charAt(5) <= ' ') {
            int end = begin.indexOf("?>") + 2;
            if (end < 2 || !DECLARATION.matcher(begin.substring(0, end)).matches()) {
                throw new Unusual();
            }
            for (int i = 0; i < end; i++) {
                line += begin.charAt(i) == '\n' ? 1 : 0;
                if (begin.charAt(i) == '\r') {
                    throw new Unusual();
                }
            }
            at += end;
        }
    }

    /** Outside of the root element there is white space. */
    private void skipWhite(byte b) throws IOException {
        if (b == '\r') {
            pastReturn();
        } else if (b == '\n' || b == ' ' || b == '\t') {
            line += b == '\n' ? 1 : 0;
            at++;
        } else {
            throw new Unusual();
        }
    }

    // --- tags

    /**
     * Takes a start tag; says whether all of it has been read, without which nothing is changed.
     */
    private boolean startTag() {
        int i = nameEnd(at + 1);
        int nameEnd = i;
        int lines = 0;
        boolean declares = false;
        boolean closed = false;
        attributes.clear();
        while (true) {
            int white = i;
            while (i < limit && isWhite(buffer[i])) {
                lines += buffer[i] == '\n' ? 1 : 0;
                i++;
            }
            if (i + 1 >= limit) {
                return false;
            }
            if (buffer[i] == '>') {
                i++;
                break;
            }
            if (buffer[i] == '/') {
                require(buffer[i + 1] == '>');
                i += 2;
                closed = true;
                break;
            }
            require(i > white);
            int from = i;
            i = pastEquals(nameEnd(i));
            i = i < 0 ? -1 : value(i);
            if (i < 0) {
                return false;
            }
            declares |= attributes.endValue(scope.name(buffer, from, nameEnd(from)));
        }
        require(depth > 0 || !rootSeen);
        openElement(nameEnd, declares);
        empty = closed;
        at = i;
        before = tagEnd;
        tagEnd = dropped + at;
        line += lines;
        return true;
    }

    /**
     * {@return the place of the quote of a value whose attribute's name ends at a place, or -1 if
     * it has not been read}
     */
    private int pastEquals(int nameEnd) {
        int i = pastBlanks(nameEnd);
        if (i >= limit) {
            return -1;
        }
        require(buffer[i] == '=');
        i = pastBlanks(i + 1);
        return i >= limit ? -1 : i;
    }

    private int pastBlanks(int from) {
        int i = from;
        while (i < limit && buffer[i] == ' ') {
            i++;
        }
        return i;
    }

    /**
     * Takes a value in quotes; gives the place behind it, or -1 if all of it has not been read.
     */
    private int value(int quoteAt) {
        byte quote = buffer[quoteAt];
        require(quote == '"' || quote == '\'');
        PlainRun plain = inQuotes(quote);
        XmlText values = attributes.values();
        int i = quoteAt + 1;
        while (i < limit) {
            int end = plain.end(buffer, i, limit);
            values.add(buffer, i, end);
            i = end;
            if (i == limit) {
                break;
            }
            byte b = buffer[i];
            if (b == quote) {
                return i + 1;
            }
            // White space other than blanks, and what is not allowed, are left to the library.
            require(b == '&' || b < 0);
            int next = b < 0
                    ? XmlReferences.character(buffer, i, limit, values)
                    : XmlReferences.reference(buffer, i, limit, values);
            if (next < 0) {
                require(b == '&' || XmlReferences.mayGoOn(i, limit) && !ended);
                return -1;
            }
            i = next;
        }
        return -1;
    }

    private void openElement(int nameEnd, boolean declares) {
        if (depth == open.length) {
            open = Arrays.copyOf(open, depth * 2);
            scopes = Arrays.copyOf(scopes, depth * 2);
        }
        scopes[depth] = scope;
        if (declares) {
            scope = new XmlScope(scope);
            require(attributes.declareIn(scope));
        }
        XmlName name = scope.name(buffer, at + 1, nameEnd);
        require(name.isKnown() && attributes.areKnownAndDifferent());
        open[depth++] = name;
        rootSeen = true;
    }

    private void endTag() throws IOException {
        require(depth > 0);
        XmlName name = open[depth - 1];
        while (limit - at < name.length() + 3) {
            needMore();
        }
        require(name.isAt(buffer, at + 2));
        at += name.length() + 2;
        while (buffer[at] != '>') {
            require(buffer[at] == ' ' || buffer[at] == '\n' || buffer[at] == '\t');
            line += buffer[at] == '\n' ? 1 : 0;
            at++;
            if (at == limit) {
                needMore();
            }
        }
        at++;
        endElement();
    }

    private void endElement() {
        tagEnd = dropped + at;
        depth--;
        scope = scopes[depth];
    }

    // --- elements that are nothing but a text

    @Override
    public boolean leaf(FieldBytes.Row row, int slot) {
        if (attributes.count() > 0 || empty) {
            return false;
        }
        int end = leafEnd(at);
        XmlName name = open[depth - 1];
        int behind = end + name.length() + 3;
        boolean common = end > at
                && behind <= limit
                && buffer[end] == '<'
                && buffer[end + 1] == '/'
                && buffer[behind - 1] == '>'
                && name.isAt(buffer, end + 2)
                && row.text(slot, buffer, at, end);
        if (common) {
            at = behind;
            endElement();
        }
        return common;
    }

    // --- elements that stand as others stood before

    @Override
    public void beginRecord() throws IOException {
        topUp();
    }

    @Override
    public @Nullable Value known(ElementPlace around, long number) throws IOException {
        if (empty) {
            return null;
        }
        int end = known.takeElement(this, around, number);
        if (end < 0 && known.wasCut() && more()) {
            end = known.takeElement(this, around, number);
        }
        if (end < 0) {
            return null;
        }
        goOn(end);
        return known.taken();
    }

    @Override
    public void known(ElementPlace place, RecordBuilder record) {
        if (!empty) {
            int end = known.takeChildren(this, place, record);
            if (end > at) {
                goOn(end);
            }
        }
    }

    private void goOn(int end) {
        at = end;
        line = known.line();
        tagEnd = dropped + at;
    }

    @Override
    public long before() {
        return before;
    }

    @Override
    public void learn(long behind, ElementPlace around, FieldOrder.Field field, ElementPlace place) {
        if (behind >= dropped && around.mayLearn()) {
            new FormFinder(buffer, (int) (behind - dropped), at, scope).learn(around, field, place);
        }
    }

    /** {@return what is declared where we are} */
    XmlScope scope() {
        return scope;
    }

    // --- what was found

    @Override
    public String local() {
        return open[depth - 1].local();
    }

    @Override
    public @Nullable String namespace() {
        return open[depth - 1].elementNamespace();
    }

    @Override
    public int depth() {
        return depth;
    }

    @Override
    public int attributes() {
        return attributes.count();
    }

    @Override
    public String attributeLocal(int index) {
        return attributes.name(index).local();
    }

    @Override
    public @Nullable String attributeNamespace(int index) {
        return attributes.name(index).attributeNamespace();
    }

    @Override
    public String attribute(int index) {
        return attributes.value(index);
    }

    @Override
    public boolean attributeBytes(int index, FieldBytes.Row row, int slot) {
        return attributes.bytes(index, row, slot);
    }

    @Override
    public void skip() throws IOException {
        int around = depth - 1;
        while (depth > around) {
            next();
        }
    }

    @Override
    public int line() {
        return tokenLine;
    }

    @Override
    public int column() {
        return 0;
    }

    @Override
    public void close() {
        // nothing is held but the stream, which is not ours
    }
}
