package dev.morphema.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Rules that join the values that are there, with a mark between them. */
final class JoinedTexts {
    private static final List<String> MARKS = List.of(", ", " ", ",", "; ", ";", "|", "/", " / ", "-", " - ", "\n");
    private static final int MOST_PARTS = 6;

    private final Wanted wanted;
    private final Consumer<Rule> found;
    private int tries = 20_000;

    JoinedTexts(Wanted wanted, Consumer<Rule> found) {
        this.wanted = wanted;
        this.found = found;
    }

    void find(List<Column> columns) {
        List<Column> usable = columns.stream().filter(Column::hasAny).toList();
        for (String mark : MARKS) {
            if (wanted.distinct().stream().anyMatch(text -> text.contains(mark))) {
                extend(usable, mark, new int[wanted.cells().size()], List.of());
            }
        }
    }

    private void extend(List<Column> columns, String mark, int[] at, List<Column> parts) {
        if (tries-- < 0) {
            return;
        }
        if (parts.size() > 1 && isDone(at)) {
            List<String> expressions = new ArrayList<>();
            double cost = 1.8;
            boolean gaps = false;
            for (Column part : parts) {
                expressions.add(part.expression());
                cost += 0.4 + part.cost() * 0.3;
                gaps |= part.cells().contains(null);
            }
            if (gaps) {
                found.accept(Rule.of(
                        "join([" + String.join(", ", expressions) + "], " + Texts.raw(mark) + ")",
                        wanted.name(),
                        cost));
            }
            return;
        }
        for (Column column : parts.size() < MOST_PARTS ? columns : List.<Column>of()) {
            int[] next = parts.contains(column) ? null : after(column, mark, at);
            if (next != null) {
                List<Column> more = new ArrayList<>(parts);
                more.add(column);
                extend(columns, mark, next, more);
            }
        }
    }

    private boolean isDone(int[] at) {
        for (int i = 0; i < at.length; i++) {
            Cell want = wanted.cells().get(i);
            if (at[i] < (want == null ? 0 : want.text().length())) {
                return false;
            }
        }
        return true;
    }

    /**
     * {@return how far the texts go with one more value, where it is; null if one has something
     * else}
     */
    private int @Nullable [] after(Column column, String mark, int[] at) {
        int[] next = at.clone();
        boolean any = false;
        for (int i = 0; i < at.length; i++) {
            Cell want = wanted.cells().get(i);
            Cell cell = column.cells().get(i);
            if (cell == null) {
                continue;
            }
            String piece =
                    (at[i] == 0 ? "" : mark) + Objects.requireNonNull(cell).text();
            if (want == null || !want.text().startsWith(piece, at[i])) {
                return null;
            }
            next[i] = at[i] + piece.length();
            any = true;
        }
        return any ? next : null;
    }
}
