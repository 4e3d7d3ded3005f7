package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.Consumer;

/**
 * Finds the brace that is missing, or one too many, by the way the lines are indented. Layout has
 * no meaning in the language; it is evidence only where the braces do not balance. The parser then
 * gets tokens that do.
 */
final class Braces {
    /**
     * A block that is open.
     *
     * @param opener its brace
     * @param content how far its content is indented; a line that starts further left has left the
     *     block
     */
    private record Open(Token opener, int content) {}

    private final Consumer<Problem> problems;
    private final Deque<Open> open = new ArrayDeque<>();
    private final List<Token> out = new ArrayList<>();

    private Braces(Consumer<Problem> problems) {
        this.problems = problems;
    }

    /** {@return the tokens with balanced braces} */
    static List<Token> balanced(List<Token> tokens, Consumer<Problem> problems) {
        int balance = 0;
        boolean ordered = true;
        for (Token token : tokens) {
            balance += token.is("{") ? 1 : token.is("}") ? -1 : 0;
            ordered &= balance >= 0;
        }
        if (balance == 0 && ordered) {
            return tokens;
        }
        Braces braces = new Braces(problems);
        return balance > 0 ? braces.withMissing(tokens) : braces.withoutExtra(tokens);
    }

    private List<Token> withMissing(List<Token> tokens) {
        for (int i = 0; i < tokens.size(); i++) {
            Token token = tokens.get(i);
            if (token.kind() == Token.Kind.END) {
                while (!open.isEmpty()) {
                    closeMissing(token);
                }
            } else if (token.firstOnLine()) {
                closeWhatTheLineHasLeft(token);
            }
            if (token.is("{")) {
                open.push(new Open(token, contentIndent(token, tokens.get(i + 1))));
            } else if (token.is("}") && !open.isEmpty()) {
                open.pop();
            }
            out.add(token);
        }
        return out;
    }

    private void closeWhatTheLineHasLeft(Token token) {
        int indent = indent(token);
        if (token.is("}")) {
            // A closing brace stands below the statement it closes, which is content of the block
            // around it.
            while (open.size() > 1 && indent < contentAround()) {
                closeMissing(token);
            }
        } else {
            while (!open.isEmpty() && indent < open.peek().content()) {
                closeMissing(token);
            }
        }
    }

    private int contentAround() {
        return open.stream().skip(1).findFirst().orElseThrow().content();
    }

    private int contentIndent(Token opener, Token next) {
        int around = open.isEmpty() ? 0 : open.peek().content();
        int least = around + 1;
        if (next.firstOnLine() && !next.is("}")) {
            return Math.max(least, indent(next));
        }
        return Math.max(least, next.firstOnLine() ? 0 : indent(opener) + 1);
    }

    private void closeMissing(Token before) {
        Token opener = open.pop().opener();
        problems.accept(opener.span()
                .error(Code.MISSING_BRACE, "The block that is opened here is never closed.")
                .withHelp("a } is missing, as the indentation tells before line "
                        + before.span().line()));
        Span place = new Span(
                before.span().source(), before.span().start(), before.span().start());
        out.add(new Token(Token.Kind.SYMBOL, "}", List.of(), place, false));
    }

    private List<Token> withoutExtra(List<Token> tokens) {
        for (Token token : tokens) {
            boolean extra = false;
            if (token.is("{")) {
                int around = open.isEmpty() ? 0 : open.peek().content();
                open.push(new Open(token, around + 1));
            } else if (token.is("}")) {
                extra = open.isEmpty()
                        || token.firstOnLine()
                                && indent(token) > indent(open.peek().opener());
                if (extra) {
                    problems.accept(token.span()
                            .error(Code.EXTRA_BRACE, "This } has no matching {.")
                            .withHelp("take it away, or look for a { that is missing above"));
                } else {
                    open.pop();
                }
            }
            if (!extra) {
                out.add(token);
            }
        }
        return out.stream().filter(t -> t.is("{")).count()
                        == out.stream().filter(t -> t.is("}")).count()
                ? out
                : new Braces(problem -> {}).withMissing(out);
    }

    private static int indent(Token token) {
        return token.span().source().indent(token.span().line());
    }
}
