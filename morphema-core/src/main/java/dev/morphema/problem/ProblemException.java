package dev.morphema.problem;

import java.util.List;

/** Carries problems to the caller who asked for an exception instead of values. */
public final class ProblemException extends RuntimeException {
    private final transient List<Problem> problems;

    /** @param problems at least one; the first gives the message */
    public ProblemException(List<Problem> problems) {
        super(problems.get(0).toString());
        this.problems = List.copyOf(problems);
    }

    /** As {@link #ProblemException(List)}, for one problem. */
    public ProblemException(Problem problem) {
        this(List.of(problem));
    }

    /** As {@link #ProblemException(List)}, for one problem with its technical cause. */
    public ProblemException(Problem problem, Throwable cause) {
        super(problem.toString(), cause);
        this.problems = List.of(problem);
    }

    /** {@return this with a rule as the place of the first problem, unless that has one already} */
    public ProblemException unlessPlaced(RuleLocation rule) {
        return problem().rule() == null ? new ProblemException(problem().at(rule), this) : this;
    }

    /** {@return all problems, at least one} */
    public List<Problem> problems() {
        return problems;
    }

    /** {@return the first problem} */
    public Problem problem() {
        return problems.get(0);
    }
}
