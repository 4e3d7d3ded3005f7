package dev.morphema.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.formats.Decoding;
import dev.morphema.formats.ReadBuffer;
import dev.morphema.formats.WrongBytesException;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Reads the rows of one CSV input. */
final class CsvRecordReader implements RecordReader {
    /** A small input has no more texts to remember than one in so many bytes. */
    private static final int BYTES_OF_A_TEXT = 32;

    /** What the library says of a cell that is longer than allowed. */
    private static final String TOO_LONG = "maximum buffer size";

    private final Input input;
    private final Limits limits;
    private final Projection projection;
    private final CsvRowHandler rows;
    private final InputStream bytes;
    private final Charset charset;
    private final CsvFaults faults;
    /** Finds the rows, if it can read this encoding and these marks; else the library does. */
    private final @Nullable CsvScanner scanner;

    private final @Nullable Iterator<Value> library;
    private final List<Problem> warnings = new ArrayList<>();
    private final long skipped;
    private boolean started;
    private final @Nullable List<String> columns;
    /** The names of the columns, once they are known. */
    private @Nullable List<String> names;

    private final boolean header;
    private final String delimiter;
    /** Whether an input with other columns than those that are wanted is taken. */
    private final boolean takesAny;

    CsvRecordReader(Input input, Projection projection, Options options) throws IOException {
        this.input = input;
        this.limits = options.limits();
        this.projection = projection;
        this.columns = options.texts("columns").orElse(null);
        this.header = options.isOn("header", columns == null);
        this.takesAny = options.allowsMismatch();
        this.faults = new CsvFaults(input, options);
        Decoding.Start start = Decoding.start(input.open(), options.encoding());
        this.bytes = start.bytes();
        this.charset = start.charset();
        this.delimiter = options.text("delimiter", ",");
        char quote = options.text("quote", "\"").charAt(0);
        boolean trim = options.isOn("trim", false);
        boolean scanned = !trim && options.count("skip", 0) == 0 && CsvScanner.canRead(charset, delimiter, quote);
        Reader characters = scanned ? Reader.nullReader() : start.characters();
        this.skipped = skipLines(characters, options.count("skip", 0));
        this.rows = new CsvRowHandler(
                input.name(),
                skipped,
                trim,
                options.text("blank", "absent").equals("absent"),
                new CellTexts(charset),
                ReadBuffer.size(input) / BYTES_OF_A_TEXT,
                limits);
        this.scanner = scanned
                ? new CsvScanner(bytes, delimiter.charAt(0), quote, rows, ReadBuffer.size(input), limits)
                : null;
        this.library = scanner != null
                ? null
                : CsvReader.builder()
                        .fieldSeparator(delimiter)
                        .quoteCharacter(quote)
                        .allowUnclosedQuote(false)
                        .trimWhitespacesAroundQuotes(trim)
                        .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                        .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                        .skipEmptyLines(true)
                        .maxBufferSize(limits.mostInt(Limit.TEXT))
                        .build(rows, characters)
                        .iterator();
    }

    private static long skipLines(Reader characters, int count) throws IOException {
        for (int line = 0; line < count; line++) {
            int c = characters.read();
            while (c >= 0 && c != '\n') {
                c = characters.read();
            }
        }
        return count;
    }

    @Override
    public boolean isSequence() {
        return true;
    }

    @Override
    public @Nullable Value next() throws IOException {
        try {
            begin();
            return nextRow();
        } catch (CsvParseException | RowCells.BadQuotes | RowCells.TooMuch | UncheckedIOException e) {
            throw fault(e);
        } catch (IOException e) {
            throw fault(new UncheckedIOException(e));
        }
    }

    @Override
    public boolean leavesRecords() {
        return scanner != null;
    }

    private @Nullable Value nextRow() throws IOException {
        if (scanner != null) {
            return scanner.next();
        }
        Iterator<Value> found = Objects.requireNonNull(library);
        return found.hasNext() ? found.next() : null;
    }

    /** Before the first record: reads the header, and finds out which columns are wanted. */
    private void begin() throws IOException {
        if (started) {
            return;
        }
        started = true;
        names = columns;
        if (header && nextRow() != null) {
            names = columns == null ? rows.header() : columns;
        } else if (header) {
            names = columns == null ? List.of() : columns;
        }
        if (names != null) {
            warnOfMissing(names);
        }
        rows.begin(projection, names);
    }

    private void warnOfMissing(List<String> names) {
        if (projection.keepsAll()) {
            return;
        }
        for (int slot = 0; slot < projection.layout().size(); slot++) {
            FieldName field = projection.layout().name(slot);
            if (!names.contains(field.local())) {
                warnings.add(Problem.warning(
                                Code.MISSING_COLUMN,
                                "The input has no column " + field.local() + ", so it is absent in every record.")
                        .in(InputLocation.at(input.name(), skipped + 1, 0))
                        .withHelp(NearNames.proposal(field.local(), names).orElse(null)));
            }
        }
        boolean none =
                !warnings.isEmpty() && warnings.size() == projection.layout().size();
        if (none && header && !names.isEmpty() && !takesAny) {
            throw foreign();
        }
    }

    /**
     * An input that has none of the columns would give as many records without any field as it has
     * lines.
     */
    private ProblemException foreign() {
        String proposal = OtherThanCsv.proposal(rows.header(), delimiter);
        return new ProblemException(Problem.error(
                        proposal == null ? Code.MISMATCH : Code.BAD_CSV,
                        "The input has none of the columns that the mapping uses.")
                .in(InputLocation.at(input.name(), skipped + 1, 0))
                .withHelp(
                        proposal != null
                                ? proposal
                                : "is it the right file? The option mismatch = allow takes it as it is"));
    }

    @Override
    public List<FieldName> columns() {
        return names == null ? List.of() : names.stream().map(FieldName::of).toList();
    }

    @Override
    public List<Problem> warnings() {
        return warnings;
    }

    private ProblemException fault(RuntimeException e) throws IOException {
        if (e.getCause() instanceof ProblemException problem) {
            return problem;
        }
        if (e instanceof RowCells.TooMuch tooMuch) {
            return exceeded(tooMuch.limit());
        }
        if (e instanceof CsvParseException && causes(e).contains(TOO_LONG)) {
            return exceeded(Limit.TEXT);
        }
        WrongBytesException wrongBytes = WrongBytesException.in(e);
        if (wrongBytes != null) {
            return new ProblemException(wrongBytes.problem(input.name(), encodingHelp()), e);
        }
        if (e.getCause() instanceof CharacterCodingException) {
            return wrongBytes();
        }
        if (e instanceof UncheckedIOException unreadable) {
            throw unreadable.getCause();
        }
        return new ProblemException(faults.found(rows.nextLine(), String.valueOf(e.getMessage())), e);
    }

    private ProblemException exceeded(Limit limit) {
        return limits.exceeded(limit, InputLocation.at(input.name(), rows.nextLine(), 0));
    }

    private static String causes(Throwable e) {
        return e.getMessage() + " " + (e.getCause() == null ? "" : e.getCause().getMessage());
    }

    private String encodingHelp() throws IOException {
        String other = OtherThanCsv.proposal(input);
        return other == null ? Decoding.help(charset) : other;
    }

    private ProblemException wrongBytes() throws IOException {
        return new ProblemException(Problem.error(
                        Code.BAD_ENCODING,
                        "The row that begins here has bytes that are not valid in the encoding of this source.")
                .in(InputLocation.at(input.name(), rows.nextLine(), 0))
                .withHelp(encodingHelp()));
    }

    @Override
    public void close() throws IOException {
        bytes.close();
    }
}
