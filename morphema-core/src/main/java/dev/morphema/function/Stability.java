package dev.morphema.function;

/** Whether a function gives the same result for the same arguments. */
public enum Stability {
    /** Always. */
    PURE,
    /** Within one run, as the time at which it began. */
    STABLE,
    /** Not even within a run: each call counts, so none is left out or put off. */
    VOLATILE
}
