package dev.morphema.shape;

import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is known of one place in data before anything runs: learnt from samples ({@link
 * LearnedShape}), given by a schema ({@link SchemaShape}), or both ({@link JoinedShape}).
 */
public interface Shape {
    /** {@return what this was learnt from, as a message names it: "sample" or "schema"} */
    String origin();

    /**
     * {@return what is the same for two shapes that come of one definition, which may hold itself}
     */
    default Object definition() {
        return this;
    }

    /** {@return where that is said or shown first: in a schema or a sample; null if not known} */
    @Nullable
    InputLocation place();

    /** {@return the names of the fields, as a mapping writes them} */
    Set<FieldName> names();

    /**
     * {@return the shape of a field by its name, or null}; a name without namespace finds it in
     * any, and in several if there are
     */
    @Nullable
    Shape field(FieldName name);

    /** {@return the shapes of all fields of a name, at any depth below this} */
    List<? extends Shape> below(FieldName name);

    /** Adds the names of all fields, at any depth below this, as a mapping writes them. */
    void addNamesBelow(Set<String> names);

    /**
     * {@return why a type does not take some value that may stand here, or null if it takes all}
     */
    @Nullable
    Problem refusedBy(Converter type);

    /** {@return whether it is known what is here, and no field of a name is in it} */
    boolean lacks(FieldName name);

    /** {@return whether there can be no other fields than those that are known} */
    boolean isClosed();

    /** {@return whether there are single values here, and never fields} */
    boolean isScalar();

    /** {@return whether each value here is a record with a field} */
    boolean always(FieldName name);

    /** {@return whether there may be several values side by side} */
    boolean isMany();

    /** {@return whether there may be a list} */
    boolean isList();

    /** {@return whether there may be fields below this place} */
    boolean isRecord();

    /** {@return whether the texts here surely are not numbers as they stand} */
    boolean hasOddText();

    /**
     * {@return whether the texts here read as numbers, and their order as texts is not that of the
     * numbers}
     */
    boolean isMisorderedAsText();

    /** {@return whether all values are numbers or texts that read as numbers} */
    boolean isNumeric();

    /**
     * {@return the one kind of all values, or null}; elements that can stand for their text are of
     * none
     */
    @Nullable
    Kind kind();

    /** {@return what all single values here read as, such as a date; null if that is not known} */
    default @Nullable Kind form() {
        return null;
    }

    /** {@return the only values that may stand here, as texts; null where any may} */
    default @Nullable Set<String> codes() {
        return null;
    }

    /**
     * {@return the fields that a name means}: one or none, or several that only their namespaces
     * tell apart
     */
    default List<FieldName> meant(FieldName name) {
        return meant(name, names());
    }

    /** {@return those of some fields that a name means} */
    static List<FieldName> meant(FieldName name, Set<FieldName> names) {
        if (names.contains(name) && (name.namespace() != null || name.attribute())) {
            return List.of(name);
        }
        return names.stream()
                .filter(known -> name.namespace() == null
                        && known.local().equals(name.local())
                        && known.attribute() == name.attribute()
                        && !(known.attribute() && known.namespace() != null))
                .toList();
    }
}
