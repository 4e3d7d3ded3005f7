package dev.morphema.check;

import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The types that a source declares for its fields. Not changed once its places are asked for. */
final class DeclaredTypes {
    /**
     * A declared type of a field.
     *
     * @param kind of its values; null if it is the wrong one, which is told where it is declared
     *     and nowhere else
     * @param isDocument whether its texts are documents of their own, which may hold anything
     */
    record Declared(@Nullable Kind kind, Converter converter, boolean isDocument) {
        Declared(@Nullable Kind kind, Converter converter) {
            this(kind, converter, false);
        }

        Declared wrong() {
            return new Declared(null, converter, isDocument);
        }
    }

    private final Map<FieldName, DeclaredTypes> fields = new LinkedHashMap<>();
    /** Types of fields wherever they stand; of the whole source. */
    private final Map<FieldName, Declared> deep;

    private @Nullable Declared own;

    private DeclaredTypes(Map<FieldName, Declared> deep) {
        this.deep = deep;
    }

    /** {@return the types of a source that has declared none yet} */
    static DeclaredTypes none() {
        return new DeclaredTypes(new LinkedHashMap<>());
    }

    /** Declares the type of what a path leads to. */
    void declare(List<FieldName> path, Declared type) {
        DeclaredTypes at = this;
        for (FieldName name : path) {
            at = at.fields.computeIfAbsent(name, n -> new DeclaredTypes(deep));
        }
        at.own = type;
    }

    /** Declares the type of a field wherever it stands. */
    void declareDeep(FieldName name, Declared type) {
        deep.put(name, type);
    }

    /** {@return the types of a field and what it holds} */
    DeclaredTypes field(FieldName name) {
        DeclaredTypes field = fields.get(name);
        Declared anywhere = deep.getOrDefault(name, deep.get(name.withoutNamespace()));
        if (field != null && (field.own != null || anywhere == null)) {
            return field;
        }
        DeclaredTypes found = new DeclaredTypes(deep);
        found.own = anywhere;
        if (field != null) {
            found.fields.putAll(field.fields);
        }
        return found;
    }

    /** {@return the fields for which there are types, or for something within them} */
    Map<FieldName, DeclaredTypes> fields() {
        return Collections.unmodifiableMap(fields);
    }

    /** {@return the types of fields wherever they stand} */
    Map<FieldName, Declared> deep() {
        return Collections.unmodifiableMap(deep);
    }

    /** {@return the type of the place itself, or null} */
    @Nullable
    Declared own() {
        return own;
    }
}
