package dev.morphema.format;

import dev.morphema.problem.InputLocation;
import java.util.Comparator;
import java.util.NavigableSet;
import java.util.TreeSet;

/**
 * The text of a document some parts of which are written anew, while all others stay as they are to
 * the last blank. Not thread-safe.
 */
public final class EditedText {
    private record Edit(int from, int to, String by) {}

    private final String name;
    private final String text;
    private final NavigableSet<Edit> edits = new TreeSet<>(Comparator.comparingInt(Edit::from));

    /** @param name of the document, for problems */
    public EditedText(String name, String text) {
        this.name = name;
        this.text = text;
    }

    /** {@return the text as it was} */
    public String text() {
        return text;
    }

    /** {@return what ends its lines: that of the first, or a line feed} */
    public String lineEnd() {
        int feed = text.indexOf('\n');
        return feed > 0 && text.charAt(feed - 1) == '\r' ? "\r\n" : "\n";
    }

    /** {@return the blanks and tabs that the line of a place begins with} */
    public String indent(int place) {
        int from = text.lastIndexOf('\n', place - 1) + 1;
        int to = from;
        while (to < text.length() && (text.charAt(to) == ' ' || text.charAt(to) == '\t')) {
            to++;
        }
        return text.substring(from, to);
    }

    /** {@return where the line of a place ends, before its line end} */
    public int endOfLine(int place) {
        int feed = text.indexOf('\n', place);
        int end = feed < 0 ? text.length() : feed;
        return end > place && text.charAt(end - 1) == '\r' ? end - 1 : end;
    }

    /** {@return the line and column of a place} */
    public InputLocation location(int place) {
        int line = 1
                + (int) text.substring(0, place).chars().filter(c -> c == '\n').count();
        int column = text.codePointCount(text.lastIndexOf('\n', place - 1) + 1, place) + 1;
        return InputLocation.at(name, line, column);
    }

    /** A part, which may be empty, is written anew; no two parts begin at the same place. */
    public void replace(int from, int to, String by) {
        if (!edits.add(new Edit(from, to, by))) {
            throw new IllegalArgumentException("two edits at " + from);
        }
    }

    /** {@return the text as it has become} */
    public String result() {
        StringBuilder result = new StringBuilder(text);
        for (Edit edit : edits.descendingSet()) {
            result.replace(edit.from(), edit.to(), edit.by());
        }
        return result.toString();
    }
}
