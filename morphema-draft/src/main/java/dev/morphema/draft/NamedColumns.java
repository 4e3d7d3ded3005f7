package dev.morphema.draft;

import dev.morphema.value.Kind;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Which column of a source a field of a target is named after. */
final class NamedColumns {
    static final double LIKE = 0.47;

    static final double SAME = 0.95;

    static final double IDENTITY = 0.65;

    /** What costs this much is no field of the record at hand. */
    private static final double FAR = 0.5;
    /** Values that do not fit are worse than no rule. */
    private static final double MISFIT = 1;

    /** What names a thing, as a field of it. */
    private static final Set<String> IDENTITIES = Set.of("id", "no", "nr", "number", "code", "key", "name", "ref");

    private static final Set<String> ORDINALS =
            Set.of("seq", "sequence", "line", "position", "pos", "index", "row", "rank", "no", "nr", "number");

    private NamedColumns() {}

    /** A column with how much its name is like that of a field. */
    record Match(Column column, double likeness) {}

    /** {@return the total that a name asks for, if that is likelier than a column; or null} */
    static NamedTotals.@Nullable Found total(
            TargetField field, String about, @Nullable Match match, List<Repeat> repeats) {
        boolean number = field.form() == Kind.NUMBER;
        boolean may = field.codes().isEmpty() && (number || field.form() == null || field.form() == Kind.TEXT);
        NamedTotals.Found found = may ? NamedTotals.find(about, number, repeats).orElse(null) : null;
        return found == null || match != null && match.likeness() >= found.likeness() ? null : found;
    }

    /** {@return the number of the turn, if that is what a field is named after; or null} */
    static @Nullable Column number(TargetField field, List<Column> columns) {
        List<String> words = Names.words(field.name());
        boolean wanted = field.form() == Kind.NUMBER && !words.isEmpty() && ORDINALS.contains(words.get(0));
        return columns.stream()
                .filter(column -> wanted && column.name().equals(Column.NUMBER))
                .findFirst()
                .orElse(null);
    }

    /** {@return the only column near by that has dates or times where such are wanted, or null} */
    static @Nullable Match onlyOne(TargetField field, List<Column> columns) {
        Kind form = field.form();
        boolean ownNumber = form == Kind.NUMBER && field.name().isEmpty();
        if (!ownNumber && form != Kind.DATE && form != Kind.DATETIME && form != Kind.TIME) {
            return null;
        }
        List<Column> fitting = columns.stream()
                .filter(column -> ownNumber ? isNumeric(column) : isDated(column, form))
                .toList();
        double nearest = fitting.stream().mapToDouble(Column::cost).min().orElse(FAR);
        List<Column> near = fitting.stream()
                .filter(column -> column.cost() == nearest && nearest < FAR)
                .toList();
        return near.size() == 1 ? new Match(near.get(0), 0) : null;
    }

    private static boolean isNumeric(Column column) {
        return !column.name().equals(Column.NUMBER)
                && !Forms.numbers(texts(column)).isEmpty();
    }

    private static boolean isDated(Column column, Kind form) {
        List<Forms.DateForm> forms = Forms.dates(texts(column));
        return !forms.isEmpty() && forms.get(0).moment().name().equals(form.name());
    }

    static @Nullable Match match(TargetField field, List<Column> columns, String about, String around) {
        Match best = null;
        for (Column column : columns) {
            if (column.name().equals(Column.NUMBER)) {
                continue;
            }
            String last = column.expression().replaceAll(".*[.@]", "").replace("'", "");
            double plain = Math.max(Names.likeness(about, last), Names.likeness(about, column.name()) - 0.02);
            // What is around a field alone tells nothing of it.
            double whole = around.isEmpty() || plain <= 0 ? 0 : Names.likeness(around + " " + about, column.name());
            String root = Names.singular(Aligner.root(column));
            double ofRoot = 0.9 * Names.likeness(about, root + " " + last);
            double thing = isIdentity(about) && Names.likeness(around, column.name()) > SAME ? IDENTITY : 0;
            double likeness = Math.max(Math.max(plain, whole), Math.max(ofRoot, thing))
                    - column.cost() * 0.05
                    - (mayFit(field, column) ? 0 : MISFIT);
            if (likeness >= LIKE && (best == null || likeness > best.likeness())) {
                best = new Match(column, likeness);
            }
        }
        return best;
    }

    static boolean isIdentity(String name) {
        List<String> words = Names.words(name);
        return words.size() == 1 && IDENTITIES.contains(words.get(0));
    }

    /** Whether some values of a column can be what a field wants. */
    private static boolean mayFit(TargetField field, Column column) {
        if (field.form() == null || field.form() == Kind.TEXT || !column.hasAny()) {
            return true;
        }
        List<String> texts = texts(column);
        if (texts.contains(Examples.ANY_TEXT)) {
            return true;
        }
        return switch (field.form()) {
            case NUMBER -> !Forms.numbers(texts).isEmpty();
            case DATE, DATETIME, TIME ->
                !Forms.dates(texts).isEmpty() || texts.stream().allMatch(NamedColumns::isIso);
            case BOOLEAN -> new HashSet<>(texts).size() <= 2;
            default -> true;
        };
    }

    private static boolean isIso(String text) {
        return text.matches("[0-9]{4}-[0-9]{2}-[0-9]{2}.*");
    }

    static List<String> texts(Column column) {
        return column.cells().stream()
                .filter(Objects::nonNull)
                .map(Cell::text)
                .filter(text -> !text.isBlank())
                .toList();
    }
}
