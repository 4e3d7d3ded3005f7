package dev.morphema.cli;

import dev.morphema.Looked;
import dev.morphema.shape.LearnedShape;
import dev.morphema.shape.ValueProfile;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Prints what files hold, as a tree: a line for each field, in the order of the document. */
final class ShapePrinter {
    private static final int WIDEST_NAME = 40;
    private static final int WIDEST_TYPE = 34;
    private static final int WIDEST_VALUE = 24;
    private static final int EXAMPLES = 4;
    private static final String GAP = "  ";
    private static final int USUAL_WIDTH = 120;

    private final PrintWriter out;
    private final boolean colours;
    private final int width;
    private final boolean values;
    private final List<Line> lines = new ArrayList<>();

    /** One field. */
    private record Line(String name, String type, String times, String values) {}

    /** @param values whether examples may be shown */
    ShapePrinter(PrintWriter out, Look look, boolean values) {
        this.out = out;
        this.colours = look.colourOut();
        this.width = look.width() == 0 ? USUAL_WIDTH : look.width();
        this.values = values;
    }

    void print(Looked looked, String name) {
        out.println(Colour.FAINT.of("source ", colours) + Colour.NAME.of(name, colours) + ": " + looked.source());
        out.println();
        if (looked.records() == 0) {
            printEmpty(looked.shape());
            return;
        }
        boolean sequence = looked.shape().isList();
        String what = sequence ? "record" : "document";
        String each = looked.records() == 1 ? "" : ", each";
        out.println(count(looked.records(), what) + (looked.isComplete() ? "" : ", and more") + each + ":");
        out.println();
        if (!looked.shape().kinds().keySet().equals(Set.of(Kind.RECORD))
                || looked.shape().nulls() > 0) {
            lines.add(new Line("(value)", type(looked.shape()), "", values(looked.shape())));
        }
        collect(looked.shape(), 0);
        printLines();
        Set<String> namespaces = new LinkedHashSet<>();
        addNamespaces(looked.shape(), namespaces);
        if (!namespaces.isEmpty()) {
            out.println();
            out.println("Namespaces, which a name without prefix need not say: " + String.join(", ", namespaces));
        }
        printEnd(looked, name, sequence);
    }

    private void printEmpty(LearnedShape shape) {
        if (shape.names().isEmpty()) {
            out.println("There is nothing in it.");
            return;
        }
        out.println("No records, but the names of their fields:");
        out.println();
        shape.names().forEach(name -> out.println(GAP + Colour.NAME.of(name.toString(), colours)));
    }

    private void printEnd(Looked looked, String name, boolean sequence) {
        long around = sequence ? looked.records() : 1;
        String records = repeating(looked.shape(), "", around, LearnedShape::isRecord);
        String path = records == null && !sequence ? repeating(looked.shape(), "", around, field -> true) : records;
        out.println();
        if (path != null) {
            out.println("What repeats: " + Colour.NAME.of("for x in " + name + path, colours));
        } else if (sequence) {
            out.println("What repeats: " + Colour.NAME.of("for x in " + name, colours));
        } else {
            out.println("Nothing repeats.");
        }
        Map<String, List<String>> byFiles = new LinkedHashMap<>();
        looked.onlyIn().entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .forEach(only -> byFiles.computeIfAbsent(
                                only.getValue().size() > EXAMPLES
                                        ? count(only.getValue().size(), "file") + " of "
                                                + looked.files().size()
                                        : only.getValue().stream()
                                                .map(file -> file.getFileName().toString())
                                                .collect(Collectors.joining(", ")),
                                files -> new ArrayList<>())
                        .add(only.getKey()));
        byFiles.forEach((files, paths) -> out.println("Only in " + files + ": " + String.join(", ", paths)));
    }

    private static void addNamespaces(LearnedShape shape, Set<String> namespaces) {
        for (FieldName name : shape.names()) {
            if (name.namespace() != null && !name.namespace().isEmpty()) {
                namespaces.add(name.namespace());
            }
            LearnedShape field = shape.field(name);
            if (field != null) {
                addNamespaces(field, namespaces);
            }
        }
    }

    private static String count(long count, String what) {
        return String.format(Locale.ROOT, "%,d %s%s", count, what, count == 1 ? "" : "s");
    }

    private void collect(LearnedShape shape, int depth) {
        for (FieldName name : shape.names()) {
            LearnedShape field = shape.field(name);
            if (field == null || name.equals(FieldName.OWN_TEXT)) {
                continue;
            }
            String shown = GAP.repeat(depth) + name;
            lines.add(new Line(shown, type(field), times(field, shape.values()), values(field)));
            collect(field, depth + 1);
        }
    }

    /** {@return the types of the values, as a source may declare them} */
    private static String type(LearnedShape shape) {
        List<String> types = new ArrayList<>();
        Map<Kind, Long> kinds = shape.kinds();
        for (Kind kind : kinds.keySet()) {
            if (kind == Kind.RECORD && !shape.names().contains(FieldName.OWN_TEXT)) {
                types.add("record");
            } else if (kind == Kind.RECORD || kind == Kind.TEXT) {
                types.add(textType(shape));
            } else {
                types.add(kind.name().toLowerCase(Locale.ROOT));
            }
        }
        if (shape.nulls() > 0) {
            types.add("null");
        }
        String all = types.stream().distinct().collect(Collectors.joining(" or "));
        return all.isEmpty() ? "nothing" : all;
    }

    private static String textType(LearnedShape shape) {
        List<String> types = shape.profile().map(ValueProfile::types).orElse(List.of());
        return types.isEmpty() ? "text" : types.get(0);
    }

    /** {@return how often there is a value, of the records around} */
    private static String times(LearnedShape field, long around) {
        String present = field.present() >= around ? "always" : field.present() + " of " + around;
        if (field.most() < 2 && !field.isList()) {
            return present;
        }
        String each = field.least() == field.most()
                ? field.most() + " each"
                : field.least() + " to " + field.most() + " each";
        return field.present() >= around ? each : present + ", " + each;
    }

    private String values(LearnedShape shape) {
        ValueProfile profile = shape.profile().orElseThrow();
        if (!values || profile.count() == 0) {
            return "";
        }
        List<String> parts = new ArrayList<>();
        if (profile.constant().isPresent()) {
            parts.add("only " + cut(profile.constant().get()));
        } else if (profile.codes().isPresent()) {
            profile.codes().get().forEach((code, times) -> {
                if (!code.isBlank()) {
                    parts.add(cut(code) + " (" + times + ")");
                }
            });
        } else if (isNumber(shape, profile)) {
            String least = profile.least().orElseThrow().toString();
            String most = profile.most().orElseThrow().toString();
            parts.add(least.equals(most) ? least : least + " to " + most);
        } else {
            List<String> examples = profile.examples(EXAMPLES + 1);
            examples.stream().limit(EXAMPLES).forEach(example -> parts.add(cut(example)));
            if (examples.size() > EXAMPLES) {
                parts.add("…");
            }
        }
        if (profile.blank() > 0) {
            parts.add(profile.blank() + " blank");
        }
        return String.join(" · ", parts);
    }

    private static boolean isNumber(LearnedShape shape, ValueProfile profile) {
        boolean declared =
                profile.types().stream().findFirst().filter("number"::equals).isPresent();
        return profile.least().isPresent()
                && (declared || shape.kinds().keySet().equals(Set.of(Kind.NUMBER)));
    }

    private static String cut(String value) {
        String line =
                value.equals(value.strip()) ? value.replaceAll("\\s+", " ") : '"' + value.replaceAll("\\s", " ") + '"';
        return line.length() > WIDEST_VALUE ? line.substring(0, WIDEST_VALUE - 1) + "…" : line;
    }

    private void printLines() {
        int name = widest(Line::name, WIDEST_NAME);
        int type = widest(Line::type, WIDEST_TYPE);
        int times = widest(Line::times, WIDEST_NAME);
        for (Line line : lines) {
            StringBuilder text = new StringBuilder();
            text.append(GAP).append(Colour.NAME.of(line.name(), colours)).append(pad(line.name(), name));
            text.append(line.type()).append(pad(line.type(), type));
            text.append(line.times()).append(pad(line.times(), times));
            int left = width - GAP.length() - name - type - times - 3 * GAP.length();
            String shown = line.values().length() > left && left > WIDEST_VALUE
                    ? line.values().substring(0, left - 1) + "…"
                    : line.values();
            out.println((text + Colour.FAINT.of(shown, colours && !shown.isEmpty())).stripTrailing());
        }
    }

    private int widest(Function<Line, String> column, int most) {
        return Math.min(
                most, lines.stream().map(column).mapToInt(String::length).max().orElse(0));
    }

    private static String pad(String text, int width) {
        return " ".repeat(Math.max(0, width - text.length())) + GAP;
    }

    /**
     * {@return the path to what there is most of, if there is more of it than of something; or
     * null}
     */
    private static @Nullable String repeating(
            LearnedShape shape, String path, long most, Predicate<LearnedShape> counts) {
        String found = null;
        long best = most;
        for (FieldName name : shape.names()) {
            LearnedShape field = shape.field(name);
            if (field == null) {
                continue;
            }
            boolean repeats = counts.test(field) && field.values() > best && (field.most() > 1 || field.isList());
            String below = path + "." + name;
            if (repeats) {
                found = below;
                best = field.values();
            }
            String inner = repeating(field, below, best, counts);
            if (inner != null) {
                found = inner;
                best = Long.MAX_VALUE;
            }
        }
        return found;
    }
}
