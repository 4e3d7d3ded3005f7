package dev.morphema.syntax;

import dev.morphema.problem.Problem;

/** Leads the parser out of a statement it cannot understand, to the place where it goes on. */
final class SyntaxFault extends RuntimeException {
    private final transient Problem problem;

    SyntaxFault(Problem problem) {
        super(problem.message(), null, false, false);
        this.problem = problem;
    }

    Problem problem() {
        return problem;
    }
}
