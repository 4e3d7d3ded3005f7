package dev.morphema.csv;

import dev.morphema.format.Input;
import dev.morphema.format.Options;
import dev.morphema.formats.Decoding;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import java.io.BufferedReader;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Finds the exact place of a quote that does not fit, which the parser does not tell. It reads the
 * input once more where that is possible; elsewhere the row must do.
 */
final class CsvFaults {
    private final Input input;
    private final Options options;
    private final String delimiter;
    private final char quote;

    CsvFaults(Input input, Options options) {
        this.input = input;
        this.options = options;
        this.delimiter = options.text("delimiter", ",");
        this.quote = options.text("quote", "\"").charAt(0);
    }

    /**
     * {@return what is wrong with a row}
     *
     * @param row the line it begins on
     * @param technical what the parser says
     */
    Problem found(long row, String technical) {
        Problem problem = input.isRereadable() ? searched(row) : null;
        return problem != null
                ? problem
                : Problem.error(Code.BAD_CSV, "The quotes of the row that begins here do not match.")
                        .in(InputLocation.at(input.name(), row, 0))
                        .withHelp(technical);
    }

    private @Nullable Problem searched(long row) {
        try (BufferedReader lines = new BufferedReader(Decoding.reader(input.open(), options.encoding()))) {
            for (long line = 1; line < row; line++) {
                lines.readLine();
            }
            return new Scan(lines, row).run();
        } catch (IOException e) {
            return null;
        }
    }

    /** Goes through the cells of one row. */
    private final class Scan {
        private final BufferedReader lines;
        private String text;
        private long line;
        private int at;

        Scan(BufferedReader lines, long line) throws IOException {
            this.lines = lines;
            this.line = line;
            this.text = String.valueOf(lines.readLine());
        }

        @Nullable
        Problem run() throws IOException {
            while (at < text.length()) {
                if (text.charAt(at) == quote) {
                    Problem problem = quoted();
                    if (problem != null) {
                        return problem;
                    }
                } else {
                    int next = text.indexOf(delimiter, at);
                    at = next < 0 ? text.length() : next + delimiter.length();
                }
            }
            return null;
        }

        private @Nullable Problem quoted() throws IOException {
            long openLine = line;
            int openAt = at++;
            while (true) {
                int close = text.indexOf(quote, at);
                if (close < 0) {
                    String next = lines.readLine();
                    if (next == null) {
                        return problem("A quote is opened here and never closed.", openLine, openAt);
                    }
                    text = next;
                    line++;
                    at = 0;
                } else if (close + 1 < text.length() && text.charAt(close + 1) == quote) {
                    at = close + 2;
                } else {
                    at = close + 1;
                    return afterClosing(openLine, openAt);
                }
            }
        }

        private @Nullable Problem afterClosing(long openLine, int openAt) {
            if (at == text.length()) {
                return null;
            }
            if (text.startsWith(delimiter, at)) {
                at += delimiter.length();
                return null;
            }
            String cell =
                    openLine == line ? "" : " The cell begins on line " + openLine + ", column " + (openAt + 1) + ".";
            return problem(
                    "Between the closing quote of a cell and the next delimiter there is more text." + cell, line, at);
        }

        private Problem problem(String message, long problemLine, int column) {
            String other = line == 1 ? OtherThanCsv.proposal(List.of(text), delimiter) : null;
            return Problem.error(Code.BAD_CSV, message)
                    .in(InputLocation.at(input.name(), problemLine, column + 1))
                    .withHelp(
                            other == null ? "a quote inside a quoted cell is written twice: " + quote + quote : other);
        }
    }
}
