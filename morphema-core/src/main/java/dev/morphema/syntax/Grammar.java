package dev.morphema.syntax;

import java.util.HashSet;
import java.util.Set;

/** The parsers of the parts of the language, which call one another, over one cursor. */
final class Grammar {
    final Cursor cursor;
    final ExpressionParser expressions;
    final LoopParser loops;
    final BodyParser bodies;
    /** The names of all fields that some path steps to. */
    final Set<String> steps;

    Grammar(Cursor cursor) {
        this(cursor, new HashSet<>());
    }

    private Grammar(Cursor cursor, Set<String> steps) {
        this.cursor = cursor;
        this.steps = steps;
        this.expressions = new ExpressionParser(this);
        this.loops = new LoopParser(this);
        this.bodies = new BodyParser(this);
    }

    /** {@return the parsers of a part that has tokens of its own} */
    Grammar nested(Cursor inner) {
        return new Grammar(inner, steps);
    }
}
