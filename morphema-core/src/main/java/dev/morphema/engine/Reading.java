package dev.morphema.engine;

import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/**
 * One reading of a source: counts its records for who follows the run, who can stop it between
 * them, and watches which fields are there. Not thread-safe.
 */
final class Reading {
    private final LimitGuard limitGuard;
    private final @Nullable PathWatch paths;
    private long count;

    /**
     * @param paths watches the fields, or null where the reader knows them all before the first
     * record
     */
    Reading(LimitGuard limitGuard, @Nullable PathWatch paths) {
        this.limitGuard = limitGuard;
        this.paths = paths;
    }

    /** There is one more record, of which no fields are looked at. */
    void pass() {
        limitGuard.beginUnit();
        if (++count % LimitGuard.STRIDE == 0) {
            limitGuard.read(LimitGuard.STRIDE, count);
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
        limitGuard.read(count % LimitGuard.STRIDE, count);
        if (paths != null) {
            paths.end(steps);
            paths.addTo(found);
        }
    }

    /** {@return how many records there were} */
    long count() {
        return count;
    }
}
