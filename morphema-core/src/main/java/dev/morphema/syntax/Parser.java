package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Turns the text of a mapping into its tree. Recursive descent with at most three tokens of
 * look-ahead, a method a rule of the grammar. After a fault it goes on with the next statement, so
 * that one look shows several problems.
 */
public final class Parser {
    /** More problems of one text help nobody. */
    private static final int MOST_PROBLEMS = 50;

    /** With so many problems a text is read no further. */
    private static final int TOO_MANY_PROBLEMS = 1_000;

    private Parser() {}

    /**
     * What parsing gives.
     *
     * @param tree what could be understood
     * @param problems in the order of the text
     */
    public record Result(MappingTree tree, List<Problem> problems) {
        public Result {
            problems = List.copyOf(problems);
        }
    }

    /**
     * {@return the tree of a text, with the problems that were met; the tree is whole only if there
     * are none}
     */
    public static Result parse(SourceText source) {
        List<Problem> problems = new ArrayList<>();
        MappingTree tree;
        try {
            tree = tree(source, problem -> {
                problems.add(problem);
                if (problems.size() >= TOO_MANY_PROBLEMS) {
                    throw new TooMany();
                }
            });
        } catch (TooMany e) {
            tree = new MappingTree(source, List.of(), Set.of());
        }
        if (tree.declarations().isEmpty()) {
            // A text that is no mapping at all is wrong in one way, not in every word.
            List<Problem> ofVersion = problems.stream()
                    .filter(problem -> problem.code() == Code.VERSION)
                    .toList();
            problems.removeIf(problem -> !ofVersion.isEmpty() && !ofVersion.contains(problem));
        }
        dropConsequences(problems);
        problems.sort((a, b) -> {
            int byLine = Integer.compare(line(a), line(b));
            return byLine != 0 ? byLine : Integer.compare(column(a), column(b));
        });
        List<Problem> shown = problems.size() > MOST_PROBLEMS ? problems.subList(0, MOST_PROBLEMS) : problems;
        return new Result(tree, shown);
    }

    private static MappingTree tree(SourceText source, Consumer<Problem> problems) {
        List<Token> tokens = new Lexer(source).tokens(problems);
        Grammar grammar = new Grammar(new Cursor(Braces.balanced(tokens, problems), problems, 0));
        return new MappingTree(source, new DeclarationParser(grammar).declarations(), grammar.steps);
    }

    /** Ends the reading of a text that is no mapping. */
    private static final class TooMany extends RuntimeException {
        private static final long serialVersionUID = 1L;

        TooMany() {
            super(null, null, false, false);
        }
    }

    /**
     * A text that is not closed hides the rest of its line, so that braces do not balance either.
     */
    private static void dropConsequences(List<Problem> problems) {
        Set<Integer> open = new HashSet<>();
        for (Problem problem : problems) {
            if (problem.code() == Code.OPEN_TEXT) {
                open.add(line(problem));
            }
        }
        problems.removeIf(problem -> !open.isEmpty()
                && problem.code() != Code.OPEN_TEXT
                && (open.contains(line(problem))
                        || problem.code() == Code.MISSING_BRACE
                        || problem.code() == Code.EXTRA_BRACE));
    }

    private static int line(Problem problem) {
        return problem.rule() == null ? 0 : problem.rule().line();
    }

    private static int column(Problem problem) {
        return problem.rule() == null ? 0 : problem.rule().column();
    }
}
