package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Turns the text of a mapping into its tree. Recursive descent with at most three tokens of look-ahead, a method a rule
 * of the grammar. After a fault it goes on with the next statement, so that one look shows several problems.
 */
public final class Parser {
    /** More problems of one text help nobody. */
    private static final int MOST_PROBLEMS = 50;

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

    /** {@return the tree of a text, with the problems that were met; the tree is whole only if there are none} */
    public static Result parse(SourceText source) {
        List<Problem> problems = new ArrayList<>();
        Consumer<Problem> found = problems::add;
        List<Token> tokens = new Lexer(source).tokens(found);
        List<Token> balanced = Braces.balanced(tokens, found);
        Cursor cursor = new Cursor(balanced, found, 0);
        Grammar grammar = new Grammar(cursor);
        List<Decl> declarations = new DeclarationParser(grammar).declarations();
        if (declarations.isEmpty()) {
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
        return new Result(new MappingTree(source, declarations, grammar.steps), shown);
    }

    /** A text that is not closed hides the rest of its line, so that braces do not balance either. */
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
