package dev.morphema.syntax;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Forms of other languages that are written otherwise here, known by the tokens at which the parser
 * has stopped.
 */
final class Slips {
    private Slips() {}

    /** {@return what is wrong and what to write, or null if nothing is known of these tokens} */
    static @Nullable Problem found(Token last, Token token, Token next) {
        if (token.is("?")) {
            return token.span()
                    .error(Code.SYNTAX, "A choice is not written with ? and :.")
                    .withHelp("write if condition then a else b; for a value in place of none, a ?? b");
        }
        if (token.is(">") && last.is("<") && token.touches(last)) {
            return last.span()
                    .to(token.span())
                    .error(Code.SYNTAX, "There is no operator <>.")
                    .withHelp("not equal is written !=");
        }
        if (token.is("=") && (last.is("==") || last.is("!=")) && token.touches(last)) {
            return last.span()
                    .to(token.span())
                    .error(Code.SYNTAX, "There is no operator " + last.text() + "=.")
                    .withHelp("write " + last.text());
        }
        if (token.kind() == Token.Kind.TEXT && last.is(".")) {
            String name = token.parts().size() == 1 && token.parts().get(0) instanceof Token.Plain plain
                    ? plain.text()
                    : "name";
            return token.span()
                    .error(Code.SYNTAX, "A field's name does not stand in double quotes.")
                    .withHelp("an odd name stands in single quotes: .'" + name.replace("'", "''") + "'");
        }
        if (token.isWord("where") || token.isWord("sort") && next.isWord("by")) {
            return token.span()
                    .error(Code.SYNTAX, "The clause " + token.text() + " belongs to a for.")
                    .withHelp("write [x for x in items " + token.text() + " …], or count(x for x in items where …)");
        }
        return null;
    }

    /**
     * {@return that a rule was meant behind the colon, which gives a type; null if what follows is
     * nothing of a rule}
     */
    static @Nullable Problem ruleAfterColon(Name name, TypeRef type, Token token) {
        boolean rule = List.of(".", "+", "-", "*", "/", "??").stream().anyMatch(token::is);
        return rule
                ? type.span()
                        .error(Code.SYNTAX, "A type must follow the colon, found a rule.")
                        .withHelp("a rule is joined to its field by =: " + name.qualified() + " = …")
                : null;
    }
}
