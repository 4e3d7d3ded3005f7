package dev.morphema.format;

import dev.morphema.value.Layout;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;

/**
 * The record that a reader has come to, before a value is made of it: who only compares fields or
 * adds them up takes them from the bytes. All its fields are there, in ASCII and not empty. It is
 * another one as soon as the reader goes on. Not thread-safe.
 */
public interface BareRecord {
    /** {@return the names of its fields; mostly the same object for all records of an input} */
    Layout layout();

    /** {@return where its fields are found}; behind each are at least seven bytes more. */
    byte[] bytes();

    /** {@return the place of the first byte of a field} */
    int from(int slot);

    /** {@return the place after the last byte of a field} */
    int to(int slot);

    /** {@return where the record stands in its input} */
    Origin origin();

    /** {@return the record as a value, the same each time} */
    RecordValue value();
}
