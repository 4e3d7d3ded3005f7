package dev.morphema.plan;

/** A way to do the same with less: less memory, or less work. Immutable. */
interface Rule {
    /** {@return a plan that gives the same}, or fails in the same way */
    Plan apply(Plan plan);
}
