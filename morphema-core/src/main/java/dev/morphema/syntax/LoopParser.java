package dev.morphema.syntax;

import dev.morphema.value.Missing;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The for clause:
 *
 * <pre>
 * loop   = "for" bind { clause }
 * bind   = [ "optional" ] NAME "in" sequence
 * clause = "where" head | "let" NAME "=" head
 *        | "group" [ "runs" ] "by" key { "," key } "as" NAME | "group" "from" head "as" NAME
 *        | "sort" "by" head [ "asc" | "desc" ] { "," … } | "distinct" "by" head { "," head }
 *        | "numbered" NAME [ "by" head { "," head } ] | "take" head | "keyed" "by" head
 *        | "for" bind
 * key    = [ NAME "=" ] head
 * </pre>
 */
final class LoopParser {
    private final Grammar grammar;
    private final Cursor cursor;
    /** The name of a loop of which it is not known yet what it goes over. */
    private @Nullable Name begun;

    LoopParser(Grammar grammar) {
        this.grammar = grammar;
        this.cursor = grammar.cursor;
    }

    Loop loop() {
        Token start = cursor.peek();
        List<Loop.Clause> clauses = new ArrayList<>();
        addClauses(start, clauses);
        return loop(start, clauses);
    }

    /**
     * A loop of which a clause may be wrong or unfinished: that is reported, and the loop has the
     * clauses before it, so that what it repeats is understood.
     */
    Loop asFarAsUnderstood() {
        Token start = cursor.peek();
        int depth = cursor.depth();
        List<Loop.Clause> clauses = new ArrayList<>();
        try {
            addClauses(start, clauses);
        } catch (SyntaxFault fault) {
            if (begun == null && clauses.isEmpty()) {
                throw fault;
            }
            cursor.report(fault.problem());
            cursor.depth(depth);
            if (begun != null) {
                Expr nothing = new Expr.Literal(begun.span(), Missing.ABSENT);
                clauses.add(new Loop.Bind(start.span().to(begun.span()), false, begun, nothing));
            }
            cursor.skipToBlock(start);
            // What may still be written before the block belongs to the loop.
            Token end = cursor.at("{") || cursor.at("=>") ? cursor.peek() : cursor.last();
            return new Loop(start.span().to(end.span()), clauses);
        }
        return loop(start, clauses);
    }

    private void addClauses(Token start, List<Loop.Clause> clauses) {
        cursor.expectWord("for", "to begin a loop");
        Loop.Clause clause = bind(start);
        while (clause != null) {
            clauses.add(clause);
            clause = clause();
        }
    }

    private Loop loop(Token start, List<Loop.Clause> clauses) {
        return new Loop(start.span().to(cursor.last().span()), clauses);
    }

    private Loop.Bind bind(Token start) {
        boolean optional = cursor.atWord("optional")
                && cursor.peek(1).kind() == Token.Kind.NAME
                && !cursor.peek(1).isWord("in");
        if (optional) {
            cursor.next();
        }
        Name name = cursor.expectName("for each turn");
        begun = name;
        cursor.expectWord("in", "after the name of the loop");
        Expr sequence = grammar.expressions.sequence();
        begun = null;
        return new Loop.Bind(start.span().to(sequence.span()), optional, name, sequence);
    }

    /** One more clause, or null where none begins. */
    private Loop.@Nullable Clause clause() {
        Token start = cursor.peek();
        if (start.kind() != Token.Kind.NAME || cursor.wordIsFieldName()) {
            return null;
        }
        return switch (start.text()) {
            case "where" -> where(cursor.next());
            case "let" -> let(cursor.next());
            case "for" -> bind(cursor.next());
            case "numbered" -> numbered(cursor.next());
            case "take" -> take(cursor.next());
            case "group", "sort", "distinct", "keyed" -> twoWords(start);
            default -> null;
        };
    }

    private Loop.@Nullable Clause twoWords(Token start) {
        String second =
                cursor.peek(1).kind() == Token.Kind.NAME ? cursor.peek(1).text() : "";
        if (start.isWord("group") && second.equals("runs") && cursor.peek(2).isWord("by")) {
            cursor.next();
            return groupBy(start, true);
        }
        if (start.isWord("group") && second.equals("from")) {
            return groupFrom(start);
        }
        if (!second.equals("by")) {
            return null;
        }
        return switch (start.text()) {
            case "group" -> groupBy(start, false);
            case "sort" -> sortBy(start);
            case "distinct" -> distinctBy(start);
            default -> keyedBy(start);
        };
    }

    private void skipTwoWords() {
        cursor.next();
        cursor.next();
    }

    private Expr head() {
        Expr head = grammar.expressions.head();
        grammar.expressions.refuseRuleMark();
        return head;
    }

    private List<Expr> heads() {
        List<Expr> heads = new ArrayList<>();
        do {
            heads.add(head());
        } while (cursor.accept(","));
        return heads;
    }

    private Span since(Token start) {
        return start.span().to(cursor.last().span());
    }

    private Loop.Where where(Token start) {
        Expr condition = head();
        return new Loop.Where(since(start), condition);
    }

    private Loop.Let let(Token start) {
        Name name = cursor.expectName("after let");
        cursor.expect("=", "after the name");
        Expr value = head();
        return new Loop.Let(since(start), name, value);
    }

    private Loop.Numbered numbered(Token start) {
        Name name = cursor.expectName("for the running number");
        List<Expr> keys = List.of();
        if (cursor.atWord("by") && !cursor.wordIsFieldName()) {
            cursor.next();
            keys = heads();
        }
        return new Loop.Numbered(since(start), name, keys);
    }

    private Loop.Take take(Token start) {
        Expr count = head();
        return new Loop.Take(since(start), count);
    }

    private Loop.GroupBy groupBy(Token start, boolean runs) {
        skipTwoWords();
        List<Loop.Key> keys = new ArrayList<>();
        do {
            keys.add(key());
        } while (cursor.accept(","));
        Name members = members();
        return new Loop.GroupBy(since(start), runs, keys, members);
    }

    private Loop.Key key() {
        Token start = cursor.peek();
        Name name = null;
        if (start.kind() == Token.Kind.NAME && cursor.peek(1).is("=")) {
            name = cursor.expectName("for the key");
            cursor.next();
        }
        Expr value = head();
        if (name == null && value instanceof Expr.Step step && step.axis() != Expr.Axis.DEEP) {
            name = new Name(step.name().span(), null, step.name().text());
        } else if (name == null && value instanceof Expr.Reference reference) {
            throw Cursor.fault(
                    reference.span(), "The key needs a name of its own.", "write code = " + reference.name());
        }
        return new Loop.Key(since(start), name, value);
    }

    private Name members() {
        if (!cursor.acceptWord("as")) {
            throw cursor.unexpected("as and a name for the members of each group");
        }
        return cursor.expectName("for the members of each group");
    }

    private Loop.GroupFrom groupFrom(Token start) {
        skipTwoWords();
        Expr condition = head();
        Name members = members();
        return new Loop.GroupFrom(since(start), condition, members);
    }

    private Loop.SortBy sortBy(Token start) {
        skipTwoWords();
        List<Loop.SortKey> keys = new ArrayList<>();
        do {
            Expr value = head();
            boolean descending = false;
            if ((cursor.atWord("desc") || cursor.atWord("asc")) && !cursor.wordIsFieldName()) {
                descending = cursor.next().isWord("desc");
            }
            keys.add(new Loop.SortKey(value, descending));
        } while (cursor.accept(","));
        return new Loop.SortBy(since(start), keys);
    }

    private Loop.DistinctBy distinctBy(Token start) {
        skipTwoWords();
        List<Expr> keys = heads();
        return new Loop.DistinctBy(since(start), keys);
    }

    private Loop.KeyedBy keyedBy(Token start) {
        skipTwoWords();
        Expr key = head();
        if (cursor.at(",")) {
            throw Cursor.fault(
                    cursor.peek().span(),
                    "An entry of an object has one key.",
                    "make one text of several: \"{a}-{b}\"");
        }
        return new Loop.KeyedBy(since(start), key);
    }
}
