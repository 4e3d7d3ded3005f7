package dev.morphema.fixed;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.BufferedReader;
import java.io.Closeable;
import java.io.IOException;
import java.io.Reader;
import org.jspecify.annotations.Nullable;

/** Parts a text into lines, or into records of a length. Not thread-safe. */
final class FixedLines implements Closeable {
    private final BufferedReader reader;
    private final String name;
    private final int length;
    private final Limits limits;
    private long number;

    /** @param length of a record in characters; 0 where each is a line */
    FixedLines(Reader reader, String name, int length, Limits limits) {
        this.reader = new BufferedReader(reader);
        this.name = name;
        this.length = length;
        this.limits = limits;
    }

    /** {@return which line or record was read last, counted from 1} */
    long number() {
        return number;
    }

    /** {@return the next line without its end, or null behind the last} */
    @Nullable
    String next() throws IOException {
        number++;
        return length > 0 ? record() : line();
    }

    private @Nullable String line() throws IOException {
        StringBuilder line = new StringBuilder();
        int c = reader.read();
        if (c < 0) {
            return null;
        }
        while (c >= 0 && c != '\n' && c != '\r') {
            line.append((char) c);
            if (line.length() > limits.most(Limit.TEXT)) {
                throw limits.exceeded(Limit.TEXT, InputLocation.at(name, number, 1));
            }
            c = reader.read();
        }
        skipLineFeed(c);
        return line.toString();
    }

    private void skipLineFeed(int end) throws IOException {
        if (end == '\r') {
            reader.mark(1);
            if (reader.read() != '\n') {
                reader.reset();
            }
        }
    }

    /** A line end behind a record is no part of the next one. */
    private @Nullable String record() throws IOException {
        reader.mark(1);
        int c = reader.read();
        while (number > 1 && (c == '\r' || c == '\n')) {
            reader.mark(1);
            c = reader.read();
        }
        if (c < 0) {
            return null;
        }
        reader.reset();
        char[] record = new char[length];
        int filled = 0;
        for (int read = 0; read >= 0 && filled < length; filled += Math.max(read, 0)) {
            read = reader.read(record, filled, length - filled);
        }
        String text = new String(record, 0, filled);
        if (filled < length && !text.isBlank()) {
            throw new ProblemException(Problem.error(
                            Code.BAD_LINE, "The last record has " + filled + " characters instead of " + length + ".")
                    .in(new InputLocation(name, number, 0, 0, null, null)));
        }
        return filled < length ? null : text;
    }

    @Override
    public void close() throws IOException {
        reader.close();
    }
}
