package dev.morphema.output;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.HashSet;
import java.util.Set;

/**
 * The files that the outputs of one run become. Two that some file system takes for the same are
 * refused, however they are written: through links, with other letter case, or before they exist;
 * so is one in the place of what was read. Not thread-safe.
 */
final class OutputPlaces {
    private final Set<Path> taken = new HashSet<>();
    private final Set<Path> inputs;
    private final Set<Object> ofMapping = new HashSet<>();

    /**
     * @param inputs the files that the run reads, each where it really is
     * @param ofMapping the files that the mapping was made of
     * @throws IOException if these cannot be looked at
     */
    OutputPlaces(Set<Path> inputs, Set<Path> ofMapping) throws IOException {
        this.inputs = inputs;
        for (Path file : ofMapping) {
            if (Files.exists(file)) {
                this.ofMapping.add(identity(file));
            }
        }
    }

    /**
     * Takes a place.
     *
     * @throws ProblemException if another output has it already, or a file that was read
     * @throws IOException if the folders on the way cannot be looked at
     */
    void take(Path place) throws IOException {
        if (!taken.add(key(place))) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "Two outputs would be the same file, so one would overwrite the other.")
                            .withValue(place.toString())
                            .withHelp("give each output a name or folder of its own"));
        }
        if (Files.exists(place)) {
            if (inputs.contains(place.toRealPath())) {
                throw overwriting("an input of this run", place);
            }
            if (ofMapping.contains(identity(place))) {
                throw overwriting("a file that the mapping reads", place);
            }
        }
    }

    private static ProblemException overwriting(String what, Path place) {
        return new ProblemException(Problem.error(Code.USAGE, "The output would overwrite " + what + ".")
                .withValue(place.toString())
                .withHelp("give the output another name, or another folder"));
    }

    /**
     * {@return what all names of a file have in common, hard links among them where the file system
     * can tell}
     */
    private static Object identity(Path file) throws IOException {
        Object key = Files.readAttributes(file, BasicFileAttributes.class).fileKey();
        return key != null ? key : file.toRealPath();
    }

    /** {@return what two paths to the same file have in common} */
    private static Path key(Path place) throws IOException {
        return place.getFileSystem()
                .getPath(DocumentNames.folded(RealPlace.of(place).toString()));
    }
}
