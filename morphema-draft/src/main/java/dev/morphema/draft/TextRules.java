package dev.morphema.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** Rules that take a text apart, or put several together. */
final class TextRules {
    private static final List<String> MARKS =
            List.of(" ", "-", "/", ",", ", ", ";", ":", "|", ".", "_", "@", "#", "(", " - ", " / ");

    private static final int MOST_COLUMNS = 60;
    private static final int MOST_PARTS = 4;
    private static final int MOST_LETTERS = 12;

    private final Wanted wanted;
    private final Consumer<Rule> found;

    TextRules(Wanted wanted, Consumer<Rule> found) {
        this.wanted = wanted;
        this.found = found;
    }

    /**
     * @param columns what is at hand
     * @param ends the same, and what is first and last of what repeats: as parts of longer texts
     */
    void find(List<Column> columns, List<Column> ends) {
        if (wanted.distinct().size() < 2 && !wanted.isTelling()) {
            return;
        }
        List<Column> usable = new ArrayList<>();
        for (Column column : columns) {
            if (usable.size() < MOST_COLUMNS && covers(column)) {
                usable.add(column);
                parts(column);
            }
        }
        List<Column> parts =
                ends.stream().filter(this::covers).limit(MOST_COLUMNS).toList();
        templates(parts, columns);
    }

    /** Whether a column has a value wherever one is wanted. */
    private boolean covers(Column column) {
        for (int i = 0; i < column.cells().size(); i++) {
            if (wanted.cells().get(i) != null && Cell.filled(column.cells().get(i)) == null) {
                return false;
            }
        }
        return true;
    }

    private boolean gives(Column column, UnaryOperator<@Nullable String> change) {
        for (int i = 0; i < column.cells().size(); i++) {
            Cell want = wanted.cells().get(i);
            Cell cell = column.cells().get(i);
            String given = cell == null ? null : change.apply(cell.text());
            if (!Objects.equals(given, want == null ? null : want.text())) {
                return false;
            }
        }
        return true;
    }

    private void offer(Column column, String expression, double cost, UnaryOperator<@Nullable String> change) {
        if (gives(column, change)) {
            found.accept(Rule.of(expression, column.name(), column.cost() + cost));
        }
    }

    private void parts(Column column) {
        String path = column.expression();
        for (String mark : MARKS) {
            String quoted = Texts.raw(mark);
            offer(column, "before(" + path + ", " + quoted + ")", 2, text -> before(text, mark));
            offer(column, "after(" + path + ", " + quoted + ")", 2, text -> after(text, mark));
            offer(column, "trim(before(" + path + ", " + quoted + "))", 2.3, text -> trimmed(before(text, mark)));
            offer(column, "trim(after(" + path + ", " + quoted + "))", 2.3, text -> trimmed(after(text, mark)));
            offer(column, "last(split(" + path + ", " + quoted + "))", 2.5, text -> last(text, mark));
            for (int n = 2; n <= MOST_PARTS; n++) {
                int position = n;
                offer(
                        column,
                        "nth(split(" + path + ", " + quoted + "), " + n + ")",
                        2.6,
                        text -> nth(text, mark, position));
            }
            offer(column, "replace(" + path + ", " + quoted + ", \"\")", 2.2, text -> text.replace(mark, ""));
            for (String other : List.of("-", " ", "_", "/", ".", ",")) {
                if (!other.equals(mark)) {
                    offer(
                            column,
                            "replace(" + path + ", " + quoted + ", " + Texts.raw(other) + ")",
                            2.6,
                            text -> text.replace(mark, other));
                }
            }
        }
        cut(column);
        padded(column);
    }

    private static @Nullable String before(String text, String mark) {
        int at = text.indexOf(mark);
        return at < 0 ? null : text.substring(0, at);
    }

    private static @Nullable String after(String text, String mark) {
        int at = text.indexOf(mark);
        return at < 0 ? null : text.substring(at + mark.length());
    }

    private static @Nullable String last(String text, String mark) {
        return text.substring(text.lastIndexOf(mark) < 0 ? 0 : text.lastIndexOf(mark) + mark.length());
    }

    private static @Nullable String nth(String text, String mark, int n) {
        int from = 0;
        for (int i = 1; i < n; i++) {
            int at = text.indexOf(mark, from);
            if (at < 0) {
                return null;
            }
            from = at + mark.length();
        }
        int end = text.indexOf(mark, from);
        return text.substring(from, end < 0 ? text.length() : end);
    }

    private static @Nullable String trimmed(@Nullable String text) {
        return text == null ? null : text.trim();
    }

    /** Parts at one position in all texts. */
    private void cut(Column column) {
        int first = firstWanted();
        if (first < 0) {
            return;
        }
        String want = Objects.requireNonNull(wanted.cells().get(first)).text();
        String text = Objects.requireNonNull(column.cells().get(first)).text();
        int length = want.length();
        if (length == 0 || length >= text.length()) {
            return;
        }
        String path = column.expression();
        offer(column, "left(" + path + ", " + length + ")", 2, t -> t.substring(0, Math.min(length, t.length())));
        offer(column, "right(" + path + ", " + length + ")", 2, t -> t.substring(Math.max(0, t.length() - length)));
        for (int at = text.indexOf(want); at >= 0; at = text.indexOf(want, at + 1)) {
            int from = at;
            offer(
                    column,
                    "substring(" + path + ", " + (at + 1) + ", " + length + ")",
                    2.3,
                    t -> t.substring(Math.min(from, t.length()), Math.min(from + length, t.length())));
            offer(
                    column,
                    "substring(" + path + ", " + (at + 1) + ")",
                    2.2,
                    t -> t.substring(Math.min(from, t.length())));
        }
    }

    private void padded(Column column) {
        int first = firstWanted();
        String want = first < 0
                ? ""
                : Objects.requireNonNull(wanted.cells().get(first)).text();
        if (want.length() > 1) {
            int length = want.length();
            for (String fill : List.of("0", " ")) {
                offer(
                        column,
                        "padLeft(" + column.expression() + ", " + length + ", '" + fill + "')",
                        2,
                        text -> fill.repeat(Math.max(0, length - text.length())) + text);
            }
        }
        offer(
                column,
                "text(integer(" + column.expression() + "))",
                2.4,
                text -> text.matches("0+[0-9]+")
                        ? text.replaceFirst("^0+(?=[0-9])", "")
                        : text.matches("[0-9]+") ? text : null);
    }

    private int firstWanted() {
        for (int i = 0; i < wanted.cells().size(); i++) {
            if (wanted.cells().get(i) != null) {
                return i;
            }
        }
        return -1;
    }

    /** Several values with the same letters between them. */
    private void templates(List<Column> columns, List<Column> all) {
        List<String> wants = new ArrayList<>();
        List<List<String>> values = new ArrayList<>();
        for (int i = 0; i < wanted.cells().size(); i++) {
            Cell want = wanted.cells().get(i);
            if (want == null) {
                continue;
            }
            wants.add(want.text());
            List<String> row = new ArrayList<>();
            for (Column column : columns) {
                row.add(Objects.requireNonNull(column.cells().get(i)).text());
            }
            values.add(row);
        }
        if (!wants.isEmpty()) {
            new Templates(columns, wants, values).extend(new int[wants.size()], List.of(), 0, 0);
        }
        new JoinedTexts(wanted, found).find(all);
    }

    /** A template; where some turns have no value, a text of which all parts must be there. */
    private @Nullable String written(List<Part> parts) {
        boolean gaps = wanted.count() < wanted.cells().size();
        StringBuilder template = new StringBuilder();
        List<String> arguments = new ArrayList<>();
        for (int i = 0; i < wanted.cells().size(); i++) {
            int turn = i;
            boolean whole = parts.stream()
                    .allMatch(part ->
                            part.column() == null || part.column().cells().get(turn) != null);
            if (whole != (wanted.cells().get(i) != null)) {
                return null;
            }
        }
        for (Part part : parts) {
            String letters = Texts.inTemplate(part.letters());
            template.append(
                    part.column() == null ? letters : "{" + part.column().expression() + "}");
            String before = arguments.isEmpty() ? "" : arguments.get(arguments.size() - 1);
            if (part.column() == null && before.startsWith("\"")) {
                arguments.set(arguments.size() - 1, before.substring(0, before.length() - 1) + letters + '"');
            } else {
                arguments.add(
                        part.column() == null
                                ? '"' + letters + '"'
                                : part.column().expression());
            }
        }
        return gaps ? "concat(" + String.join(", ", arguments) + ")" : '"' + template.toString() + '"';
    }

    /** A part of a template: a letter, or the value of a column. */
    private record Part(String letters, @Nullable Column column) {}

    private static List<Part> with(List<Part> parts, Part more) {
        List<Part> all = new ArrayList<>(parts);
        all.add(more);
        return all;
    }

    /** Tries what may come next, at the same time in all texts. */
    private final class Templates {
        private final List<Column> columns;
        private final List<String> wants;
        private final List<List<String>> values;
        private int tries = 20_000;

        Templates(List<Column> columns, List<String> wants, List<List<String>> values) {
            this.columns = columns;
            this.wants = wants;
            this.values = values;
        }

        void extend(int[] at, List<Part> parts, int letters, double cost) {
            int values = parts.size() - letters;
            if (tries-- < 0) {
                return;
            }
            if (isDone(at)) {
                String written = values > 0 && parts.size() > 1 ? written(parts) : null;
                if (written != null) {
                    found.accept(Rule.of(written, wanted.name(), 1.5 + cost));
                }
                return;
            }
            for (int c = 0; values < MOST_PARTS && c < columns.size(); c++) {
                int[] next = after(at, c);
                if (next != null) {
                    double more = 0.5 + columns.get(c).cost() * 0.3;
                    extend(next, with(parts, new Part("", columns.get(c))), letters, cost + more);
                }
            }
            int[] next = letters < MOST_LETTERS ? afterLetter(at) : null;
            if (next != null) {
                String letter = wants.get(0).substring(at[0], next[0]);
                double word = wanted.distinct().size() == 1 ? 0.6 : 0.25;
                double more = Character.isLetterOrDigit(letter.charAt(0)) ? word : 0.08;
                extend(next, with(parts, new Part(letter, null)), letters + 1, cost + more);
            }
        }

        private boolean isDone(int[] at) {
            for (int i = 0; i < at.length; i++) {
                if (at[i] < wants.get(i).length()) {
                    return false;
                }
            }
            return true;
        }

        private int @Nullable [] after(int[] at, int column) {
            int[] next = new int[at.length];
            for (int i = 0; i < at.length; i++) {
                String value = values.get(i).get(column);
                if (!wants.get(i).startsWith(value, at[i])) {
                    return null;
                }
                next[i] = at[i] + value.length();
            }
            return next;
        }

        private int @Nullable [] afterLetter(int[] at) {
            int[] next = new int[at.length];
            for (int i = 0; i < at.length; i++) {
                if (at[i] >= wants.get(i).length()
                        || wants.get(i).charAt(at[i]) != wants.get(0).charAt(at[0])) {
                    return null;
                }
                next[i] = at[i] + 1;
            }
            return next;
        }
    }
}
