package dev.morphema.cli;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import java.io.PrintWriter;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Prints problems for people: a sentence, the place in the mapping and the place in the input with their lines, the
 * value and what to do.
 */
final class ProblemPrinter {
    private static final int MOST_VALUE = 80;
    private static final int MOST_OF_A_KIND = 5;

    private final PrintWriter out;
    private final boolean values;

    /** @param values whether data may be shown */
    ProblemPrinter(PrintWriter out, boolean values) {
        this.out = out;
        this.values = values;
    }

    /** Prints all problems; of many of the same kind at the same rule, the first few and how many more there are. */
    void print(List<Problem> problems) {
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
                long more = problems.stream().filter(p -> alike(p, problem)).count() - MOST_OF_A_KIND;
                out.println("… and " + more + " more like this");
            }
        }
    }

    private static boolean alike(Problem a, Problem b) {
        return a.code() == b.code()
                && a.message().equals(b.message())
                && Objects.equals(a.rule(), b.rule())
                && a.input() != null;
    }

    private void print(Problem problem) {
        out.println((problem.isError() ? "error: " : "warning: ") + sentence(problem) + " ["
                + problem.code().printed() + "]");
        rule(problem.rule());
        input(problem.input());
        if (problem.value() != null && values && !speaks(problem)) {
            out.println("  value: " + cut(problem.value()));
        }
        if (problem.help() != null) {
            out.println("  try:   " + problem.help());
        }
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

    private void rule(@Nullable RuleLocation rule) {
        if (rule != null) {
            out.println("  rule:  " + rule);
            line(rule.text(), rule.column(), rule.length());
        }
    }

    private void input(@Nullable InputLocation input) {
        if (input != null) {
            out.println("  input: " + input);
            if (input.text() != null && values) {
                boolean whole = !input.text().startsWith("…");
                line(input.text(), whole ? input.column() : 0, 1);
            }
        }
    }

    private void line(String text, int column, int length) {
        out.println("         | " + harmless(text));
        if (column > 0 && column <= text.length() + 1) {
            out.println("         | " + " ".repeat(column - 1) + "^".repeat(Math.max(1, length)));
        }
    }

    /** Data goes to a terminal, which takes control characters as commands. */
    private static String harmless(String text) {
        return text.replace('\t', ' ').replaceAll("\\p{Cntrl}", "\uFFFD");
    }

    private static String cut(String value) {
        String line = harmless(value.replace("\r", "\\r").replace("\n", "\\n").replace("\t", "\\t"));
        return line.length() <= MOST_VALUE ? line : line.substring(0, MOST_VALUE) + "…";
    }
}
