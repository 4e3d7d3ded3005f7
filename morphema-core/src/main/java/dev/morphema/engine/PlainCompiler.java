package dev.morphema.engine;

import dev.morphema.plan.Term;

/** The back end that does nothing but what the plan says. */
final class PlainCompiler extends UnitCompiler {
    PlainCompiler(Shared shared) {
        super(shared);
    }

    @Override
    Node rule(Term term) {
        return node(term);
    }
}
