package dev.morphema.engine;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import java.util.concurrent.TimeUnit;

/**
 * Keeps a run within its limits of steps, records and time, and stops it when somebody wants that.
 * Not thread-safe.
 */
final class LimitGuard {
    /** So many steps or records are between two looks. */
    static final int STRIDE = 1 << 8;

    private final RunWatch watch;
    private final Limits limits;
    private final long mostSteps;
    private final long mostRecords;
    private final long mostNanos;
    private final long start = System.nanoTime();
    private long steps;
    /** Of the units before this one. */
    private long before;

    LimitGuard(RunWatch watch, Limits limits) {
        this.watch = watch;
        this.limits = limits;
        this.mostSteps = limits.most(Limit.STEPS);
        this.mostRecords = limits.most(Limit.RECORDS);
        this.mostNanos = TimeUnit.MILLISECONDS.toNanos(limits.most(Limit.TIME));
    }

    /** Another record, or turn of an outermost loop, begins. */
    void beginUnit() {
        before += steps + 1;
        steps = 0;
    }

    /** {@return a number that is the same until another record, turn or call begins} */
    long moment() {
        return before + steps;
    }

    /** One more call or turn of a loop. */
    void step() {
        if (++steps % STRIDE == 0) {
            if (steps > mostSteps) {
                throw limits.exceeded(Limit.STEPS, null);
            }
            look();
        }
    }

    /**
     * So many more records were read of a source.
     *
     * @param all how many there were so far
     */
    void read(long more, long all) {
        watch.read(more);
        if (all > mostRecords) {
            throw limits.exceeded(Limit.RECORDS, null);
        }
        look();
    }

    private void look() {
        RunWatch.stopIf(watch.isCancelled());
        if (System.nanoTime() - start > mostNanos) {
            throw limits.exceeded(Limit.TIME, null);
        }
    }
}
