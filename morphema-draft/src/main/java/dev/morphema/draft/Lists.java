package dev.morphema.draft;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** Finds rules that give a list of single values. */
final class Lists {
    private static final List<String> MARKS = List.of("|", ",", ";", " ", ", ", "; ", "/", "-");

    private final List<List<String>> wanted;

    /** @param held for each turn the values of the list */
    Lists(List<List<Item>> held, boolean typed) {
        this.wanted = held.stream()
                .map(items -> items.stream()
                        .map(item -> item.cell() == null ? "" : text(item.cell(), typed))
                        .toList())
                .toList();
    }

    private static String text(@Nullable Cell cell, boolean typed) {
        // A number in a list is told from its text, where the format does.
        return cell == null ? "" : typed ? cell.kind() + " " + cell.text() : "TEXT " + cell.text();
    }

    /** {@return the rule, or null if there is none} */
    @Nullable
    String find(RuleFinder rules) {
        for (Repeat repeat : rules.repeats()) {
            for (Repeat.Values values : repeat.values()) {
                String many = repeat.expression() + values.step();
                if (gives(values, texts -> texts)) {
                    return "[" + many + "]";
                }
                if (gives(values, texts -> List.copyOf(new LinkedHashSet<>(texts)))) {
                    return "distinct(" + many + ")";
                }
                if (gives(values, texts -> texts.stream().sorted().toList())) {
                    return "sorted(" + many + ")";
                }
                if (gives(values, texts -> texts.stream().sorted().distinct().toList())) {
                    return "sorted(distinct(" + many + "))";
                }
            }
        }
        for (Column column : rules.columns()) {
            for (String mark : MARKS) {
                if (split(column, mark, false)) {
                    return "split(" + column.expression() + ", " + Texts.raw(mark) + ")";
                }
                if (split(column, mark, true)) {
                    return "[trim(part) for part in split(" + column.expression() + ", " + Texts.raw(mark) + ")]";
                }
            }
        }
        return several(rules.columns());
    }

    private boolean gives(Repeat.Values values, UnaryOperator<List<String>> change) {
        boolean any = false;
        for (int i = 0; i < wanted.size(); i++) {
            List<String> texts = new ArrayList<>();
            for (Cell cell : values.cells().get(i)) {
                if (cell != null) {
                    texts.add(
                            wanted.get(i).isEmpty() || wanted.get(i).get(0).startsWith("TEXT ")
                                    ? "TEXT " + cell.text()
                                    : cell.kind() + " " + cell.text());
                }
            }
            if (!change.apply(texts).equals(wanted.get(i))) {
                return false;
            }
            any |= !texts.isEmpty();
        }
        return any;
    }

    private boolean split(Column column, String mark, boolean trimmed) {
        boolean any = false;
        for (int i = 0; i < wanted.size(); i++) {
            Cell cell = column.cells().get(i);
            List<String> parts = new ArrayList<>();
            if (cell != null) {
                for (String part : cell.text().split(java.util.regex.Pattern.quote(mark), -1)) {
                    parts.add("TEXT " + (trimmed ? part.trim() : part));
                }
            }
            if (!parts.equals(wanted.get(i))) {
                return false;
            }
            any |= parts.size() > 1;
        }
        return any;
    }

    /** One column for each place in the list. */
    private @Nullable String several(List<Column> columns) {
        int size = wanted.stream().mapToInt(List::size).max().orElse(0);
        if (size == 0
                || size > 8
                || wanted.stream().mapToInt(List::size).distinct().count() > 1) {
            return null;
        }
        List<String> parts = new ArrayList<>();
        for (int k = 0; k < size; k++) {
            int place = k;
            Column found = columns.stream()
                    .filter(column -> isAt(column, place))
                    .findFirst()
                    .orElse(null);
            if (found == null) {
                return null;
            }
            parts.add(found.expression());
        }
        return "[" + String.join(", ", parts) + "]";
    }

    private boolean isAt(Column column, int place) {
        for (int i = 0; i < wanted.size(); i++) {
            Cell cell = column.cells().get(i);
            String want = wanted.get(i).get(place);
            if (cell == null
                    || !Objects.equals(want, (want.startsWith("TEXT ") ? "TEXT" : cell.kind()) + " " + cell.text())) {
                return false;
            }
        }
        return true;
    }
}
