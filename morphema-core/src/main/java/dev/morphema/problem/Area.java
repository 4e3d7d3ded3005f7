package dev.morphema.problem;

/** Whose matter a problem is; the command line turns it into an exit code. */
public enum Area {
    /** The mapping is wrong. */
    MAPPING,
    /** The data that was read, or would be written, is wrong. */
    DATA,
    /**
     * The caller asked for something that cannot be: an unknown source name, a missing parameter.
     */
    USAGE,
    /** A file or stream cannot be read or written. */
    FILE
}
