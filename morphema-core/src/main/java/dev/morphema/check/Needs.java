package dev.morphema.check;

import dev.morphema.format.Expectation;
import dev.morphema.format.Projection;
import dev.morphema.value.FieldName;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;

/** What a mapping does at the places of its sources, and so what readers are to keep of them. */
final class Needs {
    /** What it does at one place. */
    private static final class Uses {
        private static final Uses NONE = new Uses();

        private final Map<FieldName, Uses> fields = new LinkedHashMap<>();
        private boolean whole;
        private int steps;
        /** How many of the steps lead here only to write what is found. */
        private int writingSteps;
        /** How many of the steps lead here where the mapping says what to do without a value. */
        private int foreseenSteps;

        boolean isForeseen() {
            return foreseenSteps > 0 && foreseenSteps >= steps;
        }
    }

    private final Map<Place, Uses> sources = new HashMap<>();

    private Uses at(Place place) {
        return place.around()
                .map(around -> at(around).fields.computeIfAbsent(place.name().orElseThrow(), n -> new Uses()))
                .orElseGet(() -> sources.computeIfAbsent(place, p -> new Uses()));
    }

    /** One more step leads to a place. */
    void step(Place place, boolean foreseen) {
        Uses uses = at(place);
        uses.steps++;
        uses.foreseenSteps += foreseen ? 1 : 0;
    }

    /** One of the steps leads to what an expression gives only to write what is found. */
    void onlyWrite(Type type) {
        type.places().forEach(place -> at(place).writingSteps++);
    }

    /** A value is written or calculated with, so everything in it is needed. */
    void whole(Type type) {
        type.places().forEach(place -> at(place).whole = true);
        if (type.fields() != null) {
            type.fields().values().forEach(this::whole);
        }
    }

    /** Everything at a place is needed. */
    void whole(Place place) {
        at(place).whole = true;
    }

    /** {@return whether the sample shows none of the fields of a source that the mapping uses} */
    boolean isForeign(Place source) {
        Uses uses = sources.getOrDefault(source, Uses.NONE);
        Set<FieldName> used = names(source, uses);
        return source.shape() != null
                && !used.isEmpty()
                && used.stream()
                        .allMatch(name ->
                                source.shape().lacks(name) && !field(uses, name).isForeseen());
    }

    /** {@return what a reader is to keep of a source} */
    Projection projection(Place source) {
        return projection(source, sources.getOrDefault(source, Uses.NONE), false);
    }

    /** @param around whether all of the record around this place is needed, and so all of this */
    private static Projection projection(Place place, Uses uses, boolean around) {
        boolean everything = around || uses.whole;
        Set<FieldName> names = names(place, uses);
        Map<FieldName, Projection> fields = new LinkedHashMap<>();
        for (FieldName name : names) {
            Uses ofField = field(uses, name);
            Place child = place.child(name);
            if (everything && isOnlyShown(child, ofField)) {
                continue;
            }
            Projection known =
                    projection(child, ofField, everything).expected(expectation(place, name), ofField.isForeseen());
            FieldName local = name.withoutNamespace();
            // An element of a namespace may be meant by both steps.
            boolean both = !local.equals(name) && names.contains(local);
            fields.put(name, both ? known.and(projection(place.child(local), field(uses, local), everything)) : known);
        }
        Map<FieldName, Projection> types = new LinkedHashMap<>();
        place.types()
                .deep()
                .forEach((name, type) -> types.put(name, new Projection(true, Map.of(), type.converter(), Map.of())));
        Projection projection = new Projection(
                everything || isOverlapping(names),
                fields,
                place.declared() == null ? null : place.declared().converter(),
                types);
        return uses.steps == uses.writingSteps ? projection.passing() : projection;
    }

    /** The fields for which there is a type, and those that are used. */
    private static Set<FieldName> names(Place place, Uses uses) {
        Set<FieldName> names = new LinkedHashSet<>(place.types().fields().keySet());
        names.addAll(uses.fields.keySet());
        return names;
    }

    private static Uses field(Uses uses, FieldName name) {
        return uses.fields.getOrDefault(name, Uses.NONE);
    }

    /**
     * Whether only a step of any name leads here, and nothing is said of what is here or below; a
     * reader that keeps everything need not know of it.
     */
    private static boolean isOnlyShown(Place place, Uses uses) {
        return uses.steps == 0
                && place.declared() == null
                && names(place, uses).stream().allMatch(name -> isOnlyShown(place.child(name), field(uses, name)));
    }

    /** What the sample says of a field; where it lacks the field the check has told so. */
    private static Expectation expectation(Place place, FieldName name) {
        if (place.shape() == null) {
            return Expectation.UNKNOWN;
        }
        return place.shape().always(name) ? Expectation.EXPECTED : Expectation.OPTIONAL;
    }

    /** Whether one element may be meant by two steps: by its local name and by its full name. */
    private static boolean isOverlapping(Set<FieldName> names) {
        return names.stream().anyMatch(name -> name.namespace() != null && names.contains(name.withoutNamespace()));
    }
}
