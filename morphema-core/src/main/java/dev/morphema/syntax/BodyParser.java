package dev.morphema.syntax;

import dev.morphema.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Bodies, one method a rule of the grammar:
 *
 * <pre>
 * block   = "{" { stmt } "}"
 * stmt    = field | attr | owntext | each | block | let | if | copy | require
 * field   = fname [ "!" | "?" ] [ ":" type ]
 *           ( "=" expr | block | list | loop ( "=&gt;" expr | block ) )
 * attr    = "@" fname [ "!" | "?" ] [ ":" type ] "=" expr
 * list    = "[" { each | if | block } "]"
 * each    = loop ( "=&gt;" expr | block )
 * let     = "let" NAME "=" expr
 * if      = "if" head block [ "else" ( if | block ) ]
 * copy    = "copy" path [ ( "only" | "without" ) name { "," name } ]
 * require = "require" expr "else" [ "warn" ] expr
 * </pre>
 *
 * A keyword begins its statement, unless a mark that only follows a name comes next.
 */
final class BodyParser {
    private static final Set<String> KEYWORDS = Set.of("for", "let", "if", "copy", "require");

    private final Grammar grammar;
    private final Cursor cursor;

    BodyParser(Grammar grammar) {
        this.grammar = grammar;
        this.cursor = grammar.cursor;
    }

    Block block() {
        Token open = cursor.expect("{", "to open a block");
        List<Stmt> statements = new ArrayList<>();
        cursor.enter();
        while (!cursor.at("}") && !cursor.atEnd()) {
            Stmt before = statements.isEmpty() ? null : statements.get(statements.size() - 1);
            boolean textMayFollow = cursor.last() == open
                    || cursor.last().is("}")
                    || before instanceof Stmt.Field field && field.attribute();
            Stmt statement = recovered(() -> statement(textMayFollow));
            if (statement != null) {
                statements.add(statement);
            }
        }
        cursor.leave();
        cursor.expectClosing("}", open);
        return new Block(open.span().to(cursor.last().span()), statements);
    }

    /** One statement; after a fault it is reported and the statement left out. */
    private @Nullable Stmt recovered(Supplier<Stmt> rule) {
        Token first = cursor.peek();
        int depth = cursor.depth();
        try {
            return rule.get();
        } catch (SyntaxFault fault) {
            cursor.report(fault.problem());
            cursor.depth(depth);
            cursor.skipStatement(first);
            return null;
        }
    }

    private Stmt statement(boolean textMayFollow) {
        Token token = cursor.peek();
        if (token.kind() == Token.Kind.NAME && KEYWORDS.contains(token.text()) && !cursor.wordIsFieldName()) {
            return keyword(token);
        }
        if (token.kind() == Token.Kind.NAME || token.kind() == Token.Kind.RAW || token.is("@")) {
            return field();
        }
        if (token.is("{")) {
            Block block = block();
            return new Stmt.Item(block.span(), new Stmt.Nested(block));
        }
        if (token.is("=") && (token.firstOnLine() || textMayFollow)) {
            cursor.next();
            Expr value = grammar.expressions.expr();
            return new Stmt.OwnText(token.span().to(value.span()), value);
        }
        if (token.is("=")) {
            if (cursor.isRuleMark()) {
                throw cursor.unexpected("a value");
            }
            throw Cursor.fault(
                    token.span(),
                    "This = has no field before it.",
                    "to compare, write ==; the own text of an element stands first in its block, after an attribute or a block, or on a line of its own");
        }
        if (token.is(",")) {
            throw Cursor.fault(token.span(), "Fields are not separated by commas.", "a new line, or a blank, will do");
        }
        if (token.is(")") || token.is("]")) {
            throw Cursor.fault(
                    token.span(),
                    "This " + token.text() + " has no opening bracket.",
                    "take it away, or look for a " + (token.is(")") ? "(" : "[") + " that is missing before it");
        }
        if (token.kind() == Token.Kind.TEXT) {
            throw Cursor.fault(
                    token.span(),
                    "A field's name does not stand in double quotes.",
                    "an odd name stands in single quotes: 'my field'");
        }
        throw cursor.unexpected("a field, for, let, if, copy or require");
    }

    private Stmt keyword(Token token) {
        return switch (token.text()) {
            case "for" -> item();
            case "let" -> let();
            case "if" -> ifThen();
            case "copy" -> copy();
            default -> require();
        };
    }

    private Stmt field() {
        Token start = cursor.peek();
        boolean attribute = cursor.accept("@");
        Name name = cursor.expectFieldName("of a field");
        Stmt.Presence presence = presence(name);
        if (name.prefix() != null && cursor.at("(")) {
            throw Cursor.fault(
                    name.span(),
                    "This reads as the name " + name.text() + " with the prefix " + name.prefix() + ".",
                    "write a type behind a blank: " + name.prefix() + ": " + name.text() + "(…)");
        }
        TypeRef type = null;
        if (cursor.at(":")) {
            Token colon = cursor.next();
            if (cursor.at("=")) {
                throw Cursor.fault(
                        colon.span(),
                        "A rule is joined to its field by = alone.",
                        "write " + name.qualified() + " = …");
            }
            type = type();
            Problem slip = Slips.ruleAfterColon(name, type, cursor.peek());
            if (slip != null) {
                throw new SyntaxFault(slip);
            }
        }
        Stmt.Content content = attribute ? attributeRule() : fieldContent(name);
        return new Stmt.Field(start.span().to(cursor.last().span()), attribute, name, presence, type, content);
    }

    private Stmt.Presence presence(Name name) {
        if (cursor.accept("!")) {
            return Stmt.Presence.REQUIRED;
        }
        if (cursor.accept("?")) {
            return Stmt.Presence.OPTIONAL;
        }
        if (cursor.at("!=")) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "This reads as the comparison !=, which cannot stand here.",
                    "for a field that must not be blank, write " + name.qualified() + "! = with a blank");
        }
        return Stmt.Presence.PLAIN;
    }

    private Stmt.Content attributeRule() {
        cursor.expect("=", "and the rule of the attribute");
        return new Stmt.Rule(grammar.expressions.expr());
    }

    private Stmt.Content fieldContent(Name name) {
        if (cursor.accept("=")) {
            return new Stmt.Rule(grammar.expressions.expr());
        }
        if (cursor.at("{")) {
            return new Stmt.Nested(block());
        }
        if (cursor.at("[")) {
            return pieces();
        }
        if (cursor.atWord("for")) {
            return repeated();
        }
        if (cursor.at("==")) {
            throw Cursor.fault(
                    cursor.peek().span(), "A field gets its rule by a single =.", "write " + name.qualified() + " = …");
        }
        if (cursor.at(":") || cursor.at("=>")) {
            throw Cursor.fault(
                    cursor.peek().span(), "A rule is joined to its field by =.", "write " + name.qualified() + " = …");
        }
        throw cursor.unexpected("=, {, [ or for after the field's name " + name.qualified());
    }

    private Stmt.Repeated repeated() {
        Token start = cursor.peek();
        Loop loop = grammar.loops.asFarAsUnderstood();
        if (!cursor.at("=>") && !cursor.at("{")) {
            cursor.report(
                    cursor.unexpected("{ or => or one more clause of the loop").problem());
            cursor.skipToBlock(start);
        }
        if (cursor.accept("=>")) {
            return new Stmt.Repeated(loop, new Stmt.Rule(grammar.expressions.expr()));
        }
        Block block = cursor.at("{") ? block() : new Block(cursor.last().span(), List.of());
        return new Stmt.Repeated(loop, new Stmt.Nested(block));
    }

    private Stmt item() {
        Token start = cursor.peek();
        Stmt.Repeated repeated = repeated();
        return new Stmt.Item(start.span().to(cursor.last().span()), repeated);
    }

    private Stmt.Pieces pieces() {
        Token open = cursor.next();
        List<Stmt> pieces = new ArrayList<>();
        while (!cursor.at("]") && !cursor.atEnd() && !cursor.at("}")) {
            Stmt piece = recovered(this::piece);
            if (piece != null) {
                pieces.add(piece);
            }
        }
        cursor.expectClosing("]", open);
        return new Stmt.Pieces(open.span().to(cursor.last().span()), pieces);
    }

    private Stmt piece() {
        if (cursor.atWord("for")) {
            return item();
        }
        if (cursor.atWord("if")) {
            return ifThen();
        }
        if (cursor.at("{")) {
            Block block = block();
            return new Stmt.Item(block.span(), new Stmt.Nested(block));
        }
        throw cursor.unexpected("for, if or { as a piece of the list; single values are written = [ a, b ]");
    }

    private Stmt let() {
        Token start = cursor.next();
        Name name = cursor.expectName("after let");
        cursor.expect("=", "after the name");
        Expr value = grammar.expressions.expr();
        return new Stmt.Let(start.span().to(value.span()), name, value);
    }

    private Stmt ifThen() {
        Token start = cursor.next();
        Expr condition = grammar.expressions.head();
        grammar.expressions.refuseRuleMark();
        if (cursor.atWord("then")) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "Between fields, if is followed by a block.",
                    "write if … { … }, or give the field its rule by name = if … then … else …");
        }
        Block then = block();
        Block otherwise = null;
        if (cursor.atWord("else") && !cursor.wordIsFieldName()) {
            cursor.next();
            otherwise = cursor.atWord("if") ? elseIf() : block();
        }
        return new Stmt.If(start.span().to(cursor.last().span()), condition, then, otherwise);
    }

    private Block elseIf() {
        Stmt chained = ifThen();
        return new Block(chained.span(), List.of(chained));
    }

    private Stmt copy() {
        Token start = cursor.next();
        Expr record = grammar.expressions.path();
        Stmt.Copy.Choice choice = Stmt.Copy.Choice.ALL;
        if (!cursor.wordIsFieldName() && (cursor.atWord("only") || cursor.atWord("without"))) {
            choice = cursor.next().isWord("only") ? Stmt.Copy.Choice.ONLY : Stmt.Copy.Choice.WITHOUT;
        }
        if (choice == Stmt.Copy.Choice.ALL && isStrayWord()) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "After the record that is copied only or without can stand, not "
                            + cursor.peek().text() + ".",
                    "copy r only a, b takes some fields, copy r without a, b leaves some out");
        }
        List<Name> names = new ArrayList<>();
        if (choice != Stmt.Copy.Choice.ALL) {
            do {
                cursor.accept("@");
                names.add(cursor.expectFieldName("of a field"));
            } while (cursor.accept(","));
        }
        return new Stmt.Copy(start.span().to(cursor.last().span()), record, choice, names);
    }

    /** Whether a word stands before a name on one line, which begins no statement. */
    private boolean isStrayWord() {
        Token word = cursor.peek();
        Token next = cursor.peek(1);
        boolean beforeName = next.kind() == Token.Kind.NAME || next.kind() == Token.Kind.RAW || next.is("@");
        return word.kind() == Token.Kind.NAME
                && !word.firstOnLine()
                && !KEYWORDS.contains(word.text())
                && beforeName
                && !next.firstOnLine()
                && !next.isWord("for");
    }

    private Stmt require() {
        Token start = cursor.next();
        Expr condition = grammar.expressions.expr();
        grammar.expressions.refuseRuleMark();
        cursor.expectWord("else", "and a message after the condition");
        boolean warn = cursor.acceptWord("warn");
        Expr message = grammar.expressions.expr();
        return new Stmt.Require(start.span().to(message.span()), condition, warn, message);
    }

    TypeRef type() {
        Name name = cursor.expectName("of a type");
        List<Constant> arguments = new ArrayList<>();
        if (cursor.at("(")) {
            Token open = cursor.next();
            if (!cursor.at(")")) {
                do {
                    arguments.add(constant());
                } while (cursor.accept(","));
            }
            cursor.expectClosing(")", open);
        }
        return new TypeRef(name.span().to(cursor.last().span()), name.text(), arguments);
    }

    Constant constant() {
        Token token = cursor.peek();
        switch (token.kind()) {
            case TEXT -> {
                return plainText("a constant");
            }
            case RAW -> {
                cursor.next();
                return new Constant(token.span(), Constant.Form.TEXT, token.text(), List.of());
            }
            case NUMBER -> {
                cursor.next();
                return new Constant(token.span(), Constant.Form.NUMBER, token.text(), List.of());
            }
            case NAME -> {
                cursor.next();
                return new Constant(token.span(), Constant.Form.WORD, token.text(), List.of());
            }
            case SYMBOL, END -> {
                return symbolConstant(token);
            }
        }
        throw new IllegalStateException("no such token");
    }

    private Constant symbolConstant(Token token) {
        if (cursor.accept("-")) {
            if (cursor.peek().kind() != Token.Kind.NUMBER) {
                throw cursor.unexpected("a number after the minus");
            }
            Token number = cursor.next();
            return new Constant(token.span().to(number.span()), Constant.Form.NUMBER, "-" + number.text(), List.of());
        }
        if (cursor.accept("[")) {
            List<Constant> items = new ArrayList<>();
            if (!cursor.at("]")) {
                do {
                    items.add(constant());
                } while (cursor.accept(","));
            }
            cursor.expectClosing("]", token);
            return new Constant(token.span().to(cursor.last().span()), Constant.Form.LIST, "", items);
        }
        throw cursor.unexpected("a constant");
    }

    /** A text without expressions. */
    Constant plainText(String purpose) {
        Token token = cursor.peek();
        if (token.kind() == Token.Kind.RAW) {
            cursor.next();
            return new Constant(token.span(), Constant.Form.TEXT, token.text(), List.of());
        }
        if (token.kind() != Token.Kind.TEXT) {
            throw cursor.unexpected(purpose);
        }
        cursor.next();
        StringBuilder text = new StringBuilder();
        for (Token.Part part : token.parts()) {
            if (!(part instanceof Token.Plain plain)) {
                throw Cursor.fault(
                        token.span(), "Only a constant text can stand here.", "write {{ and }} for braces in the text");
            }
            text.append(plain.text());
        }
        return new Constant(token.span(), Constant.Form.TEXT, text.toString(), List.of());
    }
}
