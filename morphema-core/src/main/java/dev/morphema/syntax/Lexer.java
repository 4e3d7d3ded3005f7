package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Cuts the text of a mapping into tokens. A template becomes one token that holds the tokens of its
 * expressions. After a fault it goes on, at the latest on the next line, since no text crosses a
 * line.
 */
final class Lexer {
    private static final String[] SYMBOLS = {
        "==", "!=", "<=", ">=", "=>", "??", "{", "}", "(", ")", "[", "]", ",", ".", ":", "=", "<", ">", "+", "-", "*",
        "/", "%", "?", "!", "@"
    };

    /** Templates in templates in templates; deeper is refused. */
    private static final int MOST_NESTED = 20;

    private final SourceText source;
    private final String text;
    private final List<Problem> problems = new ArrayList<>();
    private int at;
    private int nesting;
    /** Whether the text at hand was found to be open by a brace in it. */
    private boolean broken;

    Lexer(SourceText source) {
        this.source = source;
        this.text = source.text();
    }

    /**
     * {@return all tokens}; what was wrong with them is told afterwards, in the order in which it
     * was found.
     */
    List<Token> tokens(Consumer<Problem> told) {
        List<Token> tokens = tokens();
        problems.forEach(told);
        return tokens;
    }

    private List<Token> tokens() {
        List<Token> out = new ArrayList<>();
        while (true) {
            Token token = next(out.isEmpty());
            if (token == null) {
                continue;
            }
            out.add(token);
            if (token.kind() == Token.Kind.END) {
                return out;
            }
        }
    }

    /** Reads one token; null where there was only a fault. */
    private @Nullable Token next(boolean firstOfAll) {
        boolean newLine = skipBlanks() || firstOfAll;
        if (at >= text.length()) {
            return token(Token.Kind.END, "", List.of(), text.length(), newLine);
        }
        int start = at;
        int c = text.codePointAt(at);
        if (isNameStart(c)) {
            return token(Token.Kind.NAME, name(), List.of(), start, newLine);
        }
        if (c >= '0' && c <= '9') {
            String number = number();
            boolean odd = number.codePoints().anyMatch(Lexer::isNameStart);
            return token(odd ? Token.Kind.NAME : Token.Kind.NUMBER, number, List.of(), start, newLine);
        }
        if (c == '\'') {
            return token(Token.Kind.RAW, raw(), List.of(), start, newLine);
        }
        if (c == '"') {
            return token(Token.Kind.TEXT, "", template(), start, newLine);
        }
        for (String symbol : SYMBOLS) {
            if (text.startsWith(symbol, at)) {
                at += symbol.length();
                return token(Token.Kind.SYMBOL, symbol, List.of(), start, newLine);
            }
        }
        at += Character.charCount(c);
        if (c == '&' || c == '|') {
            at += text.startsWith(Character.toString(c), at) ? 1 : 0;
            unexpected(start, c);
            // What was most likely meant, so that nothing else looks wrong.
            return token(Token.Kind.NAME, c == '&' ? "and" : "or", List.of(), start, newLine);
        }
        unexpected(start, c);
        return null;
    }

    private void unexpected(int start, int c) {
        Problem problem = span(start)
                .error(Code.UNEXPECTED_CHARACTER, "The character " + Character.toString(c) + " has no meaning here.");
        problems.add(
                switch (c) {
                    case ';' -> problem.withHelp("no mark is needed between rules; a new line will do");
                    case '&' -> problem.withHelp("write and");
                    case '|' -> problem.withHelp("write or, or ?? for a fallback");
                    case '“', '”', '„', '‟' -> problem.withHelp("write straight quotes: \"…\"");
                    case '‘', '’' -> problem.withHelp("write straight quotes: '…'");
                    case '$', '\\', '^', '~', '`' -> problem.withHelp("an odd name is written in single quotes: 'a$b'");
                    default -> problem;
                });
    }

    private Token token(Token.Kind kind, String value, List<Token.Part> parts, int start, boolean first) {
        return new Token(kind, value, parts, new Span(source, start, at), first);
    }

    private Span span(int start) {
        return new Span(source, start, at);
    }

    /** Skips white space and comments; true if a line ended. */
    private boolean skipBlanks() {
        boolean newLine = false;
        while (at < text.length()) {
            char c = text.charAt(at);
            if (c == '#') {
                while (at < text.length() && text.charAt(at) != '\n') {
                    at++;
                }
            } else if (c == '\n') {
                newLine = true;
                at++;
            } else if (c == ' ' || c == '\t' || c == '\r') {
                at++;
            } else {
                break;
            }
        }
        return newLine;
    }

    static boolean isNameStart(int c) {
        return c == '_' || Character.isLetter(c) || Character.getType(c) == Character.LETTER_NUMBER;
    }

    static boolean isNamePart(int c) {
        return isNameStart(c) || Character.isDigit(c);
    }

    private String name() {
        int start = at;
        while (at < text.length()) {
            int c = text.codePointAt(at);
            if (isNamePart(c)) {
                at += Character.charCount(c);
            } else if (c == '-' && at + 1 < text.length() && isNamePart(text.codePointAt(at + 1))) {
                at++;
            } else {
                break;
            }
        }
        return text.substring(start, at);
    }

    private String number() {
        int start = at;
        digits();
        if (at + 1 < text.length() && text.charAt(at) == '.' && isDigit(text.charAt(at + 1))) {
            at++;
            digits();
        }
        String number = text.substring(start, at);
        if (at < text.length() && isNameStart(text.codePointAt(at))) {
            int nameStart = at;
            String name = name();
            String whole = text.substring(start, at);
            problems.add(new Span(source, start, at)
                    .error(Code.UNEXPECTED_CHARACTER, "A name cannot begin with a digit, and a number has no letters.")
                    .withHelp(
                            name.matches("[eE]\\d*")
                                    ? "write the number in plain digits"
                                    : nesting > 0
                                            ? "in a text in double quotes, {{ and }} stand for braces: {{" + whole
                                                    + "}}"
                                            : "write '" + whole + "' for a field of that name, or a blank after "
                                                    + text.substring(start, nameStart)));
            return whole;
        }
        return number;
    }

    private void digits() {
        while (at < text.length() && isDigit(text.charAt(at))) {
            at++;
        }
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    private String raw() {
        int start = at++;
        StringBuilder out = new StringBuilder();
        while (at < text.length() && text.charAt(at) != '\n') {
            char c = text.charAt(at++);
            if (c != '\'') {
                out.append(c);
            } else if (at < text.length() && text.charAt(at) == '\'') {
                out.append('\'');
                at++;
            } else {
                return out.toString();
            }
        }
        problems.add(new Span(source, start, start + 1)
                .error(Code.OPEN_TEXT, "The text that begins here is not closed on its line.")
                .withHelp("close it with '; write '' for a quote inside"));
        return out.toString().stripTrailing();
    }

    private List<Token.Part> template() {
        int start = at++;
        broken = false;
        List<Token.Part> parts = new ArrayList<>();
        StringBuilder plain = new StringBuilder();
        while (at < text.length() && text.charAt(at) != '\n') {
            char c = text.charAt(at);
            if (c == '"') {
                at++;
                flush(plain, parts);
                return parts;
            } else if (c == '\\') {
                escape(plain);
            } else if (c == '{' && !text.startsWith("{{", at)) {
                flush(plain, parts);
                parts.add(embedded());
            } else if (c == '}' && !text.startsWith("}}", at)) {
                at++;
                problems.add(span(at - 1)
                        .error(Code.BAD_TEMPLATE, "This } has no matching {.")
                        .withHelp("write }} for a brace in the text"));
            } else {
                at += c == '{' || c == '}' ? 2 : 1;
                plain.append(c);
            }
        }
        if (!broken) {
            problems.add(new Span(source, start, start + 1)
                    .error(Code.OPEN_TEXT, "The text that begins here is not closed on its line.")
                    .withHelp("close it with \"; write \\n for a line break inside"));
        }
        flush(plain, parts);
        return parts;
    }

    private static void flush(StringBuilder plain, List<Token.Part> parts) {
        if (plain.length() > 0) {
            parts.add(new Token.Plain(plain.toString()));
            plain.setLength(0);
        }
    }

    /** The tokens of <code>{expr}</code>, up to the brace that closes it. */
    private Token.Part embedded() {
        int open = at++;
        int before = problems.size();
        List<Token> tokens = new ArrayList<>();
        int depth = 0;
        nesting++;
        while (true) {
            int lineEnd = text.indexOf('\n', at);
            Token token = nesting > MOST_NESTED ? null : next(false);
            boolean crossed = lineEnd >= 0 && at > lineEnd;
            if (crossed || nesting > MOST_NESTED || token != null && token.kind() == Token.Kind.END) {
                at = lineEnd < 0 ? text.length() : lineEnd;
                nesting--;
                open(open, before);
                return new Token.Plain("");
            }
            if (token == null) {
                continue;
            }
            if (token.is("{")) {
                depth++;
            } else if (token.is("}") && depth-- == 0) {
                tokens.add(new Token(Token.Kind.END, "", List.of(), token.span(), false));
                nesting--;
                return new Token.Embedded(tokens);
            }
            tokens.add(token);
        }
    }

    /**
     * The rest of the line is no expression, nor closes it the text; what looked wrong in it was
     * only that.
     */
    private void open(int brace, int problemsBefore) {
        if (!broken) {
            problems.subList(problemsBefore, problems.size()).clear();
            problems.add(new Span(source, brace, brace + 1)
                    .error(Code.BAD_TEMPLATE, "The { in this text is not closed on its line.")
                    .withHelp("write } where the expression ends, or {{ for a brace in the text"));
            broken = true;
        }
    }

    private void escape(StringBuilder plain) {
        int start = at++;
        char c = at < text.length() ? text.charAt(at) : '\n';
        if (c != '\n') {
            at++;
        }
        switch (c) {
            case 'n' -> plain.append('\n');
            case 'r' -> plain.append('\r');
            case 't' -> plain.append('\t');
            case '"', '\\' -> plain.append(c);
            case 'u' -> unicode(start, plain);
            default -> badEscape(start, "There is no escape \\" + (c == '\n' ? "" : c) + ".");
        }
    }

    private void unicode(int start, StringBuilder plain) {
        int close = text.indexOf('}', at);
        String hex = text.startsWith("{", at) && close > at ? text.substring(at + 1, close) : "";
        if (!hex.matches("[0-9a-fA-F]{1,6}")) {
            badEscape(start, "\\u needs the number of a character in braces.");
            return;
        }
        at = close + 1;
        int codePoint = Integer.parseInt(hex, 16);
        if (!Character.isValidCodePoint(codePoint) || codePoint >= 0xD800 && codePoint <= 0xDFFF) {
            badEscape(start, "There is no character with the number " + hex + ".");
        } else {
            plain.appendCodePoint(codePoint);
        }
    }

    private void badEscape(int start, String message) {
        problems.add(span(start)
                .error(Code.BAD_ESCAPE, message)
                .withHelp("the escapes are \\n \\r \\t \\\" \\\\ \\u{20AC}; a raw text '…' has none"));
    }
}
