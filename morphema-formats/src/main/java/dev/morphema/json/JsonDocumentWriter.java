package dev.morphema.json;

import dev.morphema.format.FieldGroup;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.formats.Affix;
import dev.morphema.formats.Affixes;
import dev.morphema.formats.ByteSink;
import dev.morphema.formats.EncodedNames;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.FieldName;
import dev.morphema.value.Marks;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Writes one JSON document (RFC 8259), or the records of a list each on its own line. Bytes go
 * straight into the buffer of the output: most of a document is names that were encoded once.
 */
final class JsonDocumentWriter implements DocumentWriter {
    private static final int DEFAULT_INDENT = 2;

    private static final byte[][] ESCAPED = escaped();
    private static final ByteSink.Escape ESCAPE = new ByteSink.Escape(ESCAPED);
    private static final Marks MARKS = new Marks("\"\\", ESCAPED);
    private static final ByteSink.Constant TRUE = new ByteSink.Constant("true");
    private static final ByteSink.Constant FALSE = new ByteSink.Constant("false");
    private static final ByteSink.Constant NULL = new ByteSink.Constant("null");

    private final ByteSink out;
    private final boolean lines;
    private final boolean writesMissing;
    private final boolean indented;
    private final String indent;
    private final EncodedNames<ByteSink.Constant> names;

    private final Affixes affixes;
    /**
     * How many records and lists are open, and for each whether it has something in it, and a text
     * of its own.
     */
    private int depth;

    private boolean[] filled = new boolean[16];
    private boolean[] texts = new boolean[16];
    /** What stands before a line, for each depth that there was. */
    private ByteSink.@Nullable Constant[] newLines = new ByteSink.Constant[filled.length];
    /** The list of a document with one record a line has no brackets of its own. */
    private boolean bare;
    /** A name was written, so what comes next needs no comma. */
    private boolean named;

    private Mark mark = Mark.NONE;

    /** What there was at a mark. */
    private record Mark(int depth, boolean filled, boolean text, boolean bare, boolean named) {
        private static final Mark NONE = new Mark(0, false, false, false, false);
    }

    JsonDocumentWriter(OutputStream out, Options options, boolean lines, QuotedNames names) {
        this.out = new ByteSink(out);
        this.lines = lines;
        this.writesMissing = options.text("missing", "absent").equals("null");
        this.indent = " ".repeat(lines ? 0 : options.count("indent", DEFAULT_INDENT));
        this.indented = !indent.isEmpty();
        this.names = names.encoded(indented);
        this.affixes = new Affixes(lines ? "jsonl" : "json", options, Map.of(), this::affix);
    }

    /** {@return how a character is written in a text} */
    static String written(char c) {
        byte[] escaped = c < ESCAPED.length ? ESCAPED[c] : null;
        return escaped == null ? String.valueOf(c) : new String(escaped, StandardCharsets.US_ASCII);
    }

    private static byte[][] escaped() {
        byte[][] written = new byte[128][];
        for (int c = 0; c < ' '; c++) {
            written[c] = ByteSink.bytes("\\u" + HexFormat.of().withUpperCase().toHexDigits((short) c));
        }
        String shortForms = "\bb\tt\nn\ff\rr\"\"\\\\";
        for (int i = 0; i < shortForms.length(); i += 2) {
            written[shortForms.charAt(i)] = ByteSink.bytes("\\" + shortForms.charAt(i + 1));
        }
        return written;
    }

    @Override
    public boolean writesMissing() {
        return writesMissing;
    }

    /** What stands before a name or an item. */
    private void begin() {
        if (named) {
            named = false;
            return;
        }
        if (depth == 0) {
            return;
        }
        if (filled[depth]) {
            out.write(',');
        }
        filled[depth] = true;
        newLine();
    }

    private void newLine() {
        if (indented) {
            ByteSink.Constant known = newLines[depth];
            out.write(known == null ? madeNewLine() : known);
        }
    }

    private ByteSink.Constant madeNewLine() {
        ByteSink.Constant made = new ByteSink.Constant("\n" + indent.repeat(depth));
        newLines[depth] = made;
        return made;
    }

    private void open(char bracket) {
        begin();
        out.write(bracket);
        depth++;
        if (depth == filled.length) {
            deepen();
        }
        filled[depth] = false;
        texts[depth] = false;
    }

    private void deepen() {
        filled = Arrays.copyOf(filled, depth * 2);
        texts = Arrays.copyOf(texts, depth * 2);
        newLines = Arrays.copyOf(newLines, depth * 2);
    }

    private void close(char bracket) {
        boolean any = filled[depth];
        depth--;
        if (any) {
            newLine();
        }
        out.write(bracket);
        endValue();
    }

    private void endValue() {
        if (lines && depth == 0) {
            out.write('\n');
        }
    }

    @Override
    public void beginRecord() {
        open('{');
    }

    @Override
    public void endRecord() {
        close('}');
    }

    @Override
    public void beginList() {
        if (lines && depth == 0 && !bare) {
            bare = true;
        } else {
            open('[');
        }
    }

    @Override
    public void endList() {
        if (bare && depth == 0) {
            bare = false;
        } else {
            close(']');
        }
    }

    @Override
    public void field(FieldName name) {
        name(name);
        named = true;
    }

    private void name(FieldName name) {
        ByteSink.Constant encoded = names.of(name);
        if (indented) {
            begin();
            out.write(encoded, 1, encoded.length());
        } else {
            out.write(encoded, filled[depth] ? 0 : 1, encoded.length());
            filled[depth] = true;
        }
    }

    @Override
    public void field(FieldName name, Value value) {
        name(name);
        scalar(value);
    }

    @Override
    public int fields(FieldGroup group, RecordValue record, int[] slots, int from) {
        Affix[] fields = affixes.of(group, depth);
        int end = out.write(fields, record, slots, from, filled[depth] ? 0 : 1);
        filled[depth] |= end > from;
        return end;
    }

    private Affix affix(FieldName name) {
        String before = "," + (indented ? "\n" + indent.repeat(depth) : "") + QuotedNames.quoted(name, indented);
        return new Affix(
                new ByteSink.Constant(before + '"'),
                new ByteSink.Constant("\""),
                new ByteSink.Constant(before),
                new ByteSink.Constant(""),
                MARKS);
    }

    @Override
    public void value(Value value) {
        begin();
        scalar(value);
        endValue();
    }

    private void scalar(Value value) {
        if (value instanceof NumberValue number) {
            out.write(number, ESCAPE);
        } else if (value instanceof BooleanValue truth) {
            out.write(truth.isTrue() ? TRUE : FALSE);
        } else if (value.isMissing()) {
            out.write(NULL);
        } else {
            out.write('"', value, ESCAPE);
        }
    }

    @Override
    public void text(Value value) {
        if (texts[depth]) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "A record in JSON has one text of its own, this is a second.")
                            .withHelp("put both into one template: = \"{a} {b}\""));
        }
        texts[depth] = true;
        field(FieldName.TEXT, value);
    }

    @Override
    public boolean mark() {
        out.mark();
        mark = new Mark(depth, filled[depth], texts[depth], bare, named);
        return true;
    }

    @Override
    public void rewind() {
        out.rewind();
        depth = mark.depth();
        filled[depth] = mark.filled();
        texts[depth] = mark.text();
        bare = mark.bare();
        named = mark.named();
    }

    @Override
    public void finish() throws IOException {
        if (!lines) {
            out.write('\n');
        }
        out.flush();
    }
}
