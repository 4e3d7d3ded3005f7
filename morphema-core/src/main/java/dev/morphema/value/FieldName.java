package dev.morphema.value;

import org.jspecify.annotations.Nullable;

/**
 * The name of a field.
 *
 * @param namespace the XML namespace: null where none was asked for or the format has none, "" for "in no namespace"
 * @param local the name itself
 * @param attribute whether it is an XML attribute
 */
public record FieldName(@Nullable String namespace, String local, boolean attribute) {
    /** The own text of an element beside its children and attributes. */
    public static final FieldName OWN_TEXT = new FieldName(null, "", false);

    /** {@return the name of an ordinary field} */
    public static FieldName of(String local) {
        return new FieldName(null, local, false);
    }

    /** {@return the name of an attribute in no namespace} */
    public static FieldName attribute(String local) {
        return new FieldName(null, local, true);
    }

    /** {@return the name as a mapping writes it, without namespace} */
    @Override
    public String toString() {
        return attribute ? "@" + local : local;
    }
}
