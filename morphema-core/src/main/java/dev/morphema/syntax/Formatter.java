package dev.morphema.syntax;

import dev.morphema.problem.Problem;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Lays a mapping out in the one style: indentation, blanks and the equals signs of rules that stand
 * under one another. Lines end where the author ended them, and comments stay where they are. What
 * comes out means the same, and laid out again it is the same.
 */
public final class Formatter {
    private static final int STEP = 2;
    private static final int CONTINUED = 4;
    /** Further than so many characters no equals sign is moved. */
    private static final int MOST_ALIGNED = 30;

    /** Between statements on one line, and before a comment. */
    private static final String GAP = "  ";

    private static final Set<String> OPENING = Set.of("{", "(", "[");
    private static final Set<String> CLOSING = Set.of("}", ")", "]");
    private static final Set<String> SPACED = Set.of("=", "=>");

    private final SourceText source;
    private final Landmarks landmarks;
    private final List<Line> lines = new ArrayList<>();

    /** One line: tokens, and perhaps a comment behind them; without either it is blank. */
    private static final class Line {
        private final List<Token> tokens = new ArrayList<>();
        private String comment = "";
        private int indent;
        private String text = "";
        /** What kind of line it is, as long as its mark may be moved; and where that mark is. */
        private Aligned aligned = Aligned.NOT;

        private int mark;

        boolean isBlank() {
            return tokens.isEmpty() && comment.isEmpty();
        }
    }

    /** What stands in one column on lines that follow one another. */
    private enum Aligned {
        NOT,
        /** The equals sign of a field. */
        FIELD,
        /** The equals sign of a let. */
        LET,
        /** The type behind the colon. */
        TYPE
    }

    /** A bracket that is open, and the indentation of the line it stands on. */
    private record Bracket(int indent, boolean brace) {}

    private Formatter(SourceText source, MappingTree tree) {
        this.source = source;
        this.landmarks = new Landmarks(tree);
    }

    /**
     * What formatting gives.
     *
     * @param text the mapping in the one style; as it was if there are errors
     * @param problems of the text, which is only laid out if none is an error
     */
    public record Result(String text, List<Problem> problems) {
        public Result {
            problems = List.copyOf(problems);
        }
    }

    /** {@return a mapping in the one style} */
    public static Result format(SourceText source) {
        Parser.Result parsed = Parser.parse(source);
        if (parsed.problems().stream().anyMatch(Problem::isError)) {
            return new Result(source.text(), parsed.problems());
        }
        String text = new Formatter(source, parsed.tree()).formatted();
        Parser.Result again = Parser.parse(new SourceText(source.name(), text));
        if (!again.tree().equals(parsed.tree())) {
            throw new IllegalStateException("the layout would change the meaning of " + source.name());
        }
        return new Result(text, parsed.problems());
    }

    private String formatted() {
        cut();
        indent();
        align();
        alignComments();
        StringBuilder out = new StringBuilder();
        Line before = null;
        for (Line line : lines) {
            boolean superfluous = line.isBlank() && (before == null || before.isBlank() || opens(before));
            if (superfluous) {
                continue;
            }
            if (before != null && before.isBlank() && closes(line)) {
                out.setLength(out.length() - 1);
            }
            out.append((" ".repeat(line.isBlank() ? 0 : line.indent) + line.text + line.comment).stripTrailing())
                    .append('\n');
            before = line;
        }
        return out.toString().stripTrailing() + "\n";
    }

    private static boolean opens(Line line) {
        return !line.tokens.isEmpty() && OPENING.contains(symbol(line.tokens.get(line.tokens.size() - 1)));
    }

    private static boolean closes(Line line) {
        return !line.tokens.isEmpty() && CLOSING.contains(symbol(line.tokens.get(0)));
    }

    private static String symbol(Token token) {
        return token.kind() == Token.Kind.SYMBOL ? token.text() : "";
    }

    /** Cuts the text into lines of tokens and comments. */
    private void cut() {
        lines.add(new Line());
        int end = 0;
        for (Token token : new Lexer(source).tokens(problem -> {})) {
            gap(source.text().substring(end, token.span().start()));
            if (token.kind() != Token.Kind.END) {
                lines.get(lines.size() - 1).tokens.add(token);
            }
            end = token.span().end();
        }
    }

    private void gap(String between) {
        String[] parts = between.split("\n", -1);
        for (int i = 0; i < parts.length; i++) {
            if (i > 0) {
                lines.add(new Line());
            }
            int comment = parts[i].indexOf('#');
            if (comment >= 0) {
                lines.get(lines.size() - 1).comment =
                        parts[i].substring(comment).strip();
            }
        }
    }

    private void indent() {
        Deque<Bracket> open = new ArrayDeque<>();
        Map<Integer, Integer> columns = new HashMap<>();
        Set<Integer> begins = new HashSet<>();
        int statement = 0;
        for (Line line : lines) {
            if (line.tokens.isEmpty()) {
                line.indent = inner(open);
                continue;
            }
            Token first = line.tokens.get(0);
            int offset = first.span().start();
            int loop = landmarks.loopOf(offset);
            if (CLOSING.contains(symbol(first)) && !open.isEmpty()) {
                line.indent = open.peek().indent();
            } else if (loop >= 0 && columns.containsKey(loop)) {
                line.indent = begins.contains(loop) ? columns.get(loop) + CONTINUED : columns.get(loop);
            } else if (landmarks.isStatement(offset)
                    || lines.get(0) == line
                    || !open.isEmpty() && !open.peek().brace()) {
                line.indent = inner(open);
                statement = line.indent;
            } else {
                line.indent = statement + (first.isWord("else") ? 0 : CONTINUED);
            }
            if (landmarks.isStatement(offset) || closes(line)) {
                statement = line.indent;
            }
            begins.add(offset);
            write(line, columns);
            int around = open.isEmpty() || open.peek().brace() ? statement : line.indent;
            line.tokens.forEach(token -> bracket(token, around, open));
        }
        comments();
    }

    private static int inner(Deque<Bracket> open) {
        return open.isEmpty() ? 0 : open.peek().indent() + STEP;
    }

    private static void bracket(Token token, int indent, Deque<Bracket> open) {
        String symbol = symbol(token);
        if (OPENING.contains(symbol)) {
            open.push(new Bracket(indent, symbol.equals("{")));
        } else if (CLOSING.contains(symbol) && !open.isEmpty()) {
            open.pop();
        }
    }

    /** A comment of its own belongs to what follows. */
    private void comments() {
        int next = 0;
        for (int i = lines.size() - 1; i >= 0; i--) {
            Line line = lines.get(i);
            if (!line.tokens.isEmpty()) {
                next = closes(line) ? line.indent + STEP : line.indent;
            } else if (!line.comment.isEmpty()) {
                line.indent = next;
            }
        }
    }

    private void write(Line line, Map<Integer, Integer> columns) {
        StringBuilder text = new StringBuilder();
        Token before = null;
        boolean whole = landmarks.isStatement(line.tokens.get(0).span().start());
        for (int i = 0; i < line.tokens.size(); i++) {
            Token token = line.tokens.get(i);
            boolean colon = i + 1 < line.tokens.size()
                    && landmarks.isBehindColon(line.tokens.get(i + 1).span().start());
            if (before != null && !colon && isSpaced(before, token)) {
                text.append(isAnother(before, token) ? GAP : " ");
            }
            columns.put(token.span().start(), line.indent + text.length());
            if (whole && before != null && line.aligned == Aligned.NOT) {
                whole = !OPENING.contains(symbol(token)) && !token.isWord("for");
                mark(line, token, text.length());
            }
            text.append(token.span().text());
            before = token;
        }
        line.text = text.toString();
    }

    /** Notes where a line has what can be moved into the column of its neighbours. */
    private void mark(Line line, Token token, int at) {
        Token first = line.tokens.get(0);
        if (token.is("=")) {
            boolean let = first.isWord("let");
            line.aligned = let && line.indent == 0 ? Aligned.NOT : let ? Aligned.LET : Aligned.FIELD;
            line.mark = at;
        } else if (landmarks.isTypeBehind(token.span().start())) {
            line.aligned = Aligned.TYPE;
            line.mark = at;
        }
    }

    /** Whether another statement begins on the same line. */
    private boolean isAnother(Token before, Token token) {
        return landmarks.isStatement(token.span().start())
                && !OPENING.contains(symbol(before))
                && !before.isWord("else");
    }

    private boolean isSpaced(Token before, Token token) {
        String left = symbol(before);
        String right = symbol(token);
        boolean apart = !token.touches(before);
        boolean behind = landmarks.isOperator(before.span().start());
        boolean operator = behind
                || landmarks.isOperator(token.span().start())
                || landmarks.isBehindColon(token.span().start());
        if (left.equals("-") && !behind) {
            return false;
        }
        if (operator || SPACED.contains(left) || SPACED.contains(right) || left.equals("{") || right.equals("{")) {
            return true;
        }
        if (right.equals("}")) {
            return true;
        }
        if (left.equals("(") || left.equals("[") || right.equals(")") || right.equals("]") || right.equals(",")) {
            return false;
        }
        if (left.equals(",")) {
            return true;
        }
        return apart;
    }

    /** Puts the equals signs of rules on lines one under the other in one column. */
    private void align() {
        for (int i = 0; i + 1 < lines.size(); i++) {
            // What stands under a part of a line stays there.
            if (isContinued(lines.get(i + 1))) {
                lines.get(i).aligned = Aligned.NOT;
            }
        }
        int from = 0;
        while (from < lines.size()) {
            int to = from;
            while (to < lines.size() && isLike(lines.get(from), lines.get(to))) {
                to++;
            }
            align(lines.subList(from, to));
            from = Math.max(to, from + 1);
        }
    }

    /** Puts comments behind lines that follow one another in one column. */
    private void alignComments() {
        int from = 0;
        while (from < lines.size()) {
            int to = from;
            int column = 0;
            while (to < lines.size()
                    && !lines.get(to).comment.isEmpty()
                    && !lines.get(to).text.isEmpty()) {
                column = Math.max(
                        column, lines.get(to).indent + lines.get(to).text.length());
                to++;
            }
            for (Line line : lines.subList(from, to)) {
                line.comment = " ".repeat(column - line.indent - line.text.length()) + GAP + line.comment;
            }
            from = Math.max(to, from + 1);
        }
    }

    private boolean isContinued(Line next) {
        return !next.tokens.isEmpty()
                && !closes(next)
                && !landmarks.isStatement(next.tokens.get(0).span().start());
    }

    private static boolean isLike(Line first, Line line) {
        return line.aligned != Aligned.NOT && line.aligned == first.aligned && line.indent == first.indent;
    }

    private static void align(List<Line> alike) {
        int column = alike.stream()
                .mapToInt(line -> line.mark)
                .filter(at -> at <= MOST_ALIGNED)
                .max()
                .orElse(0);
        for (Line line : alike) {
            if (line.mark < column) {
                String more = " ".repeat(column - line.mark);
                line.text = line.text.substring(0, line.mark) + more + line.text.substring(line.mark);
            }
        }
    }
}
