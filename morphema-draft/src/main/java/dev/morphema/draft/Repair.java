package dev.morphema.draft;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.samples.Difference;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Takes back rules that the check refuses, or that fail with the samples: what was found out by
 * looking at values is tried as it will run.
 */
final class Repair {
    private static final int MOST_TRIES = 30;
    private static final Pattern RULE =
            Pattern.compile("(\\s*@?(?:\\S+?|'[^']*'))(?:: [a-z]+(?:\\([^)]*\\))?)?\\?? = (.*?)(?:  # .*)?");

    private String statements;
    private @Nullable List<Difference> differences;
    private int takenBack;

    /**
     * @param statements of the draft, one a line
     * @param whole makes a mapping of them
     * @param trial tries it, and gives where it differs from what is expected
     */
    Repair(String statements, Function<String, String> whole, Function<String, List<Difference>> trial) {
        this.statements = statements;
        for (int i = 0; i < MOST_TRIES && differences == null; i++) {
            String text = whole.apply(this.statements);
            try {
                differences = trial.apply(text);
            } catch (ProblemException e) {
                if (!takeBack(e.problems(), text)) {
                    return;
                }
            }
        }
    }

    private boolean takeBack(List<Problem> problems, String text) {
        List<String> lines = text.lines().toList();
        Set<String> wrong = new TreeSet<>();
        for (Problem problem : problems) {
            if (problem.isError() && problem.rule() != null && problem.rule().line() <= lines.size()) {
                wrong.add(lines.get(problem.rule().line() - 1));
            }
        }
        StringBuilder out = new StringBuilder();
        boolean any = false;
        for (String line : statements.lines().toList()) {
            Matcher rule = RULE.matcher(line);
            if (wrong.contains(line) && rule.matches() && !rule.group(2).startsWith("todo(")) {
                out.append(rule.group(1))
                        .append(" = todo(")
                        .append(Texts.quoted("not by " + rule.group(2)))
                        .append(")\n");
                takenBack++;
                any = true;
            } else {
                out.append(line).append('\n');
            }
        }
        statements = out.toString();
        return any;
    }

    /** {@return the statements, of which some may be still to be written} */
    String statements() {
        return statements;
    }

    /** {@return how many rules were taken back} */
    int takenBack() {
        return takenBack;
    }

    /** {@return where the draft differs from what is expected; null if it does not run} */
    @Nullable
    List<Difference> differences() {
        return differences;
    }
}
