package dev.morphema.check;

import dev.morphema.syntax.Block;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import java.util.HashSet;
import java.util.Set;
import java.util.function.Function;

/**
 * Decides whether a block may write a field name twice into one record, so that the run has to
 * watch. A name is written once; only elements of XML that are named by several rules may repeat.
 */
final class WrittenNames {
    private final Function<Stmt.Field, FieldName> names;
    private final boolean markup;

    /**
     * @param names gives the name that a field writes
     * @param markup whether the target has attributes and elements, and elements may repeat
     */
    WrittenNames(Function<Stmt.Field, FieldName> names, boolean markup) {
        this.names = names;
        this.markup = markup;
    }

    /** The names that one part of a block may write. */
    private static final class Part {
        private final Set<FieldName> named = new HashSet<>();
        /** Whether any field is written, also elements that may repeat. */
        private boolean fields;
        /** How many statements write names that come from the data. */
        private int fromData;

        private boolean mayRepeat;

        void add(Part other) {
            for (FieldName name : other.named) {
                mayRepeat |= !named.add(name);
            }
            fields |= other.fields;
            fromData += other.fromData;
            mayRepeat |= other.mayRepeat;
        }
    }

    boolean mayRepeat(Block block) {
        return part(block).mayRepeat;
    }

    private Part part(Block block) {
        Part direct = new Part();
        Part conditional = new Part();
        boolean copies = false;
        boolean keys = false;
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.If) {
                conditional.add(part(statement));
            } else {
                copies |= statement instanceof Stmt.Copy;
                keys |= statement instanceof Stmt.Item;
                direct.add(part(statement));
            }
        }
        // A field takes the place of a copied one, so these two never meet; own text has no such
        // place.
        boolean besideData = keys && direct.fields
                || copies && direct.named.contains(FieldName.TEXT)
                || direct.fromData > 0 && (conditional.fields || conditional.fromData > 0)
                || conditional.fromData > 0 && direct.fields;
        direct.add(conditional);
        direct.mayRepeat |= direct.fromData > 1 || besideData;
        return direct;
    }

    private Part part(Stmt statement) {
        Part part = new Part();
        if (statement instanceof Stmt.Field field) {
            part.fields = true;
            if (!markup || field.attribute()) {
                FieldName name = names.apply(field);
                part.named.add(markup ? name : FieldName.of(name.local()));
            }
        } else if (statement instanceof Stmt.OwnText && !markup) {
            part.fields = true;
            part.named.add(FieldName.TEXT);
        } else if (statement instanceof Stmt.Copy || statement instanceof Stmt.Item) {
            part.fromData = 1;
        } else if (statement instanceof Stmt.If ifThen) {
            part.add(part(ifThen.then()));
            if (ifThen.otherwise() != null) {
                // Only one of the two is written.
                Part otherwise = part(ifThen.otherwise());
                part.named.addAll(otherwise.named);
                part.fields |= otherwise.fields;
                part.fromData = Math.max(part.fromData, otherwise.fromData);
                part.mayRepeat |= otherwise.mayRepeat;
            }
        }
        return part;
    }
}
