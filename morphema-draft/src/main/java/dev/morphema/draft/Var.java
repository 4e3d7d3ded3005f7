package dev.morphema.draft;

/**
 * A name in scope.
 *
 * @param name as the mapping has it
 * @param form what it stands for
 * @param about the name of what it stands for, in the data
 */
record Var(String name, Form form, String about) {
    /** What a name stands for. */
    enum Form {
        /** One record, or one value of a list: an {@link Item}. */
        ONE,
        /** The members of a group: a list of items. */
        GROUP,
        /** The key of a group: a {@link Cell}, or null. */
        KEY,
        /** The number of the turn: a cell. */
        NUMBER,
        /** The whole of a source that is no sequence: an item. */
        SOURCE,
        /** The records of a source: a list of items. */
        RECORDS
    }

    Var(String name, Form form) {
        this(name, form, name);
    }

    boolean isMany() {
        return form == Form.GROUP || form == Form.RECORDS;
    }
}
