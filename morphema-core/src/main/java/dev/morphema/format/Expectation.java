package dev.morphema.format;

/** Whether a field that a mapping uses is to be there in some record of each input. */
public enum Expectation {
    /** The sample has it in each record. */
    EXPECTED,
    /** There is no sample to tell. */
    UNKNOWN,
    /** The sample lacks it at times, or the mapping says what to do without it. */
    OPTIONAL
}
