package dev.morphema.problem;

/**
 * A place in a mapping.
 *
 * @param file the name of the mapping's text, as the caller gave it
 * @param line counted from 1
 * @param column counted from 1, in code points
 * @param length of the marked part, in code points, at least 1 and within the line
 * @param text the whole line, without its end; empty if it is longer than anybody reads
 */
public record RuleLocation(String file, int line, int column, int length, String text) {
    @Override
    public String toString() {
        return file + ":" + line + ":" + column;
    }
}
