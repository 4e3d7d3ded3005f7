package dev.morphema;

import dev.morphema.output.FileFaults;
import dev.morphema.output.StagedOutput;
import dev.morphema.output.StagedOutputs;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A mapping that was laid out in the one style. Immutable. */
public final class FormattedMapping {
    private final @Nullable Path file;
    private final String before;
    private final String text;
    private final List<Problem> problems;

    FormattedMapping(@Nullable Path file, String before, String text, List<Problem> problems) {
        this.file = file;
        this.before = before;
        this.text = text;
        this.problems = List.copyOf(problems);
    }

    /** {@return the mapping in the style; as it was if it has errors} */
    public String text() {
        return text;
    }

    /** {@return what is wrong with the text}; one with errors is left as it is. */
    public List<Problem> problems() {
        return problems;
    }

    /** {@return whether the text was not in the style} */
    public boolean isChanged() {
        return !text.equals(before);
    }

    /**
     * Puts the text into the file that it came from: whole, or not at all.
     *
     * @throws dev.morphema.problem.ProblemException if it cannot be written
     * @throws IllegalStateException if it came from no file
     */
    public void write() {
        if (file == null) {
            throw new IllegalStateException("this mapping is no file");
        }
        put(file);
    }

    /**
     * Puts the text into a new file: whole, or not at all.
     *
     * @throws dev.morphema.problem.ProblemException if there is such a file already, or it cannot
     *     be written
     */
    public void writeNew(Path place) {
        if (Files.exists(place)) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITTEN, "There is such a file already, and it stays as it is.")
                            .withValue(place.toString())
                            .withHelp("give the mapping another name"));
        }
        put(place);
    }

    private void put(Path place) {
        try (StagedOutputs staged = new StagedOutputs(Set.of(), Set.of())) {
            staged.add(0, StagedOutput.file(place));
            staged.checkPlaces();
            staged.bytes(0).write(text.getBytes(StandardCharsets.UTF_8));
            staged.commit();
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITTEN, "The mapping cannot be written: " + FileFaults.reason(e) + ".")
                            .withValue(place.toString()),
                    e);
        }
    }
}
