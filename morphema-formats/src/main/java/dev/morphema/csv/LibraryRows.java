package dev.morphema.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import de.siegmar.fastcsv.writer.QuoteStrategies;
import dev.morphema.formats.RoundTrip;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.Charset;
import org.jspecify.annotations.Nullable;

/** Rows in any encoding; a character that the encoding lacks is refused. */
final class LibraryRows implements CsvRows {
    private final Writer characters;
    private final CsvWriter csv;
    private final RoundTrip trip;

    LibraryRows(OutputStream out, Charset charset, char delimiter, char quote, boolean crlf) {
        trip = new RoundTrip(charset);
        characters = new BufferedWriter(new OutputStreamWriter(out, charset));
        csv = CsvWriter.builder()
                .fieldSeparator(delimiter)
                .quoteCharacter(quote)
                .quoteStrategy(QuoteStrategies.EMPTY)
                .lineDelimiter(crlf ? LineDelimiter.CRLF : LineDelimiter.LF)
                .build(characters);
    }

    @Override
    public void write(@Nullable Value[] cells) {
        @Nullable String[] texts = new String[cells.length];
        for (int i = 0; i < texts.length; i++) {
            Value cell = cells[i];
            // The empty text is written in quotes: alone in its row it keeps that from being an
            // empty line.
            String nothing = cells.length == 1 ? "" : null;
            texts[i] = cell == null || cell.isMissing() ? nothing : encodable(cell.toString());
        }
        csv.writeRecord(texts);
    }

    private String encodable(String text) {
        if (!trip.survives(text)) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITABLE, "This text has a character that the encoding of the target lacks.")
                            .withValue(text)
                            .withHelp("write the target in UTF-8"));
        }
        return text;
    }

    @Override
    public void flush() throws IOException {
        csv.flush();
        characters.flush();
    }
}
