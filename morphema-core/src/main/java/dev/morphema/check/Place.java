package dev.morphema.check;

import dev.morphema.shape.Shape;
import dev.morphema.syntax.Decl;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * One place in a source: the steps that lead there, with what its schema, samples and declarations
 * tell of it. Immutable; two are equal if the same steps lead there from the same source.
 */
public final class Place {
    private final Decl.Source source;
    private final @Nullable Place around;
    private final @Nullable FieldName name;
    private final @Nullable Shape shape;
    private final boolean flat;
    private final DeclaredTypes types;

    private Place(
            Decl.Source source,
            @Nullable Place around,
            @Nullable FieldName name,
            @Nullable Shape shape,
            boolean flat,
            DeclaredTypes types) {
        this.source = source;
        this.around = around;
        this.name = name;
        this.shape = shape;
        this.flat = flat;
        this.types = types;
    }

    /** {@return the root of a source}, whose records are flat or not */
    static Place root(Decl.Source source, @Nullable Shape shape, boolean flat, DeclaredTypes types) {
        return new Place(source, null, null, shape, flat, types);
    }

    /** {@return the place of a field below this one} */
    Place child(FieldName field) {
        return new Place(source, this, field, shape == null ? null : shape.field(field), flat, types.field(field));
    }

    /** {@return the places of all fields that the sample shows here}; none if there is no sample */
    List<Place> children(Predicate<FieldName> wanted) {
        return shape == null
                ? List.of()
                : shape.names().stream().filter(wanted).map(this::child).toList();
    }

    /**
     * {@return the places of all fields of a name that the sample shows, at any depth below this}
     */
    List<Place> below(FieldName field) {
        List<Place> found = new ArrayList<>();
        addBelow(field, found, new HashSet<>());
        return found;
    }

    /** @param seen what a schema has defined, and may hold itself: each is looked into once */
    private void addBelow(FieldName field, List<Place> found, Set<Object> seen) {
        if (shape == null || !seen.add(shape.definition())) {
            return;
        }
        children(any -> true).forEach(child -> child.addBelow(field, found, seen));
        shape.meant(field).forEach(meant -> found.add(child(meant)));
    }

    /** {@return the source} */
    public Decl.Source source() {
        return source;
    }

    /** {@return the record that has this field; empty for the source itself} */
    public Optional<Place> around() {
        return Optional.ofNullable(around);
    }

    /** {@return the name of this field; empty for the source itself} */
    public Optional<FieldName> name() {
        return Optional.ofNullable(name);
    }

    /** {@return what schema and samples tell, or null} */
    public @Nullable Shape shape() {
        return shape;
    }

    /** {@return whether the records of the source hold texts and nothing else} */
    boolean isFlat() {
        return flat;
    }

    /** {@return the types of what is here and below} */
    DeclaredTypes types() {
        return types;
    }

    /** {@return the declared type of what is here, or null} */
    DeclaredTypes.@Nullable Declared declared() {
        return types.own();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Place place
                && source == place.source
                && Objects.equals(name, place.name)
                && Objects.equals(around, place.around);
    }

    @Override
    public int hashCode() {
        return 31 * (31 * System.identityHashCode(source) + Objects.hashCode(name)) + Objects.hashCode(around);
    }

    /** {@return the path as a mapping writes it} */
    @Override
    public String toString() {
        return around == null ? source.name().text() : around + "." + name;
    }
}
