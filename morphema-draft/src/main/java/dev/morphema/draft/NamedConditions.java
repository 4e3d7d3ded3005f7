package dev.morphema.draft;

import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** Which records of a source belong to a list, by the names of fields and of the list. */
final class NamedConditions {
    private static final int MOST_CODES = 12;

    private NamedConditions() {}

    /**
     * {@return the condition that a record of another source is of the record at hand: both have a
     * field of one name and values in common; empty if there is none}
     */
    static String joined(Chain chain, Scope within) {
        Set<String> own = new HashSet<>();
        chain.vars().forEach(variable -> own.add(variable.name()));
        Set<String> around = new HashSet<>();
        for (Var variable : chain.around().vars()) {
            if (variable.form() == Var.Form.ONE || variable.form() == Var.Form.KEY) {
                around.add(variable.name());
            }
        }
        if (around.isEmpty() || around.contains(chain.over().replaceAll("\\..*", "")) || isOfGroup(chain)) {
            return "";
        }
        List<Column> columns = new Columns(within).single();
        for (Column outer : columns) {
            for (Column inner : around.contains(Aligner.root(outer)) ? columns : List.<Column>of()) {
                if (own.contains(Aligner.root(inner))
                        && Names.likeness(inner.name(), outer.name()) > NamedColumns.SAME
                        && !Collections.disjoint(inner.distinct(), outer.distinct())) {
                    return " where " + inner.expression() + " == " + outer.expression();
                }
            }
        }
        return "";
    }

    /** {@return the condition that a list is of those with a code of its name; empty if none is} */
    static String chosen(TargetField field, Chain chain, Scope within) {
        String loop = chain.vars().get(chain.vars().size() - 1).name();
        List<String> wanted = Names.words(field.name());
        for (Column column : wanted.isEmpty() ? List.<Column>of() : new Columns(within).single()) {
            Set<String> codes = column.distinct();
            if (!Aligner.root(column).equals(loop) || codes.size() < 2 || codes.size() > MOST_CODES) {
                continue;
            }
            for (String code : codes) {
                if (Names.words(code).equals(wanted)) {
                    return " where " + column.expression() + " == " + Texts.quoted(code);
                }
            }
        }
        return "";
    }

    private static boolean isOfGroup(Chain chain) {
        String over = chain.over().replaceAll("\\..*", "");
        return chain.around().vars().stream()
                .anyMatch(variable ->
                        variable.form() == Var.Form.GROUP && variable.name().equals(over));
    }
}
