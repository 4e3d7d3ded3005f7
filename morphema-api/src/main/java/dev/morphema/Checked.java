package dev.morphema;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What checking a mapping gave. Immutable. */
public final class Checked {
    private final @Nullable Mapping mapping;
    private final List<Problem> problems;

    Checked(@Nullable Mapping mapping, List<Problem> problems) {
        this.mapping = mapping;
        this.problems = List.copyOf(problems);
    }

    /** {@return the mapping; empty if a problem is an error} */
    public Optional<Mapping> mapping() {
        return Optional.ofNullable(mapping);
    }

    /** {@return all problems; where there is a mapping, only warnings} */
    public List<Problem> problems() {
        return problems;
    }

    /**
     * {@return the mapping}
     *
     * @throws ProblemException if there is none, with all errors
     */
    public Mapping orThrow() {
        if (mapping == null) {
            throw new ProblemException(
                    problems.stream().filter(Problem::isError).toList());
        }
        return mapping;
    }
}
