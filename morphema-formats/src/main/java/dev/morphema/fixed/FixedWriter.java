package dev.morphema.fixed;

import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Writes lines whose fields stand at the same places. Not thread-safe. */
final class FixedWriter implements DocumentWriter {
    private static final Map<String, String> ENDS = Map.of("lf", "\n", "crlf", "\r\n", "none", "");

    private final FixedLayout layout;
    private final BufferedWriter out;
    private final String encoding;
    private final int length;
    private final String end;
    private int depth;
    /** The columns of the line that is being made; null before its code is known. */
    private @Nullable List<FixedColumn> columns;

    private char[] line = new char[0];
    private @Nullable FixedColumn column;

    FixedWriter(OutputStream bytes, Options options) {
        this.layout = FixedLayout.of(options);
        this.length = options.count("length", 0);
        this.end = ENDS.get(options.text("line-end", "lf"));
        this.encoding = options.encoding().name();
        this.out = new BufferedWriter(new OutputStreamWriter(
                bytes,
                options.encoding()
                        .newEncoder()
                        .onMalformedInput(CodingErrorAction.REPORT)
                        .onUnmappableCharacter(CodingErrorAction.REPORT)));
    }

    /** Records are lines; where lines have codes, a record in them has the fields. */
    @Override
    public void beginRecord() {
        depth++;
        boolean isLine = depth == 1;
        boolean isCoded = depth == 2 && layout.code() != null && columns != null;
        if (!isLine && !isCoded) {
            throw refused("A column holds one value, this is a record.", null, null);
        }
        if (isLine) {
            columns = null;
            if (layout.code() == null) {
                begin("");
            }
        }
    }

    private void begin(String code) {
        List<FixedColumn> found = layout.columns(code);
        if (found == null) {
            throw refused(
                    "No columns are declared for lines with this code.",
                    code,
                    NearNames.proposal(code, layout.codes()).orElse(null));
        }
        if (columns != null) {
            throw refused("A line has one code, this is a second one.", code, null);
        }
        columns = found;
        int width = length;
        for (FixedColumn each : found) {
            width = Math.max(width, each.to());
        }
        FixedColumn place = layout.code();
        line = new char[place == null ? width : Math.max(width, place.to())];
        Arrays.fill(line, ' ');
        if (place != null) {
            put(place, code);
        }
    }

    @Override
    public void endRecord() {
        depth--;
        if (depth > 0) {
            return;
        }
        if (columns == null) {
            throw refused("This line has no code.", null, "write a record named after one of its codes: L { … }");
        }
        try {
            out.write(line);
            out.write(end);
        } catch (IOException e) {
            throw failed(e);
        }
    }

    private RuntimeException failed(IOException e) {
        return e instanceof CharacterCodingException
                ? refused(
                        "The encoding " + encoding + " has no such character.",
                        String.valueOf(line).strip(),
                        null)
                : new UncheckedIOException(e);
    }

    @Override
    public void beginList() {
        if (depth > 0) {
            throw refused("A column holds one value, this is a list.", null, "join(…, \" \") makes a text of it");
        }
    }

    @Override
    public void endList() {
        // the end of the lines
    }

    @Override
    public void field(FieldName name) {
        if (layout.code() != null && depth == 1) {
            begin(name.local());
            return;
        }
        column = null;
        for (FixedColumn each : columns == null ? List.<FixedColumn>of() : columns) {
            if (each.name().equals(name.local())) {
                column = each;
                return;
            }
        }
        List<String> known = columns == null
                ? List.of()
                : columns.stream().map(FixedColumn::name).toList();
        throw refused(
                "This record has a field that is no column of the target.",
                name.local(),
                NearNames.proposal(name.local(), known).orElse(null));
    }

    @Override
    public void value(Value value) {
        if (column == null || layout.code() != null && depth == 1) {
            throw refused("A line is a record, this is " + value.kind().words() + ".", null, null);
        }
        if (!value.isMissing()) {
            put(column, value.toString());
        }
    }

    private void put(FixedColumn at, String text) {
        if (text.length() > at.width()) {
            throw refused(
                    "The column " + at.name() + " has " + at.width() + " characters, this value " + text.length() + ".",
                    text,
                    "left(x, " + at.width() + ") or round(x, digits) makes it shorter");
        }
        if (text.indexOf('\n') >= 0 || text.indexOf('\r') >= 0) {
            throw refused("A value in a line has a line end of its own.", text, "replace(x, \"\\n\", \" \")");
        }
        Arrays.fill(line, at.from(), at.to(), at.fill());
        int start = at.right() ? at.to() - text.length() : at.from();
        text.getChars(0, text.length(), line, start);
        if (at.right() && at.fill() == '0' && text.startsWith("-") && start > at.from()) {
            // The sign stands before the zeros.
            line[start] = '0';
            line[at.from()] = '-';
        }
    }

    private static ProblemException refused(String message, @Nullable String value, @Nullable String help) {
        return new ProblemException(
                Problem.error(Code.NOT_WRITABLE, message).withValue(value).withHelp(help));
    }

    @Override
    public void finish() throws IOException {
        try {
            out.flush();
        } catch (CharacterCodingException e) {
            throw failed(e);
        }
    }
}
