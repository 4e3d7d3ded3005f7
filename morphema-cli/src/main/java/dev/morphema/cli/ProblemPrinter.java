package dev.morphema.cli;

import dev.morphema.problem.Area;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import java.io.PrintWriter;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Prints problems for people: a sentence, the place in the mapping and the place in the input with
 * their lines, the value and what to do; and how many there are.
 */
final class ProblemPrinter {
    private static final int MOST_VALUE = 80;
    private static final int MOST_OF_A_KIND = 5;
    private static final String BAR = "         | ";
    private static final String INDENT = "         ";
    /** Where there is no terminal a line is cut only if it is very long. */
    private static final int ROOM = 160;

    private final PrintWriter out;
    private final boolean values;
    private final boolean colours;
    private final int width;

    /**
     * @param values whether data may be shown
     * @param colours whether the place where it is shown has colours
     * @param width how many columns it has; 0 if that is not known
     */
    ProblemPrinter(PrintWriter out, boolean values, boolean colours, int width) {
        this.out = out;
        this.values = values;
        this.colours = colours;
        this.width = width;
    }

    /**
     * Prints all problems, and how many they are; of many of the same kind at the same rule, only
     * the first few.
     */
    void print(List<Problem> problems) {
        printEach(problems);
        if (!problems.isEmpty()) {
            out.println();
            out.println(counted(problems));
        }
    }

    /** Prints all problems without a count. */
    void printEach(List<Problem> problems) {
        printEach(problems, Map.of());
    }

    /**
     * Prints the first problems of a run without a count.
     *
     * @param kinds how many there are of each kind, without the value and the place in an input
     */
    void printEach(List<Problem> problems, Map<Problem, Long> kinds) {
        boolean first = true;
        for (int i = 0; i < problems.size(); i++) {
            Problem problem = problems.get(i);
            long before = problems.subList(0, i).stream()
                    .filter(p -> alike(p, problem))
                    .count();
            if (before < MOST_OF_A_KIND) {
                if (!first) {
                    out.println();
                }
                first = false;
                print(problem);
            } else if (before == MOST_OF_A_KIND) {
                long listed = problems.stream().filter(p -> alike(p, problem)).count();
                long all = kinds.getOrDefault(problem.withValue(null).in(null), listed);
                out.println("… and " + Account.grouped(all - MOST_OF_A_KIND) + " more like this");
            }
        }
    }

    /** {@return how many errors and warnings there are, in words} */
    static String counted(List<Problem> problems) {
        long errors = problems.stream().filter(Problem::isError).count();
        return counted(errors, problems.size() - errors);
    }

    /** {@return some numbers of errors and warnings, in words} */
    static String counted(long errors, long warnings) {
        String counts = counted(errors, "error");
        String more = counted(warnings, "warning");
        return counts.isEmpty() || more.isEmpty() ? counts + more : counts + ", " + more;
    }

    private static String counted(long count, String what) {
        return count == 0 ? "" : Account.counted(count, what);
    }

    private static boolean alike(Problem a, Problem b) {
        return a.code() == b.code()
                && a.message().equals(b.message())
                && Objects.equals(a.rule(), b.rule())
                && a.input() != null;
    }

    private void print(Problem problem) {
        String head = problem.isError() ? "error: " : "warning: ";
        Colour colour = problem.isError() ? Colour.ERROR : Colour.WARNING;
        String sentence = sentence(problem) + " [" + problem.code().printed() + "]";
        out.println(colour.of(head, colours) + wrapped(sentence, head.length(), "  "));
        rule(problem.rule(), colour);
        input(problem, colour);
        if (problem.value() != null && values && !speaks(problem)) {
            out.println("  value: " + shown(problem.value()));
        }
        if (problem.help() != null) {
            out.println(Colour.HELP.of("  try:   ", colours)
                    + Colour.HELP.of(wrapped(problem.help(), INDENT.length(), INDENT), colours));
        }
    }

    private String shown(String value) {
        return value.isBlank() ? '"' + SourceLine.harmless(value) + "\" (blank)" : cut(value);
    }

    /** What the author of the mapping wrote for this case says more than any sentence of ours. */
    private String sentence(Problem problem) {
        return values && speaks(problem) ? cut(String.valueOf(problem.value())) : problem.message();
    }

    private static boolean speaks(Problem problem) {
        return (problem.code() == Code.FAILED || problem.code() == Code.REQUIREMENT)
                && problem.value() != null
                && !problem.value().isBlank();
    }

    private void rule(@Nullable RuleLocation rule, Colour mark) {
        if (rule != null) {
            out.println("  rule:  " + rule);
            boolean tooLong = rule.text().isEmpty() && rule.column() > 1;
            if (!tooLong) {
                line(rule.text(), rule.column(), rule.length(), mark);
            }
        }
    }

    /** Of a mistake in the mapping the place shows what a sample or schema has instead. */
    private void input(Problem problem, Colour mark) {
        InputLocation input = problem.input();
        if (input != null) {
            boolean shows = problem.rule() != null && problem.code().area() == Area.MAPPING && input.text() == null;
            out.println((shows ? "  see:   " : "  input: ") + input);
            if (input.text() != null && values) {
                line(input.text(), input.shownColumn(), 1, mark);
            }
        }
    }

    private void line(String text, int column, int length, Colour mark) {
        int room = width > 0 ? Math.min(ROOM, width - BAR.length() - 2) : ROOM;
        SourceLine line = SourceLine.of(text, column, length, room);
        out.println(Colour.FAINT.of(BAR, colours) + line.text());
        if (!line.caret().isEmpty()) {
            out.println(Colour.FAINT.of(BAR, colours) + mark.of(line.caret(), colours));
        }
    }

    /** Breaks a text between words where it would not fit. */
    private String wrapped(String text, int column, String indent) {
        if (width == 0 || column + text.length() <= width) {
            return text;
        }
        StringBuilder lines = new StringBuilder();
        int at = column;
        for (String word : text.split(" ")) {
            if (lines.length() > 0 && at + 1 + word.length() > width) {
                lines.append(System.lineSeparator()).append(indent);
                at = indent.length();
            } else if (lines.length() > 0) {
                lines.append(' ');
                at++;
            }
            lines.append(word);
            at += word.length();
        }
        return lines.toString();
    }

    private static String cut(String value) {
        String line = SourceLine.harmless(
                value.replace("\r", "\\r").replace("\n", "\\n").replace("\t", "\\t"));
        return line.length() <= MOST_VALUE ? line : line.substring(0, MOST_VALUE) + "…";
    }
}
