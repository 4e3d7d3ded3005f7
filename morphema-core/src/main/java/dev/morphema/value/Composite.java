package dev.morphema.value;

/** A value made of others, which cannot stand in one cell, attribute or text. */
public abstract sealed class Composite extends Value permits RecordValue, ListValue, Many {
    Composite() {}
}
