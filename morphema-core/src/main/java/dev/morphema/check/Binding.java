package dev.morphema.check;

/** What a name stands for. */
public sealed interface Binding {
    /** A source, by its index. */
    record Source(int index) implements Binding {}

    /** A table, by its index. */
    record Table(int index) implements Binding {}

    /** A parameter, by its index. */
    record Param(int index) implements Binding {}

    /** A let of the top level, by its index. */
    record Global(int index) implements Binding {}

    /** A loop name or a group's key: a value in a slot of the frame. */
    record Local(int slot) implements Binding {}

    /** A let within a block or loop: calculated when it is first used, then kept in a slot. */
    record LocalLet(int slot) implements Binding {}

    /** An argument of a define: calculated in the frame of the caller when it is first used. */
    record Argument(int slot) implements Binding {}
}
