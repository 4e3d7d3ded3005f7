package dev.morphema.draft;

import dev.morphema.draft.Body.Node;
import dev.morphema.value.Kind;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Drafts the whole form of a target, with rules for those fields whose names, kinds and places are
 * like those of a source. Not thread-safe.
 */
final class NameDrafter {
    /** One field of ten that is alike is more than nothing. */
    private static final double LIKE_LIST = 0.08;

    private final boolean typed;
    private final Tables tables;
    private final Set<String> taken;
    private final Prefixes prefixes;
    /** The sequences that are gone through around a place. */
    private final Deque<String> open = new ArrayDeque<>();

    NameDrafter(boolean typed, Tables tables, Set<String> taken, Prefixes prefixes) {
        this.typed = typed;
        this.tables = tables;
        this.taken = taken;
        this.prefixes = prefixes;
    }

    /** {@return the statements that write a document, or its items} */
    Body document(TargetField document, Scope scope) {
        return document.several() ? list(document, scope, "") : record(document, scope, "");
    }

    private Body record(TargetField record, Scope scope, String around) {
        Columns columns = new Columns(scope);
        List<Node> nodes = new ArrayList<>();
        int right = 0;
        int total = 0;
        List<TargetField> fields = new ArrayList<>(record.fields());
        // A text of its own comes first, as a block has it.
        fields.sort(Comparator.comparing(field -> !field.name().isEmpty()));
        for (TargetField field : fields) {
            Body body = field(field, scope, columns, around);
            nodes.addAll(body.nodes());
            right += body.right();
            total += body.total();
        }
        return new Body(nodes, right, total, 0);
    }

    private Body field(TargetField field, Scope scope, Columns columns, String around) {
        String written = prefixes.written(field.name(), field.namespace());
        if (field.several()) {
            return field.isScalar() ? values(field, written, columns, around) : list(field, scope, around);
        }
        if (field.isScalar()) {
            return rule(field, written, columns, around);
        }
        Body body = record(field, scope, field.name());
        if (body.right() == 0 && !field.required()) {
            return new Body(List.of(), 0, body.total(), 0);
        }
        return new Body(List.of(new Body.FieldRecord(written, !field.required(), body)), body.right(), body.total(), 0);
    }

    private Body rule(TargetField field, String written, Columns columns, String around) {
        String about = field.name().isEmpty() ? around : field.name();
        if (field.codes().size() == 1 && field.required()) {
            Cell only = new Cell(
                    typed && field.form() != null ? kind(field.form()) : Kind.TEXT,
                    field.codes().get(0));
            return fixed(written, Texts.constant(only), "the schema has nothing else");
        }
        NamedColumns.Match match = NamedColumns.match(field, columns.single(), about, around);
        NamedTotals.Found total = NamedColumns.total(field, about, match, columns.repeated());
        if (total != null) {
            return fixed(written, total.expression(), "a guess: a name like it");
        }
        match = match == null ? NamedColumns.onlyOne(field, columns.single()) : match;
        Column number = match == null || match.likeness() < NamedColumns.IDENTITY
                ? NamedColumns.number(field, columns.single())
                : null;
        if (number != null) {
            return fixed(written, number.expression(), "a guess: the number of the turn");
        }
        String expression = match == null ? null : converted(match.column(), field, codes(match.column(), columns));
        if (match == null || expression == null) {
            String near =
                    match == null ? "" : "; perhaps made of " + match.column().expression();
            return field.required()
                    ? new Body(
                            List.of(new Body.FieldRule(
                                    written, "", false, "todo(" + Texts.quoted(field.wanted() + near) + ")", "")),
                            0,
                            1,
                            0)
                    : new Body(List.of(), 0, 1, 0);
        }
        String type = type(match.column(), field);
        String remark = match.likeness() > NamedColumns.SAME
                ? "a guess: the same name"
                : match.likeness() > 0 ? "a guess: a name like it" : "a guess: nothing else is of this kind";
        return new Body(List.of(new Body.FieldRule(written, type, false, expression, remark)), 1, 1, 0);
    }

    private static Kind kind(Kind form) {
        return form == Kind.NUMBER || form == Kind.BOOLEAN ? form : Kind.TEXT;
    }

    private static Body fixed(String written, String expression, String remark) {
        return new Body(List.of(new Body.FieldRule(written, "", false, expression, remark)), 1, 1, 0);
    }

    /** {@return the values that a column may have; that of the first of a group those of all} */
    private static Set<String> codes(Column column, Columns columns) {
        Set<String> codes = new LinkedHashSet<>(column.distinct());
        for (Repeat repeat : columns.repeated()) {
            String first = "first(" + repeat.expression() + ")";
            for (Repeat.Values values :
                    column.expression().startsWith(first) ? repeat.values() : List.<Repeat.Values>of()) {
                if (column.expression().equals(first + values.step())) {
                    values.cells()
                            .forEach(cells ->
                                    cells.stream().filter(Objects::nonNull).forEach(cell -> codes.add(cell.text())));
                }
            }
        }
        return codes;
    }

    /**
     * {@return the expression that writes a column, or null if its codes are others than those
     * wanted}
     */
    private @Nullable String converted(Column column, TargetField field, Set<String> codes) {
        if (!field.codes().isEmpty() && codes.contains(Examples.ANY_TEXT)) {
            return null;
        }
        if (field.codes().isEmpty() || field.codes().containsAll(codes)) {
            return dated(column, field);
        }
        Map<Cell, Cell> meanings = new LinkedHashMap<>();
        for (String code : codes) {
            field.codes().stream()
                    .filter(other -> isLike(code, other))
                    .findFirst()
                    .ifPresent(other -> meanings.put(Cell.text(code), Cell.text(other)));
        }
        return meanings.size() < codes.size() || meanings.size() > 30
                ? null
                : tables.codes(column.name(), meanings) + "[" + column.expression() + "]";
    }

    private static boolean isLike(String code, String other) {
        return code.equalsIgnoreCase(other)
                || code.length() == 1 && other.toLowerCase(Locale.ROOT).startsWith(code.toLowerCase(Locale.ROOT))
                || Names.likeness(code, other) > 0.7;
    }

    /** A date of a datetime. */
    private static String dated(Column column, TargetField field) {
        List<Forms.DateForm> forms = Forms.dates(NamedColumns.texts(column));
        boolean day =
                field.form() == Kind.DATE && !forms.isEmpty() && forms.get(0).moment() == Forms.Moment.DATETIME;
        String pattern = day && !forms.get(0).pattern().isEmpty()
                ? ", " + Texts.raw(forms.get(0).pattern())
                : "";
        return day ? "date(datetime(" + column.expression() + pattern + "))" : column.expression();
    }

    /** {@return the type that a field is given, so that it is what is wanted; empty for none} */
    private String type(Column column, TargetField field) {
        if (field.form() == null || !field.codes().isEmpty()) {
            return "";
        }
        List<String> texts = NamedColumns.texts(column);
        boolean text = column.cells().stream().anyMatch(cell -> cell != null && cell.kind() == Kind.TEXT);
        switch (field.form()) {
            case NUMBER -> {
                List<Forms.NumberForm> forms = Forms.numbers(texts);
                String arguments = forms.isEmpty() ? "" : forms.get(0).arguments();
                boolean needed = typed && text || !arguments.isEmpty();
                return !needed ? "" : arguments.isEmpty() ? "number" : "number(" + arguments + ")";
            }
            case DATE, TIME, DATETIME -> {
                List<Forms.DateForm> forms = Forms.dates(texts);
                boolean same = !forms.isEmpty()
                        && forms.get(0).moment().name().equals(field.form().name())
                        && !forms.get(0).pattern().isEmpty();
                return same
                        ? forms.get(0).function() + "("
                                + Texts.single(forms.get(0).pattern()) + ")"
                        : "";
            }
            case BOOLEAN -> {
                return typed && text ? booleans(texts) : "";
            }
            default -> {
                return typed && !text && !texts.isEmpty() ? "text" : "";
            }
        }
    }

    private static String booleans(List<String> texts) {
        for (String[] words :
                new String[][] {{"true", "false"}, {"Y", "N"}, {"yes", "no"}, {"1", "0"}, {"J", "N"}, {"T", "F"}}) {
            if (Set.of(words).containsAll(texts)) {
                return words[0].equals("true") ? "boolean" : "boolean('" + words[0] + "', '" + words[1] + "')";
            }
        }
        return "boolean";
    }

    private Body values(TargetField field, String written, Columns columns, String around) {
        Repeat best = null;
        Repeat.Values values = null;
        double most = NamedColumns.LIKE;
        for (Repeat repeat : columns.repeated()) {
            for (Repeat.Values each : repeat.values()) {
                double likeness = Names.likeness(Names.singular(field.name()), each.name()) - repeat.cost() * 0.1;
                if (likeness > most) {
                    most = likeness;
                    best = repeat;
                    values = each;
                }
            }
        }
        if (best != null && values != null) {
            return fixed(written, "[" + best.expression() + values.step() + "]", "a guess: a name like it");
        }
        NamedColumns.Match one = NamedColumns.match(field, columns.single(), field.name(), around);
        if (one != null) {
            return fixed(written, "[" + one.column().expression() + "]", "a guess: a name like it");
        }
        return missing(field, written, 1);
    }

    private static Body missing(TargetField field, String written, int total) {
        List<Node> nodes = field.required()
                ? List.of(new Body.FieldRule(
                        written, "", false, "todo(" + Texts.quoted("a list of " + field.wanted()) + ")", ""))
                : List.of();
        return new Body(nodes, 0, total, 0);
    }

    /** A loop over that which is most like the records that are wanted. */
    private Body list(TargetField field, Scope scope, String around) {
        Set<String> names = new HashSet<>(taken);
        scope.vars().forEach(variable -> names.add(variable.name()));
        Body best = null;
        double most = LIKE_LIST;
        List<Chain> plain = new ArrayList<>();
        for (Chain chain : Chain.all(scope, new Columns(scope).repeated(), names)) {
            if (open.contains(chain.over())) {
                continue;
            }
            Scope within = chain.scope();
            if (within.size() == 0) {
                continue;
            }
            if (chain.vars().size() == 1) {
                plain.add(chain);
            }
            double score = score(field, chain, within);
            if (score > most) {
                Body body = loop(field, chain, within, around);
                if (body.right() > 0) {
                    most = score;
                    best = body;
                }
            }
        }
        if (best != null) {
            return best;
        }
        if (plain.size() == 1 && field.required()) {
            // There is nothing else that it could be.
            return loop(field, plain.get(0), plain.get(0).scope(), around);
        }
        String written = prefixes.written(field.name(), field.namespace());
        if (!field.required() || field.isScalar()) {
            return missing(field, written, Math.max(1, count(field)));
        }
        String row = Names.first(names, "row", "each");
        Body body = record(field, unknown(scope, row), field.name());
        return Body.FieldLoop.unknown(written, row, body);
    }

    /** {@return a scope with one more name, in which nothing is known of any} */
    private static Scope unknown(Scope scope, String name) {
        List<Var> vars = new ArrayList<>(scope.vars());
        vars.add(new Var(name, Var.Form.ONE));
        List<@Nullable Object[]> turns = new ArrayList<>();
        turns.add(new @Nullable Object[vars.size()]);
        return new Scope(vars, turns);
    }

    private static int count(TargetField field) {
        return field.isScalar()
                ? 1
                : field.fields().stream().mapToInt(NameDrafter::count).sum();
    }

    /** How much the records of a loop are like those that are wanted. */
    private double score(TargetField field, Chain chain, Scope within) {
        List<Var> own = chain.vars();
        Set<String> names = new HashSet<>();
        own.forEach(variable -> names.add(variable.name()));
        Columns all = new Columns(within);
        List<Column> columns = all.single().stream()
                .filter(column -> names.contains(Aligner.root(column)))
                .toList();
        List<Repeat> repeats = all.repeated().stream()
                .filter(repeat -> names.contains(repeat.expression().replaceAll("\\..*", "")))
                .toList();
        double sum = 0;
        int fields = 0;
        for (TargetField each : field.fields()) {
            if (each.isScalar() && !each.several()) {
                NamedColumns.Match match = NamedColumns.match(each, columns, each.name(), field.name());
                NamedTotals.Found total = NamedColumns.total(each, each.name(), match, repeats);
                sum += total != null ? total.likeness() : match == null ? 0 : match.likeness();
                fields++;
            } else if (!each.several()) {
                for (TargetField inner : each.fields()) {
                    if (inner.isScalar()) {
                        NamedColumns.Match match = NamedColumns.match(inner, columns, inner.name(), each.name());
                        sum += match == null ? 0 : match.likeness();
                        fields++;
                    }
                }
            }
        }
        double like = Names.likeness(field.name(), own.get(own.size() - 1).about());
        return (fields == 0 ? 0 : sum / fields) + 0.4 * like - 0.1 * (own.size() - 1);
    }

    private Body loop(TargetField field, Chain chain, Scope within, String around) {
        String written = prefixes.written(field.name(), field.namespace());
        TargetField inner = field.fields().stream()
                .filter(each -> each.several() && each.record())
                .findFirst()
                .orElse(null);
        String joined = NamedConditions.joined(chain, within);
        String clause = chain.clause() + (joined.isEmpty() ? NamedConditions.chosen(field, chain, within) : joined);
        boolean totals = field.fields().stream().anyMatch(each -> isTotal(each, chain));
        Grouping grouping = inner == null && !totals
                ? null
                : Grouping.find(
                        field,
                        inner,
                        chain,
                        within,
                        (each, columns) ->
                                columnOf(each, columns, chain, field.fields().contains(each) ? field : inner),
                        taken);
        Body grouped = grouping == null
                ? null
                : turns(field, written, grouping.scope(), chain, clause + " " + grouping.clause());
        if (grouped != null && inner != null) {
            return grouped;
        }
        Body plain = turns(field, written, within, chain, clause);
        return grouped != null && grouped.right() > plain.right() ? grouped : plain;
    }

    /** A loop whose turns may be numbered. */
    private Body turns(TargetField field, String written, Scope scope, Chain chain, String clause) {
        Set<String> names = new HashSet<>(taken);
        scope.vars().forEach(variable -> names.add(variable.name()));
        String number = Names.variable("n", names);
        List<@Nullable Object[]> turns = new ArrayList<>();
        scope.turns().forEach(turn -> turns.add(Scope.joined(turn, new Cell(Kind.NUMBER, "1"))));
        open.push(chain.over());
        Body body = record(field, scope.with(List.of(new Var(number, Var.Form.NUMBER)), turns), field.name());
        open.pop();
        String numbered = isWritten(number, body) ? " numbered " + number : "";
        return new Body(List.of(new Body.FieldLoop(written, clause + numbered, body)), body.right(), body.total(), 0);
    }

    private static boolean isWritten(String name, Body body) {
        for (Node node : body.nodes()) {
            boolean here =
                    node instanceof Body.FieldRule rule && rule.expression().equals(name);
            boolean below = node instanceof Body.FieldRecord record && isWritten(name, record.body())
                    || node instanceof Body.FieldLoop loop && isWritten(name, loop.body());
            if (here || below) {
                return true;
            }
        }
        return false;
    }

    /** Whether a field is to be made of several turns of a loop. */
    private static boolean isTotal(TargetField field, Chain chain) {
        Repeat turns = new Repeat("", chain.vars().get(chain.vars().size() - 1).about(), List.of(), 0);
        return field.isScalar()
                && !field.several()
                && (NamedTotals.isAsked(field.name())
                        || field.form() == Kind.NUMBER
                                && NamedTotals.find(field.name(), true, List.of(turns))
                                        .isPresent());
    }

    /** {@return the column of some that is most like a field, or null} */
    private @Nullable Column columnOf(
            TargetField field, List<Column> columns, Chain chain, @Nullable TargetField around) {
        String thing = NamedColumns.isIdentity(field.name()) && around != null ? around.name() : "";
        NamedColumns.Match match = NamedColumns.match(field, columns, field.name(), thing);
        if (isTotal(field, chain)) {
            return match == null || match.likeness() < NamedColumns.SAME ? null : match.column();
        }
        match = match == null ? NamedColumns.onlyOne(field, columns) : match;
        return match == null ? null : match.column();
    }
}
