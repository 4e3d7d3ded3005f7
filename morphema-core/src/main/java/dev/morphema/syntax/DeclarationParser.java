package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Declarations, one method a rule of the grammar:
 *
 * <pre>
 * mapping = "morphema" NUMBER { decl }
 * decl    = source | target | table | param | define | use | prefix | let
 * source  = "source" NAME ":" format [ "{" { path ":" type } "}" ]
 * target  = "target" NAME ":" format [ loop "into" head ] ( block | "=" expr )
 * table   = "table" NAME ( ":" format columns | loop columns | "{" { key "=" expr } "}" )
 * columns = "key" head { "," head } [ "range" head "to" head ] [ "many" ]
 * define  = "define" NAME "(" [ NAME { "," NAME } ] ")" ( "=" expr | block )
 * format  = NAME [ "(" [ arg { "," arg } ] ")" ]
 * </pre>
 */
final class DeclarationParser {
    static final Set<String> KEYWORDS = Set.of("source", "target", "table", "param", "define", "use", "prefix", "let");

    private static final String VERSION = "1";

    private final Grammar grammar;
    private final Cursor cursor;

    DeclarationParser(Grammar grammar) {
        this.grammar = grammar;
        this.cursor = grammar.cursor;
    }

    List<Decl> declarations() {
        List<Decl> declarations = new ArrayList<>();
        version();
        while (!cursor.atEnd()) {
            Token first = cursor.peek();
            int depth = cursor.depth();
            try {
                declarations.add(declaration());
            } catch (SyntaxFault fault) {
                cursor.report(fault.problem());
                cursor.depth(depth);
                cursor.skipDeclaration(KEYWORDS, first);
            }
        }
        return declarations;
    }

    private void version() {
        Token token = cursor.peek();
        if (!token.isWord("morphema")) {
            cursor.report(token.span()
                    .error(Code.VERSION, "A mapping begins with the version of its language.")
                    .withHelp("write morphema 1 on the first line"));
            return;
        }
        cursor.next();
        Token number = cursor.peek();
        if (number.kind() == Token.Kind.NUMBER) {
            cursor.next();
        }
        if (!number.text().equals(VERSION)) {
            cursor.report((number.kind() == Token.Kind.NUMBER ? number : token)
                    .span()
                    .error(Code.VERSION, "This version of the language is not known here.")
                    .withHelp("write morphema 1"));
        }
    }

    private Decl declaration() {
        Token token = cursor.peek();
        if (token.kind() == Token.Kind.NAME) {
            switch (token.text()) {
                case "source":
                    return source();
                case "target":
                    return target();
                case "table":
                    return table();
                case "param":
                    return param();
                case "define":
                    return define();
                case "use":
                    return use();
                case "prefix":
                    return prefix();
                case "let":
                    return let();
                default:
                    break;
            }
        }
        SyntaxFault fault =
                cursor.unexpected("a declaration: source, target, table, param, let, define, prefix or use");
        throw token.kind() == Token.Kind.NAME && token.firstOnLine()
                ? new SyntaxFault(fault.problem().at(token.span().location()).withHelp(nearKeyword(token.text())))
                : fault;
    }

    private static @Nullable String nearKeyword(String word) {
        List<String> near = NearNames.near(word, KEYWORDS);
        return near.isEmpty() ? "fields stand inside a target" : "did you mean " + near.get(0) + "?";
    }

    private Name declaredName() {
        return cursor.expectName("for the declaration");
    }

    private Span since(Token start) {
        return start.span().to(cursor.last().span());
    }

    private Decl source() {
        Token start = cursor.next();
        Name name = declaredName();
        cursor.expect(":", "and a format after the name");
        FormatRef format = format();
        List<Decl.FieldType> types = new ArrayList<>();
        if (cursor.at("{")) {
            Token open = cursor.next();
            while (!cursor.at("}") && !cursor.atEnd()) {
                Token first = cursor.peek();
                try {
                    types.add(fieldType());
                } catch (SyntaxFault fault) {
                    cursor.report(fault.problem());
                    cursor.skipStatement(first);
                }
            }
            cursor.expectClosing("}", open);
        }
        return new Decl.Source(since(start), name, format, types);
    }

    private Decl.FieldType fieldType() {
        Token start = cursor.peek();
        boolean deep = cursor.accept(".");
        if (deep) {
            cursor.expect(".", "for a field at any depth");
        }
        List<Decl.PathStep> steps = new ArrayList<>();
        do {
            boolean attribute = cursor.accept("@");
            Name name = cursor.expectTypedName("of a field");
            steps.add(new Decl.PathStep(attribute ? Expr.Axis.ATTRIBUTE : Expr.Axis.FIELD, name));
        } while (cursor.accept("."));
        if (cursor.at("=")) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "A source gives its fields types, not rules.",
                    "write " + steps.get(0).name().qualified() + ": number");
        }
        cursor.expect(":", "and a type after the field");
        TypeRef type = grammar.bodies.type();
        return new Decl.FieldType(since(start), deep, steps, type);
    }

    private Decl target() {
        Token start = cursor.next();
        Name name = declaredName();
        cursor.expect(":", "and a format after the name");
        FormatRef format = format();
        Loop split = null;
        Expr into = null;
        if (cursor.atWord("for")) {
            split = grammar.loops.loop();
            cursor.expectWord("into", "and the name of each document's file");
            if (cursor.at("{")) {
                throw cursor.unexpected("the name of each document's file, such as \"permit-{imo}.xml\",");
            }
            into = grammar.expressions.head();
        }
        Stmt.Content content = cursor.accept("=")
                ? new Stmt.Rule(grammar.expressions.expr())
                : new Stmt.Nested(grammar.bodies.block());
        return new Decl.Target(since(start), name, format, split, into, content);
    }

    private Decl table() {
        Token start = cursor.next();
        Name name = declaredName();
        if (cursor.accept(":")) {
            FormatRef format = format();
            Decl.Columns columns = columns();
            return new Decl.FileTable(since(start), name, format, columns);
        }
        if (cursor.atWord("for")) {
            Loop loop = grammar.loops.loop();
            Decl.Columns columns = columns();
            return new Decl.LoopTable(since(start), name, loop, columns);
        }
        if (cursor.at("{")) {
            List<Decl.Entry> entries = entries();
            return new Decl.InlineTable(since(start), name, entries);
        }
        throw cursor.unexpected(": and a file, for and a loop, or { and entries");
    }

    private Decl.Columns columns() {
        cursor.expectWord("key", "and the columns the table is looked up by");
        List<Expr> keys = new ArrayList<>();
        do {
            keys.add(column());
        } while (cursor.accept(","));
        Expr from = null;
        Expr to = null;
        if (cursor.acceptWord("range")) {
            from = column();
            cursor.expectWord("to", "between the ends of the range");
            to = column();
        }
        return new Decl.Columns(keys, from, to, cursor.acceptWord("many"));
    }

    /** A column's name may be quoted; then it is a reference all the same. */
    private Expr column() {
        Token token = cursor.peek();
        boolean whole =
                cursor.peek(1).kind() != Token.Kind.SYMBOL || cursor.peek(1).is(",");
        if (token.kind() == Token.Kind.RAW && whole) {
            cursor.next();
            return new Expr.Reference(token.span(), token.text());
        }
        return grammar.expressions.head();
    }

    private List<Decl.Entry> entries() {
        Token open = cursor.next();
        List<Decl.Entry> entries = new ArrayList<>();
        while (!cursor.at("}") && !cursor.atEnd()) {
            Token first = cursor.peek();
            try {
                Name key = entryKey();
                cursor.expect("=", "after the key");
                entries.add(new Decl.Entry(key, grammar.expressions.expr()));
            } catch (SyntaxFault fault) {
                cursor.report(fault.problem());
                cursor.skipStatement(first);
            }
        }
        cursor.expectClosing("}", open);
        return entries;
    }

    private Name entryKey() {
        Token token = cursor.peek();
        if (token.kind() == Token.Kind.NUMBER || token.kind() == Token.Kind.NAME) {
            cursor.next();
            return new Name(token.span(), null, token.text());
        }
        Constant text = grammar.bodies.plainText("a key: a word, a number or a text");
        return new Name(text.span(), null, text.text());
    }

    private Decl param() {
        Token start = cursor.next();
        Name name = declaredName();
        cursor.expect(":", "and a type after the name");
        TypeRef type = grammar.bodies.type();
        Expr fallback = cursor.accept("=") ? grammar.expressions.expr() : null;
        return new Decl.Param(since(start), name, type, fallback);
    }

    private Decl let() {
        Token start = cursor.next();
        Name name = declaredName();
        cursor.expect("=", "after the name");
        Expr value = grammar.expressions.expr();
        return new Decl.Let(since(start), name, value);
    }

    private Decl define() {
        Token start = cursor.next();
        Name name = declaredName();
        Token open = cursor.expect("(", "and the names of the arguments");
        List<Name> parameters = new ArrayList<>();
        if (!cursor.at(")")) {
            do {
                parameters.add(cursor.expectName("of an argument"));
            } while (cursor.accept(","));
        }
        cursor.expectClosing(")", open);
        Expr value;
        if (cursor.accept("=")) {
            value = grammar.expressions.expr();
        } else {
            Block block = grammar.bodies.block();
            value = new Expr.RecordOf(block.span(), block);
        }
        return new Decl.Define(since(start), name, parameters, value);
    }

    private Decl use() {
        Token start = cursor.next();
        Constant file = grammar.bodies.plainText("the file to use, as a text");
        return new Decl.Use(since(start), file.span(), file.text());
    }

    private Decl prefix() {
        Token start = cursor.next();
        Name name = declaredName();
        cursor.expect("=", "after the prefix");
        Constant uri = grammar.bodies.plainText("a namespace, as a text");
        return new Decl.Prefix(since(start), name, uri.text());
    }

    private FormatRef format() {
        Name name = cursor.expectName("of a format");
        List<FormatRef.Option> options = new ArrayList<>();
        if (cursor.at("(")) {
            Token open = cursor.next();
            if (!cursor.at(")")) {
                do {
                    options.add(option());
                } while (cursor.accept(","));
            }
            cursor.expectClosing(")", open);
        }
        return new FormatRef(name.span().to(cursor.last().span()), name.text(), options);
    }

    private FormatRef.Option option() {
        Token start = cursor.peek();
        String name = null;
        if (start.kind() == Token.Kind.NAME && cursor.peek(1).is("=")) {
            cursor.next();
            cursor.next();
            name = start.text();
        }
        Constant value = grammar.bodies.constant();
        return new FormatRef.Option(start.span().to(value.span()), name, value);
    }
}
