package dev.morphema.cli;

import java.io.ByteArrayOutputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Set;

/**
 * Colours the names in JSON and XML that passes through: fields, and tags with their attributes.
 * Values stay as they are. Not thread-safe.
 */
final class ResultColours extends FilterOutputStream {
    private static final Set<String> JSON = Set.of("json", "jsonl");
    private static final byte[] NAME = Colour.NAME.begin().getBytes(StandardCharsets.US_ASCII);
    private static final byte[] END = Colour.end().getBytes(StandardCharsets.US_ASCII);

    private final boolean json;
    /** The text of JSON that has begun: whether it is a name shows what comes behind it. */
    private final ByteArrayOutputStream text = new ByteArrayOutputStream();

    private boolean inText;
    private boolean escaped;
    private boolean ended;
    private boolean inTag;
    private int quote;

    ResultColours(OutputStream out, String format) {
        super(out);
        this.json = JSON.contains(format);
    }

    /** {@return whether there are names to colour in a format} */
    static boolean knows(String format) {
        return JSON.contains(format) || format.equals("xml");
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
        ByteArrayOutputStream shown = new ByteArrayOutputStream(length * 2);
        for (int i = offset; i < offset + length; i++) {
            if (json) {
                json(bytes[i], shown);
            } else {
                xml(bytes[i], shown);
            }
        }
        shown.writeTo(out);
    }

    @Override
    public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
    }

    private void json(byte b, ByteArrayOutputStream shown) {
        if (ended) {
            ended = false;
            boolean name = b == ':';
            if (name) {
                shown.writeBytes(NAME);
            }
            shown.writeBytes(text.toByteArray());
            if (name) {
                shown.writeBytes(END);
            }
            text.reset();
        }
        if (inText) {
            text.write(b);
            if (escaped) {
                escaped = false;
            } else if (b == '\\') {
                escaped = true;
            } else if (b == '"') {
                inText = false;
                ended = true;
            }
        } else if (b == '"') {
            inText = true;
            text.write(b);
        } else {
            shown.write(b);
        }
    }

    private void xml(byte b, ByteArrayOutputStream shown) {
        if (!inTag) {
            if (b == '<') {
                inTag = true;
                shown.writeBytes(NAME);
            }
            shown.write(b);
        } else if (quote != 0) {
            if (b == quote) {
                quote = 0;
                shown.writeBytes(NAME);
            }
            shown.write(b);
        } else {
            shown.write(b);
            if (b == '"' || b == '\'') {
                quote = b;
                shown.writeBytes(END);
            } else if (b == '>') {
                inTag = false;
                shown.writeBytes(END);
            }
        }
    }

    @Override
    public void flush() throws IOException {
        if (ended) {
            ended = false;
            out.write(text.toByteArray());
            text.reset();
        }
        super.flush();
    }
}
