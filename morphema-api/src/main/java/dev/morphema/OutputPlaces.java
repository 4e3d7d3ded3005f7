package dev.morphema;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Set;

/**
 * The files that the outputs of one run become. Two that some file system takes for the same are refused, however they are
 * written: through links, with other letter case, or before they exist. Not thread-safe.
 */
final class OutputPlaces {
    private final Set<Path> taken = new HashSet<>();

    /**
     * Takes a place.
     *
     * @throws ProblemException if another output has it already
     * @throws IOException if the folders on the way cannot be looked at
     */
    void take(Path place) throws IOException {
        if (!taken.add(key(place))) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "Two outputs would be the same file, so one would overwrite the other.")
                            .withValue(place.toString())
                            .withHelp("give each output a name or folder of its own"));
        }
    }

    /** {@return what two paths to the same file have in common} */
    private static Path key(Path place) throws IOException {
        Path absolute = place.toAbsolutePath().normalize();
        Path there = absolute;
        while (there != null && !Files.exists(there)) {
            there = there.getParent();
        }
        Path real = there == null ? absolute : there.toRealPath();
        Path whole = there == null || there.equals(absolute) ? real : real.resolve(there.relativize(absolute));
        return Path.of(DocumentNames.folded(whole.toString()));
    }
}
