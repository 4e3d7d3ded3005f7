package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Morphema;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;

/** Reads the mapping that a command is given: a file, or standard input for a hyphen. */
final class MappingFile {
    static final Path STANDARD = Path.of("-");

    private MappingFile() {}

    /**
     * {@return the mapping with its problems}; one of standard input names files relative to the
     * current folder
     */
    static Checked check(Morphema morphema, Path file, InputStream in) {
        return file.equals(STANDARD) ? morphema.check(shown(file), text(in), Path.of("")) : morphema.check(file);
    }

    /** {@return how messages name the mapping} */
    static String shown(Path file) {
        return file.equals(STANDARD) ? "standard input" : file.toString();
    }

    private static String text(InputStream in) {
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(in.readAllBytes()))
                    .toString();
        } catch (CharacterCodingException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_READABLE, "The mapping on standard input is not a text in UTF-8."), e);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_READABLE, "The mapping on standard input cannot be read."), e);
        }
    }
}
