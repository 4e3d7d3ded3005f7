package dev.morphema.cli;

/**
 * A line of a mapping or an input with the part that a problem is about, cut around that to fit.
 *
 * @param text the line, or a part of it
 * @param caret marks the part; empty if it is not known
 */
record SourceLine(String text, String caret) {
    private static final String CUT = "…";

    /** Of a long line so much of the room is before the part. */
    private static final int BEFORE = 3;

    /**
     * {@return a line that fits}
     *
     * @param column of the part, counted from 1; 0 if it is not known
     * @param length of the part
     * @param room how many columns there are
     */
    static SourceLine of(String line, int column, int length, int room) {
        String text = harmless(line);
        boolean known = column > 0 && column <= text.length() + 1;
        int at = known ? column - 1 : 0;
        int from = 0;
        int to = text.length();
        if (to > room) {
            from = Math.max(0, Math.min(at - room / BEFORE, to - room));
            to = Math.min(text.length(), from + room);
        }
        String shown = (from > 0 ? CUT : "") + text.substring(from, to) + (to < text.length() ? CUT : "");
        if (!known) {
            return new SourceLine(shown, "");
        }
        int before = at - from + (from > 0 ? 1 : 0);
        int marked = Math.max(1, Math.min(length, to - at));
        return new SourceLine(shown, " ".repeat(before) + "^".repeat(marked));
    }

    /** Data goes to a terminal, which takes control characters as commands. */
    static String harmless(String text) {
        return text.replace('\t', ' ').replaceAll("\\p{Cntrl}", "\uFFFD");
    }
}
