package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;

/**
 * A part of a mapping's text.
 *
 * @param source the text
 * @param start offset of the first character
 * @param end offset after the last
 */
public record Span(SourceText source, int start, int end) {
    /** {@return the part from the start of this to the end of the other} */
    public Span to(Span other) {
        return new Span(source, start, Math.max(end, other.end));
    }

    /** {@return whether an offset is within this part, or right behind it} */
    public boolean contains(int offset) {
        return start <= offset && offset <= end;
    }

    /** {@return the place for a problem} */
    public RuleLocation location() {
        return source.location(start, end);
    }

    /** {@return the line it starts on, counted from 1} */
    public int line() {
        return source.line(start);
    }

    /** {@return an error at this place} */
    public Problem error(Code code, String message) {
        return Problem.error(code, message).at(location());
    }

    /** {@return a warning at this place} */
    public Problem warning(Code code, String message) {
        return Problem.warning(code, message).at(location());
    }

    /** {@return the text of this part} */
    public String text() {
        return source.text().substring(start, end);
    }

    /** Spans do not tell trees apart: the same mapping laid out in another way is the same tree. */
    @Override
    public boolean equals(Object other) {
        return other instanceof Span;
    }

    @Override
    public int hashCode() {
        return 0;
    }

    @Override
    public String toString() {
        return source.name() + ":" + line();
    }
}
