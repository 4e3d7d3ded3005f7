package dev.morphema.check;

import dev.morphema.problem.InputLocation;
import dev.morphema.shape.Shape;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What is known of an expression before the run.
 *
 * @param kind of the value, or of each of many; null if it is not known
 * @param cardinality how many values there are
 * @param places the places in sources that the values may come from
 * @param fields known fields, beside those of the places; null if the mapping made no record here
 * @param odd whether it is surely a text that does not read as a number
 * @param names the lets and numbers of a loop that a member of its group can be asked for, beside
 *     its fields; perhaps none
 * @param loopName of such a member the name that it had in its loop, or null
 */
public record Type(
        @Nullable Kind kind,
        Cardinality cardinality,
        List<Place> places,
        @Nullable Map<String, Type> fields,
        boolean odd,
        Map<String, Type> names,
        @Nullable String loopName) {
    /** Nothing is known. */
    static final Type UNKNOWN = new Type(null, Cardinality.UNKNOWN, List.of(), null, false);

    /** Absent or null: fits everywhere. */
    static final Type NOTHING = new Type(null, Cardinality.ONE, List.of(), null, false);

    public Type {
        places = List.copyOf(places);
    }

    Type(
            @Nullable Kind kind,
            Cardinality cardinality,
            List<Place> places,
            @Nullable Map<String, Type> fields,
            boolean odd) {
        this(kind, cardinality, places, fields, odd, Map.of(), null);
    }

    /** {@return one value of a kind} */
    static Type of(@Nullable Kind kind) {
        return new Type(kind, Cardinality.ONE, List.of(), null, false);
    }

    /** {@return a record with just these fields} */
    static Type record(Map<String, Type> fields) {
        return new Type(Kind.RECORD, Cardinality.ONE, List.of(), new LinkedHashMap<>(fields), false);
    }

    /** {@return where a sample or schema shows what is known here, or null} */
    @Nullable
    InputLocation shown() {
        for (Place place : places) {
            // What is declared is known by that.
            if (place.shape() != null && place.declared() == null) {
                return place.shape().place();
            }
        }
        return null;
    }

    /** {@return where a sample or schema shows that there may be several side by side, or null} */
    @Nullable
    InputLocation shownSeveral() {
        Place place = places.isEmpty() ? null : places.get(0);
        // That a source has several records is what its format says.
        while (place != null && place.name().isPresent()) {
            Shape shape = place.shape();
            if (shape != null && (shape.isMany() || shape.isList())) {
                return shape.place();
            }
            place = place.around().orElse(null);
        }
        return null;
    }

    Type with(Cardinality newCard) {
        return new Type(kind, newCard, places, fields, odd, names, loopName);
    }

    /** {@return this, as a member of a group that can be asked for these names of its loop} */
    Type withNames(Map<String, Type> ofLoop, String name) {
        return new Type(kind, cardinality, places, fields, odd, ofLoop, name);
    }

    /** {@return one of the values of this} */
    Type item() {
        return with(Cardinality.ONE);
    }

    /** {@return what is known when either this or the other is taken} */
    Type or(Type other) {
        if (this == NOTHING) {
            return other;
        }
        if (other == NOTHING) {
            return this;
        }
        List<Place> allPlaces = new ArrayList<>(places);
        allPlaces.addAll(other.places);
        Map<String, Type> common = null;
        if (fields != null && other.fields != null) {
            common = new LinkedHashMap<>(fields);
            Map<String, Type> target = common;
            other.fields.forEach((name, type) -> target.merge(name, type, Type::or));
        }
        Map<String, Type> allNames = new LinkedHashMap<>(names);
        allNames.keySet().retainAll(other.names.keySet());
        return new Type(
                kind == other.kind ? kind : null,
                cardinality.or(other.cardinality),
                allPlaces,
                common,
                odd && other.odd,
                allNames,
                null);
    }

    /**
     * {@return what is known of one of several values of which it is not known which}; how many it
     * is, only if all agree
     */
    static Type anyOf(Collection<Type> types) {
        Type all = null;
        boolean agreed = true;
        for (Type type : types) {
            agreed &= all == null || all.cardinality == type.cardinality;
            all = all == null ? type : all.or(type);
        }
        return all == null ? UNKNOWN : agreed ? all : all.with(Cardinality.UNKNOWN);
    }
}
