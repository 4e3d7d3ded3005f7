package dev.morphema.syntax;

/** The parsers of the parts of the language, which call one another, over one cursor. */
final class Grammar {
    final Cursor cursor;
    final ExpressionParser expressions;
    final LoopParser loops;
    final BodyParser bodies;

    Grammar(Cursor cursor) {
        this.cursor = cursor;
        this.expressions = new ExpressionParser(this);
        this.loops = new LoopParser(this);
        this.bodies = new BodyParser(this);
    }
}
