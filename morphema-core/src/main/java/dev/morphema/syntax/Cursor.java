package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;

/** Goes through the tokens; knows how to complain about the one at hand. */
final class Cursor {
    /**
     * Blocks and expressions inside each other; deeper is refused, long before Java's stack ends.
     */
    private static final int MOST_DEEP = 200;

    private final List<Token> tokens;
    private final Consumer<Problem> problems;
    private int at;
    private int depth;

    Cursor(List<Token> tokens, Consumer<Problem> problems, int depth) {
        this.tokens = tokens;
        this.problems = problems;
        this.depth = depth;
    }

    /** {@return a cursor for the tokens of an expression in a template} */
    Cursor nested(List<Token> embedded) {
        return new Cursor(embedded, problems, depth);
    }

    Token peek() {
        return tokens.get(at);
    }

    Token peek(int ahead) {
        return tokens.get(Math.min(at + ahead, tokens.size() - 1));
    }

    Token last() {
        return tokens.get(Math.max(0, at - 1));
    }

    Token next() {
        Token token = peek();
        if (at < tokens.size() - 1) {
            at++;
        }
        return token;
    }

    boolean atEnd() {
        return peek().kind() == Token.Kind.END;
    }

    boolean at(String symbol) {
        return peek().is(symbol);
    }

    boolean atWord(String word) {
        return peek().isWord(word);
    }

    boolean accept(String symbol) {
        if (at(symbol)) {
            next();
            return true;
        }
        return false;
    }

    boolean acceptWord(String word) {
        if (atWord(word)) {
            next();
            return true;
        }
        return false;
    }

    Token expect(String symbol, String purpose) {
        if (at(symbol)) {
            return next();
        }
        throw unexpected(symbol + " " + purpose);
    }

    void expectWord(String word, String purpose) {
        if (!acceptWord(word)) {
            throw unexpected(word + " " + purpose);
        }
    }

    /** A closing bracket; when it is missing, the fault is where the opening one stands. */
    void expectClosing(String symbol, Token opener) {
        if (accept(symbol)) {
            return;
        }
        if (isRuleMark()) {
            // «a = sum(x» on one line and «b = 1» on the next: the bracket is what is missing.
            at--;
        }
        if (peek().firstOnLine() || atEnd() || at("}") || at("{")) {
            throw new SyntaxFault(opener.span()
                    .error(Code.SYNTAX, "The " + opener.text() + " that is opened here is never closed.")
                    .withHelp("a " + symbol + " is missing before line "
                            + peek().span().line()));
        }
        throw unexpected("a comma or " + symbol);
    }

    Name expectName(String purpose) {
        if (peek().kind() != Token.Kind.NAME) {
            throw unexpected("a name " + purpose);
        }
        Token token = next();
        return new Name(token.span(), null, token.text());
    }

    /** A name as data has it: a word, {@code prefix:word} or a quoted name. */
    Name expectFieldName(String purpose) {
        return expectFieldName(purpose, false);
    }

    /** A name as data has it, in a path behind which there must be a colon and a type. */
    Name expectTypedName(String purpose) {
        return expectFieldName(purpose, true);
    }

    private Name expectFieldName(String purpose, boolean typed) {
        Token token = peek();
        if (token.kind() == Token.Kind.RAW) {
            next();
            return new Name(token.span(), null, token.text());
        }
        Name name = expectName(purpose);
        if (atQualified(token) && (!typed || peek(2).is(":") || peek(2).is("."))) {
            next();
            Token local = next();
            return new Name(name.span().to(local.span()), name.text(), local.text());
        }
        return name;
    }

    /**
     * Whether the cursor stands at the colon of {@code prefix:name}, without blanks; a type has one
     * before it.
     */
    private boolean atQualified(Token prefix) {
        return at(":") && peek().touches(prefix) && peek(1).kind() == Token.Kind.NAME && peek(1).touches(peek());
    }

    /**
     * Whether the word at hand is a field's name, since a mark that only follows a name comes next.
     */
    boolean wordIsFieldName() {
        Token after = peek(1);
        return after.is("=") || after.is("!") || after.is("?") || after.is(":") || after.is("!=");
    }

    /** Whether the word at hand joins two expressions, and is not the name of the next field. */
    boolean atInfix(String word) {
        return atWord(word) && !wordIsFieldName() && !peek(1).is("{");
    }

    /**
     * Whether the cursor is at an {@code =} whose name begins its line: then a rule begins there.
     */
    boolean isRuleMark() {
        return at("=") && at > 0 && last().kind() == Token.Kind.NAME && last().firstOnLine();
    }

    /** {@return a fault: something else was expected than the token at hand} */
    SyntaxFault unexpected(String expected) {
        if (isRuleMark() && at > 1) {
            at--;
            Token before = last();
            return new SyntaxFault(before.span()
                    .error(Code.SYNTAX, "The rule on this line is not complete: expected " + expected + ".")
                    .withHelp("the next rule begins on line " + peek().span().line()));
        }
        Token token = peek();
        Problem slip = at > 0 ? Slips.found(last(), token, peek(1)) : null;
        if (slip != null) {
            return new SyntaxFault(slip);
        }
        if (token.firstOnLine() && at > 0 && token.kind() != Token.Kind.END || token.is("}") || atEnd()) {
            Token before = last();
            Span place = new Span(
                    before.span().source(),
                    Math.max(before.span().start(), before.span().end() - 1),
                    before.span().end());
            return new SyntaxFault(
                    place.error(Code.SYNTAX, "Expected " + expected + " after this, found " + found(token) + "."));
        }
        return new SyntaxFault(
                token.span().error(Code.SYNTAX, "Expected " + expected + ", found " + token.words() + "."));
    }

    private String found(Token token) {
        return token.is("}") || token.kind() == Token.Kind.END
                ? token.words()
                : token.words() + " on line " + token.span().line();
    }

    /** {@return a fault that points at one place} */
    static SyntaxFault fault(Span span, String message, String help) {
        return new SyntaxFault(span.error(Code.SYNTAX, message).withHelp(help));
    }

    void report(Problem problem) {
        problems.accept(problem);
    }

    void enter() {
        if (++depth > MOST_DEEP) {
            throw new SyntaxFault(peek().span()
                    .error(
                            Code.TOO_DEEP,
                            "Blocks and expressions stand more than " + MOST_DEEP + " deep inside each other.")
                    .withHelp("move an inner part into a let or a define"));
        }
    }

    void leave() {
        depth--;
    }

    int depth() {
        return depth;
    }

    void depth(int before) {
        depth = before;
    }

    /**
     * After a fault: goes on to the next statement of the block at hand, or to the brace that
     * closes it.
     *
     * @param first the token the faulty statement began with
     */
    void skipStatement(Token first) {
        SourceText source = first.span().source();
        int indent = source.indent(first.span().line());
        int braces = 0;
        while (!atEnd()) {
            Token token = peek();
            boolean moved = token.span().start() > first.span().start();
            if (braces == 0 && token.is("}")) {
                return;
            }
            if (braces == 0
                    && moved
                    && token.firstOnLine()
                    && source.indent(token.span().line()) <= indent
                    && !token.is("{")) {
                return;
            }
            braces += token.is("{") ? 1 : token.is("}") ? -1 : 0;
            next();
        }
    }

    /** After a fault in a loop: goes on to what it repeats, or to the end of the statement. */
    void skipToBlock(Token first) {
        SourceText source = first.span().source();
        int indent = source.indent(first.span().line());
        while (!atEnd() && !at("{") && !at("=>") && !at("}")) {
            Token token = peek();
            boolean moved = token.span().start() > first.span().start();
            if (moved && token.firstOnLine() && source.indent(token.span().line()) <= indent) {
                return;
            }
            next();
        }
    }

    /** After a fault at the top level: goes on to the next declaration. */
    void skipDeclaration(Set<String> keywords, Token first) {
        int braces = 0;
        while (!atEnd()) {
            Token token = peek();
            boolean moved = token.span().start() > first.span().start();
            if (moved && token.firstOnLine() && braces <= 0 && keywords.contains(token.text())) {
                return;
            }
            braces += token.is("{") ? 1 : token.is("}") ? -1 : 0;
            next();
        }
    }
}
