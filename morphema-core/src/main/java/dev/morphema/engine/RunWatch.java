package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;

/** Follows a run from outside, and can stop it. Asked and told by the thread of the run. */
public interface RunWatch {
    /** Neither follows nor stops. */
    RunWatch NONE = new RunWatch() {
        @Override
        public boolean isCancelled() {
            return false;
        }

        @Override
        public void read(long records) {
            // nobody asks
        }
    };

    /** {@return whether the run is to stop before its next record} */
    boolean isCancelled();

    /**
     * Stops a run.
     *
     * @throws ProblemException if it is to stop
     */
    static void stopIf(boolean cancelled) {
        if (cancelled) {
            throw new ProblemException(
                    Problem.error(Code.CANCELLED, "The run was stopped before its end; nothing was written."));
        }
    }

    /** So many more records were read. */
    void read(long records);
}
