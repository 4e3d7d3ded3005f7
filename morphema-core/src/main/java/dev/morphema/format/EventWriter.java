package dev.morphema.format;

import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;

/**
 * Takes a document as a series of events and writes it. Within a record, each {@link #field} is
 * followed by just one value, record or list. Not thread-safe.
 *
 * <p>A failure to write is an {@link java.io.UncheckedIOException}. What cannot be written in the
 * format is a {@link dev.morphema.problem.ProblemException} without places; the engine adds them.
 */
public interface EventWriter {
    /** A record begins. */
    void beginRecord();

    /** The record that was begun last ends. */
    void endRecord();

    /** A list begins. */
    void beginList();

    /** The list that was begun last ends. */
    void endList();

    /** The next value, record or list belongs to this field. */
    void field(FieldName name);

    /**
     * A scalar.
     *
     * @param value never absent, a record, a list or many
     */
    void value(Value value);

    /**
     * A field with a scalar: what {@link #field(FieldName)} and {@link #value} do one after the
     * other.
     */
    default void field(FieldName name, Value value) {
        field(name);
        value(value);
    }

    /**
     * Fields or attributes side by side, as many as can be written at once: those that a record has
     * {@linkplain RecordValue#isBytes as bytes} of common form.
     *
     * @param slots of the values in the record, -1 where it is not known to have just one
     * @param from the first that is to be written
     * @return the first that was not, which is to be written by itself; the size of the group if
     *     all were written
     */
    default int fields(FieldGroup group, RecordValue record, int[] slots, int from) {
        return from;
    }

    /** An attribute of the record at hand: a field, in formats that know no attributes. */
    default void attribute(FieldName name, Value value) {
        field(name, value);
    }

    /** {@return whether the attributes of a record must come before all else of it} */
    default boolean attributesFirst() {
        return false;
    }

    /** {@return what tells names of one record apart: no two fields of a record have equal keys} */
    default Object key(FieldName name) {
        return (name.equals(FieldName.OWN_TEXT) ? FieldName.TEXT : name).local();
    }

    /**
     * {@return whether a record may have several fields of one name that are no attributes, as an
     * element has children}
     */
    default boolean elementsRepeat() {
        return attributesFirst();
    }

    /** {@return whether fields without a value are written as null instead of being left out} */
    default boolean writesMissing() {
        return false;
    }

    /**
     * The record that was begun last may have text between its children, so nothing is to be put
     * there for looks. Comes before its first child or text.
     */
    default void mixed() {
        // of no matter in formats that know no own text
    }

    /** A piece of the record's own text: the field "text", in formats that know no own text. */
    default void text(Value value) {
        field(FieldName.TEXT, value);
    }

    /**
     * As {@link #text(Value)}, with the value of a field that a record has {@linkplain
     * RecordValue#isBytes as bytes}.
     */
    default void text(RecordValue record, int slot) {
        text(record.get(slot));
    }
}
