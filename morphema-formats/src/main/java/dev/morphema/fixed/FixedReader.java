package dev.morphema.fixed;

import dev.morphema.format.Input;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.UsedFields;
import dev.morphema.formats.Decoding;
import dev.morphema.formats.WrongBytesException;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Origin;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Reads the lines of one input. Not thread-safe. */
final class FixedReader implements RecordReader {
    private final String name;
    private final Projection projection;
    private final Options options;
    private final FixedLayout layout;
    private final FixedLines lines;
    private final boolean skipsOthers;
    private final boolean cuts;
    private final boolean blankIsText;
    private long record;

    FixedReader(Input input, Projection projection, Options options) throws IOException {
        this.name = input.name();
        this.projection = projection;
        this.options = options;
        this.layout = FixedLayout.of(options);
        this.skipsOthers = options.text("others", "").equals("skip");
        this.cuts = options.text("longer", "").equals("cut");
        this.blankIsText = options.text("blank", "").equals("text");
        this.lines = new FixedLines(
                Decoding.reader(input.open(), options.encoding()), name, options.count("length", 0), options.limits());
        for (int i = 0; i < options.count("skip", 0); i++) {
            next(lines);
        }
    }

    private @Nullable String next(FixedLines from) throws IOException {
        try {
            return from.next();
        } catch (WrongBytesException e) {
            throw new ProblemException(e.problem(name, Decoding.help(options.encoding())), e);
        }
    }

    @Override
    public boolean isSequence() {
        return true;
    }

    @Override
    public @Nullable Value next() throws IOException {
        for (String line = next(lines); line != null; line = next(lines)) {
            if (line.isBlank()) {
                continue;
            }
            FixedColumn place = layout.code();
            String code = place == null ? "" : cell(line, place);
            List<FixedColumn> columns = layout.columns(code);
            if (columns != null) {
                record++;
                return place == null ? fields(line, columns, projection) : coded(line, code, columns);
            }
            if (!skipsOthers) {
                throw refused(
                        "No columns are declared for lines with this code.",
                        code,
                        "declared are " + String.join(", ", layout.codes()) + "; others = skip leaves such lines out",
                        place == null ? 1 : place.from() + 1);
            }
        }
        return null;
    }

    private Value coded(String line, String code, List<FixedColumn> columns) {
        FieldName field = FieldName.of(code);
        UsedFields record = new UsedFields(projection, origin());
        if (record.uses(field)) {
            record.put(field, fields(line, columns, record.of(field)));
        }
        return record.build();
    }

    private Value fields(String line, List<FixedColumn> columns, Projection wanted) {
        UsedFields record = new UsedFields(wanted, origin());
        int end = 0;
        for (FixedColumn column : columns) {
            end = Math.max(end, column.to());
            String cell = cell(line, column);
            if (!cell.isEmpty() || blankIsText) {
                record.put(FieldName.of(column.name()), TextValue.of(cell));
            }
        }
        if (!cuts && line.length() > end && !line.substring(end).isBlank()) {
            throw refused(
                    "The line goes on behind its last column, which ends at " + end + ".",
                    line.substring(end).strip(),
                    "declare what stands there as a column; longer = cut leaves it out",
                    end + 1);
        }
        return record.build();
    }

    private Origin origin() {
        return new Origin(name, record, lines.number());
    }

    private static String cell(String line, FixedColumn column) {
        return column.from() >= line.length()
                ? ""
                : line.substring(column.from(), Math.min(column.to(), line.length()))
                        .strip();
    }

    private ProblemException refused(String message, String value, String help, int column) {
        return new ProblemException(Problem.error(Code.BAD_LINE, message)
                .in(InputLocation.at(name, lines.number(), column))
                .withValue(value)
                .withHelp(help));
    }

    @Override
    public void close() throws IOException {
        lines.close();
    }
}
