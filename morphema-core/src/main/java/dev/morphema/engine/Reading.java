package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/**
 * One reading of a source: counts its records for who follows the run, who can stop it between them, and watches which
 * fields are there. Not thread-safe.
 */
final class Reading {
    /** Whoever follows the run hears of so many records at once. */
    private static final int STEP = 1 << 8;

    private final RunWatch watch;
    private final @Nullable PathWatch paths;
    private long count;

    /** @param paths watches the fields, or null where the reader knows them all before the first record */
    Reading(RunWatch watch, @Nullable PathWatch paths) {
        this.watch = watch;
        this.paths = paths;
    }

    /** There is one more record, of which no fields are looked at. */
    void pass() {
        if (++count % STEP == 0) {
            pause(STEP);
        }
    }

    /** There is one more record. */
    void pass(Value record) {
        pass();
        see(record);
    }

    /** Looks at the fields of a document, which does not count as a record. */
    void see(Value value) {
        if (paths != null) {
            paths.see(value);
        }
    }

    /**
     * The reading has ended.
     *
     * @param steps how many steps of the path to the records were found
     * @param found takes what was there
     */
    void end(int steps, PathWatch.Found found) {
        pause(count % STEP);
        if (paths != null) {
            paths.end(steps);
            paths.addTo(found);
        }
    }

    /** {@return how many records there were} */
    long count() {
        return count;
    }

    private void pause(long records) {
        watch.read(records);
        if (watch.isCancelled()) {
            throw new ProblemException(
                    Problem.error(Code.CANCELLED, "The run was stopped before its end; nothing was written."));
        }
    }
}
