package dev.morphema.engine;

import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/** Decides which records and groups a run goes on without. */
interface Rejects {
    /**
     * {@return whether a run goes on without a record, or a group}
     *
     * @param record that was read, or null for a group that was made
     * @param failure what went wrong with it, or null if nothing did
     */
    boolean rejects(@Nullable Value record, @Nullable ProblemException failure);
}
