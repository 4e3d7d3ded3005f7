package dev.morphema.formats;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import org.jspecify.annotations.Nullable;

/**
 * Bytes that stand for no character in the encoding of an input, with the place where they stand.
 */
public final class WrongBytesException extends CharacterCodingException {
    private static final long serialVersionUID = 1L;

    private final transient Charset charset;
    private final long line;
    private final int column;

    /**
     * @param charset the encoding in which the bytes were read
     * @param line counted from 1
     * @param column in characters, counted from 1
     */
    WrongBytesException(Charset charset, long line, int column) {
        this.charset = charset;
        this.line = line;
        this.column = column;
    }

    /** {@return the exception among the causes of another, or null} */
    public static @Nullable WrongBytesException in(@Nullable Throwable e) {
        for (Throwable at = e; at != null; at = at.getCause()) {
            if (at instanceof WrongBytesException found) {
                return found;
            }
        }
        return null;
    }

    /**
     * {@return the problem to report}
     *
     * @param input the name of the input
     * @param help what decides the encoding, and how to state another one
     */
    public Problem problem(String input, String help) {
        return Problem.error(Code.BAD_ENCODING, "The bytes here are not valid " + charset + ".")
                .in(InputLocation.at(input, line, column))
                .withHelp(help);
    }

    @Override
    public String getMessage() {
        return "no character in " + charset + " at line " + line + ", column " + column;
    }
}
