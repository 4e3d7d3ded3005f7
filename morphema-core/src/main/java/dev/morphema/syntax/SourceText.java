package dev.morphema.syntax;

import dev.morphema.problem.RuleLocation;
import java.util.Arrays;

/** A text with its name, which knows where its lines begin. Immutable. */
public final class SourceText {
    private static final int MOST_OF_LINE = 10_000;

    private final String name;
    private final String text;
    private final int[] lineStarts;

    /**
     * @param name what problems call it, usually the file
     * @param text the whole text; a byte order mark at its start is dropped
     */
    public SourceText(String name, String text) {
        this.name = name;
        this.text = text.startsWith("\uFEFF") ? text.substring(1) : text;
        this.lineStarts = lineStarts(this.text);
    }

    private static int[] lineStarts(String text) {
        int[] starts = new int[16];
        int count = 1;
        for (int i = 0; i < text.length(); i++) {
            if (text.charAt(i) == '\n') {
                if (count == starts.length) {
                    starts = Arrays.copyOf(starts, count * 2);
                }
                starts[count++] = i + 1;
            }
        }
        return Arrays.copyOf(starts, count);
    }

    /** {@return the name} */
    public String name() {
        return name;
    }

    /** {@return the whole text} */
    public String text() {
        return text;
    }

    /** {@return the line of an offset, counted from 1} */
    public int line(int offset) {
        int found = Arrays.binarySearch(lineStarts, offset);
        return found >= 0 ? found + 1 : -found - 1;
    }

    /** {@return how many characters of white space the line begins with; a tab counts as four} */
    int indent(int line) {
        int indent = 0;
        for (int i = lineStarts[line - 1]; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == ' ') {
                indent++;
            } else if (c == '\t') {
                indent += 4;
            } else {
                break;
            }
        }
        return indent;
    }

    /** {@return the line's text, without its end} */
    String lineText(int line) {
        int from = lineStarts[line - 1];
        int to = line < lineStarts.length ? lineStarts[line] - 1 : text.length();
        if (to > from && text.charAt(to - 1) == '\r') {
            to--;
        }
        return text.substring(from, to);
    }

    /**
     * {@return the place of a part of the text; a part over several lines is marked on its first}
     */
    RuleLocation location(int start, int end) {
        int line = line(start);
        int from = lineStarts[line - 1];
        String lineText = lineText(line);
        if (lineText.length() > MOST_OF_LINE) {
            // A part of it would be at another place, and all of it nobody reads.
            return new RuleLocation(name, line, start - from + 1, 1, "");
        }
        int markFrom = Math.min(start - from, lineText.length());
        int markTo = Math.min(Math.max(end - from, markFrom), lineText.length());
        return new RuleLocation(
                name,
                line,
                lineText.codePointCount(0, markFrom) + 1,
                Math.max(1, lineText.codePointCount(markFrom, markTo)),
                lineText);
    }
}
