package dev.morphema.problem;

/** How much a problem weighs. */
public enum Severity {
    /**
     * Nothing can be trusted to work; a mapping with an error does not run, a run with an error
     * writes nothing.
     */
    ERROR,
    /** Worth a look; work goes on. */
    WARNING
}
