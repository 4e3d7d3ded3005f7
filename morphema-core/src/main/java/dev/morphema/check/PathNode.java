package dev.morphema.check;

import dev.morphema.format.Expectation;
import dev.morphema.format.Projection;
import dev.morphema.shape.Shape;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * One place in a source, with what the mapping does there. The tree of them grows while the mapping
 * is checked; in the end it tells the reader what is needed.
 */
final class PathNode {
    /** A declared type of a field. */
    record Declared(Kind kind, Converter converter) {}

    private final Map<FieldName, PathNode> children = new LinkedHashMap<>();
    private final Map<FieldName, Declared> deep;
    private final @Nullable Shape shape;
    private final boolean flat;
    private @Nullable Declared declared;
    private boolean whole;
    /** How many steps lead here, and how many of them do so only to write what is found. */
    private int steps;

    private int writingSteps;
    /** How many steps lead here where the mapping says what to do without a value. */
    private int foreseenSteps;

    private PathNode(@Nullable Shape shape, boolean flat, Map<FieldName, Declared> deep) {
        this.shape = shape;
        this.flat = flat;
        this.deep = deep;
    }

    /** {@return the root of a source}, whose records are flat or not */
    static PathNode root(@Nullable Shape shape, boolean flat) {
        return new PathNode(shape, flat, new LinkedHashMap<>());
    }

    /** {@return the place of a field below this one} */
    PathNode child(FieldName name) {
        return children.computeIfAbsent(name, n -> {
            PathNode child = new PathNode(shape == null ? null : shape.field(n), flat, deep);
            child.declared = deep.getOrDefault(n, deep.get(local(n)));
            return child;
        });
    }

    /** {@return the places of all fields that the sample shows here}; none if there is no sample */
    List<PathNode> children(Predicate<FieldName> wanted) {
        return shape == null
                ? List.of()
                : shape.names().stream().filter(wanted).map(this::child).toList();
    }

    /**
     * {@return the places of all fields of a name that the sample shows, at any depth below this}
     */
    List<PathNode> below(FieldName name) {
        List<PathNode> found = new ArrayList<>();
        addBelow(name, found, Collections.newSetFromMap(new IdentityHashMap<>()));
        return found;
    }

    /** @param seen what a schema has defined, and may hold itself: each is looked into once */
    private void addBelow(FieldName name, List<PathNode> found, Set<Object> seen) {
        if (shape == null || !seen.add(shape.definition())) {
            return;
        }
        children(field -> true).forEach(child -> child.addBelow(name, found, seen));
        shape.meant(name).forEach(field -> found.add(child(field)));
    }

    void declare(Declared type) {
        declared = type;
    }

    void declareDeep(FieldName name, Declared type) {
        deep.put(name, type);
    }

    @Nullable
    Declared declared() {
        return declared;
    }

    @Nullable
    Shape shape() {
        return shape;
    }

    /** {@return whether the sample shows none of the fields that the mapping uses here} */
    boolean isForeign() {
        return shape != null
                && !children.isEmpty()
                && children.entrySet().stream()
                        .allMatch(child ->
                                shape.lacks(child.getKey()) && !child.getValue().isForeseen());
    }

    /** {@return whether the records of the source hold texts and nothing else} */
    boolean isFlat() {
        return flat;
    }

    /** One more step leads here. */
    void step() {
        steps++;
    }

    /** One of the steps leads here only to write what is found. */
    void onlyWrite() {
        writingSteps++;
    }

    /** For one of the steps the mapping says what to do where there is no value. */
    void foresee() {
        foreseenSteps++;
    }

    /** Everything below this place is needed. */
    void needWhole() {
        whole = true;
    }

    /** {@return what a reader is to keep} */
    Projection projection() {
        return projection(false);
    }

    /** @param around whether all of the record around this place is needed, and so all of this */
    private Projection projection(boolean around) {
        boolean everything = around || whole;
        Map<FieldName, Projection> fields = new LinkedHashMap<>();
        for (Map.Entry<FieldName, PathNode> child : children.entrySet()) {
            if (everything && child.getValue().isOnlyShown()) {
                continue;
            }
            Projection known = child.getValue()
                    .projection(everything)
                    .expected(expectation(child.getKey()), child.getValue().isForeseen());
            FieldName local = local(child.getKey());
            // An element of a namespace may be meant by both steps.
            boolean both = !local.equals(child.getKey()) && children.containsKey(local);
            fields.put(child.getKey(), both ? known.and(children.get(local).projection(everything)) : known);
        }
        Map<FieldName, Projection> types = new LinkedHashMap<>();
        deep.forEach((name, type) -> types.put(name, new Projection(true, Map.of(), type.converter(), Map.of())));
        Projection projection = new Projection(
                everything || overlapping(), fields, declared == null ? null : declared.converter(), types);
        return steps == writingSteps ? projection.passing() : projection;
    }

    /**
     * Whether only a step of any name leads here, and nothing is said of what is here or below; a
     * reader that keeps everything need not know of it.
     */
    private boolean isOnlyShown() {
        return steps == 0 && declared == null && children.values().stream().allMatch(PathNode::isOnlyShown);
    }

    private boolean isForeseen() {
        return foreseenSteps > 0 && foreseenSteps >= steps;
    }

    /** What the sample says of a field; where it lacks the field the check has told so. */
    private Expectation expectation(FieldName name) {
        if (shape == null) {
            return Expectation.UNKNOWN;
        }
        return shape.always(name) ? Expectation.EXPECTED : Expectation.OPTIONAL;
    }

    private static FieldName local(FieldName name) {
        return new FieldName(null, name.local(), name.attribute());
    }

    /** Whether one element may be meant by two steps: by its local name and by its full name. */
    private boolean overlapping() {
        for (FieldName name : children.keySet()) {
            if (name.namespace() != null && children.containsKey(local(name))) {
                return true;
            }
        }
        return false;
    }
}
