package dev.morphema.xml;

import dev.morphema.format.Limits;
import dev.morphema.value.Utf8;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;

/**
 * Pieces of text in the bytes of an XML document, and what is no text and no tag: comments,
 * instructions and sections. Not thread-safe.
 */
abstract class XmlPieces extends XmlWindow {
    private static final byte[] SECTION = "<![CDATA[".getBytes(StandardCharsets.US_ASCII);

    /** Text that is not as it stands in the buffer. */
    private final XmlText made = new XmlText();

    private byte[] text = {};
    private int textFrom;
    private int textTo;
    private boolean marked;

    XmlPieces(InputStream in, int bufferSize, Limits limits) {
        super(in, bufferSize, limits);
    }

    /** {@return the place behind a name of ASCII, or the limit if that may come before} */
    final int nameEnd(int from) {
        int i = from;
        while (i < limit && XmlName.isPart(buffer[i])) {
            i++;
        }
        require(i > from || i == limit);
        return i;
    }

    /**
     * Takes a piece of text: what stands in the buffer as it is, or one character that does not.
     */
    final void piece() throws IOException {
        while (true) {
            int end = textEnd(at);
            if (end > at) {
                marked = false;
                text = buffer;
                textFrom = at;
                textTo = end;
                at = end;
                return;
            }
            if (at < limit && (buffer[at] == '&' || buffer[at] == '\r')) {
                made.clear();
                marked = buffer[at] == '&';
                if (buffer[at] == '\r') {
                    pastReturn();
                    made.add('\n');
                } else {
                    int next = XmlReferences.reference(buffer, at, limit, made);
                    while (next < 0) {
                        needMore();
                        next = XmlReferences.reference(buffer, at, limit, made);
                    }
                    at = next;
                }
                text = made.bytes();
                textFrom = 0;
                textTo = made.length();
                return;
            }
            needMore();
        }
    }

    // --- comments, instructions and sections, of which the whole must be in the buffer

    final void comment() throws IOException {
        int end = find("--", 4);
        while (end + 2 == limit) {
            needMore();
            end = find("--", 4);
        }
        require(buffer[end + 2] == '>');
        made.clear();
        content(at + 4, end);
        at = end + 3;
    }

    final void instruction() throws IOException {
        int end = find("?>", 2);
        int name = nameEnd(at + 2);
        boolean xml = name - at == 5 && (buffer[at + 2] | 0x20) == 'x';
        require(!xml && (name == end || isWhite(buffer[name])));
        for (int i = at + 2; i < name; i++) {
            require(buffer[i] != ':');
        }
        require(!(buffer[at + 2] == '-' || buffer[at + 2] == '.' || buffer[at + 2] >= '0' && buffer[at + 2] <= ':'));
        made.clear();
        content(name, end);
        at = end + 2;
    }

    /** Takes a CDATA section as a piece of text. */
    final void section() throws IOException {
        require(stands(SECTION));
        int end = find("]]>", SECTION.length);
        made.clear();
        content(at + SECTION.length, end);
        at = end + 3;
        marked = true;
        text = made.bytes();
        textFrom = 0;
        textTo = made.length();
    }

    /** Adds characters as they stand, line ends as line feeds; counts the lines. */
    private void content(int from, int to) {
        for (int i = from; i < to; ) {
            byte b = buffer[i];
            if (b == '\r') {
                i += i + 1 < to && buffer[i + 1] == '\n' ? 2 : 1;
                made.add('\n');
                line++;
            } else {
                int length = b < 0 ? Utf8.length(buffer, i, to) : b >= ' ' || b == '\n' || b == '\t' ? 1 : 0;
                require(length > 0);
                made.add(buffer, i, i + length);
                line += b == '\n' ? 1 : 0;
                i += length;
            }
        }
    }

    /** As {@link XmlTokens#isMarked}. */
    public final boolean isMarked() {
        return marked;
    }

    /** As {@link XmlTokens#mostText}. */
    public final int mostText() {
        return textTo - textFrom;
    }

    /** As {@link XmlTokens#copyText}. */
    public final int copyText(char[] into, int at) {
        int i = textFrom;
        int to = at;
        while (i < textTo && text[i] >= 0) {
            into[to++] = (char) text[i++];
        }
        if (i < textTo) {
            String rest = new String(text, i, textTo - i, StandardCharsets.UTF_8);
            rest.getChars(0, rest.length(), into, to);
            to += rest.length();
        }
        return to;
    }
}
