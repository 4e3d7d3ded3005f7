package dev.morphema.value;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** The name of a field. Immutable; equal to another by its parts. */
public final class FieldName {
    /**
     * The own text of an element beside its children and attributes. No field of JSON or CSV is
     * called so, not even one without a name.
     */
    public static final FieldName OWN_TEXT = new FieldName("", "", false);

    /** What {@link #OWN_TEXT} is called where it is a field like others. */
    public static final FieldName TEXT = of("text");

    private static final String LOOP = "\u0000loop";

    private final @Nullable String namespace;
    private final String local;
    private final boolean attribute;
    /** Names are looked up for each field of each record. */
    private final int hash;

    /**
     * @param namespace the XML namespace: null where none was asked for or the format has none, ""
     *     for "in no namespace"
     * @param local the name itself
     * @param attribute whether it is an XML attribute
     */
    public FieldName(@Nullable String namespace, String local, boolean attribute) {
        this.namespace = namespace;
        this.local = local;
        this.attribute = attribute;
        this.hash = Hashing.of(
                Hashing.of(local) * 2L + (attribute ? 1 : 0), namespace == null ? -1 : Hashing.of(namespace));
    }

    /** {@return the name of an ordinary field} */
    public static FieldName of(String local) {
        return new FieldName(null, local, false);
    }

    /**
     * {@return what a member of a group calls a let or number of its loop; no field of any format
     * is called so}
     */
    public static FieldName ofLoop(String name) {
        return new FieldName(LOOP, name, false);
    }

    /** {@return whether this is a name of a loop, which is no field} */
    public boolean isOfLoop() {
        return LOOP.equals(namespace);
    }

    /** {@return the name of an attribute in no namespace} */
    public static FieldName attribute(String local) {
        return new FieldName(null, local, true);
    }

    /** {@return the namespace, or null} */
    public @Nullable String namespace() {
        return namespace;
    }

    /** {@return the name without namespace} */
    public String local() {
        return local;
    }

    /** {@return the same name in no namespace} */
    public FieldName withoutNamespace() {
        return namespace == null ? this : new FieldName(null, local, attribute);
    }

    /** {@return whether it is an XML attribute} */
    public boolean attribute() {
        return attribute;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return this == other
                || other instanceof FieldName name
                        && hash == name.hash
                        && attribute == name.attribute
                        && local.equals(name.local)
                        && Objects.equals(namespace, name.namespace);
    }

    @Override
    public int hashCode() {
        return hash;
    }

    /** {@return the name as a mapping writes it, without namespace} */
    @Override
    public String toString() {
        return attribute ? "@" + local : local;
    }
}
