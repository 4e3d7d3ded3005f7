package dev.morphema.engine;

import dev.morphema.function.Function;
import dev.morphema.plan.Scan;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.store.Lookup;
import dev.morphema.store.MemoryBudget;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * What one run knows: its parameters, and what was calculated or read once for all. Not
 * thread-safe.
 */
final class RunState implements Function.Context {
    /** Reads sources for rules that ask for them. */
    interface Sources {
        /** {@return all of a source} */
        Value read(int source);

        /** {@return whether the records of a pass are read one at a time} */
        boolean streams(Scan pass);

        /** {@return the records of a source that have a key, by the fields that it is asked by} */
        List<Value> ask(int source, List<Value> key);

        /** Gives each record of a pass to a sink, until that wants no more. */
        void each(Scan pass, ItemSink sink);
    }

    /** Each of a chain of lets needs stack for all before it. */
    private static final int MOST_DEEP_GLOBALS = 100;

    private final Program program;
    private final @Nullable Value[] params;
    private final @Nullable Value[] globals;
    private final @Nullable Value[] sources;
    private final @Nullable Lookup[] tables;
    /**
     * For each table the key that was asked last, and what was found: a record often takes several
     * fields of one row.
     */
    private final @Nullable Value[] asked;

    private final @Nullable Value[] found;
    private final Sources reading;
    private @Nullable RunMemory memory;
    private final Counts counts;
    private final FailureUnits units;
    private final long[] written;
    private final Instant now;
    private final Supplier<Random> random;
    private final MemoryBudget budget;
    private final LimitGuard limitGuard;
    private final RunCaches caches;
    private int target;
    private int depthOfGlobals;

    RunState(Program program, @Nullable Value[] params, RunSettings settings, Sources reading) {
        this.program = program;
        this.now = settings.now();
        this.random = settings.random();
        this.limitGuard = new LimitGuard(settings.watch(), settings.limits());
        this.budget = new MemoryBudget(settings.budget(), settings.scratch());
        this.caches = settings.caches() == null ? new RunCaches(program) : settings.caches();
        this.params = params;
        this.reading = reading;
        this.globals = new Value[program.globals().size()];
        this.sources = new Value[program.mapping().sources().size()];
        this.tables = new Lookup[program.tables().size()];
        this.counts = new Counts(tables.length);
        this.units = new FailureUnits(settings.rejects());
        this.asked = new Value[tables.length];
        this.found = new Value[tables.length];
        this.written = new long[program.targets().size()];
    }

    @Override
    public Instant now() {
        return now;
    }

    @Override
    public Random random() {
        return random.get();
    }

    @Override
    public <T> T kept(Class<T> kind, Object owner, Supplier<T> beginning) {
        return caches.kept(kind, owner, beginning);
    }

    /** {@return what takes back what fails} */
    FailureUnits units() {
        return units;
    }

    /** {@return what keeps the run within its limits} */
    LimitGuard limits() {
        return limitGuard;
    }

    /** {@return what was learned about the form of the data} */
    RunCaches caches() {
        return caches;
    }

    SlotSite.@Nullable Found[] sites() {
        return caches.sites();
    }

    /** {@return what groups and sorts hold in memory} */
    MemoryBudget budget() {
        return budget;
    }

    Value param(int index) {
        return Objects.requireNonNull(params[index]);
    }

    Value global(int index) {
        Value value = globals[index];
        if (value == null) {
            Program.Unit unit = program.globals().get(index);
            if (depthOfGlobals >= MOST_DEEP_GLOBALS) {
                throw unit.node()
                        .fail(
                                Code.LIMIT,
                                "More than " + MOST_DEEP_GLOBALS + " lets need one another, each the next.",
                                "calculate some of them in one expression");
            }
            depthOfGlobals++;
            try {
                value = unit.node().eval(new Frame(this, unit.slots()));
            } finally {
                depthOfGlobals--;
            }
            globals[index] = value;
        }
        return value;
    }

    RecordSink streamGlobal(int index, RecordSink sink) {
        Program.Unit unit = program.globals().get(index);
        return unit.node().stream(new Frame(this, unit.slots()), sink);
    }

    Value source(int index) {
        Value value = sources[index];
        if (value == null) {
            value = reading.read(index);
            sources[index] = value;
        }
        return value;
    }

    /** {@return the records of a source that have a key} */
    List<Value> ask(int index, List<Value> key) {
        return reading.ask(index, key);
    }

    /** {@return whether the records of a scan are read one at a time} */
    boolean streams(Scan scan) {
        return reading.streams(scan);
    }

    /** Gives each record of a scan to a sink, until that wants no more. */
    void eachRecord(Scan scan, ItemSink sink) {
        reading.each(scan, sink);
    }

    Lookup table(int index) {
        Lookup table = tables[index];
        if (table == null) {
            table = units.apart(() -> program.tables().get(index).make(this));
            tables[index] = table;
        }
        return table;
    }

    /** {@return what a table has for the values of a key} */
    Value find(int index, Value[] key) {
        Value found = row(index, key);
        if (found == Missing.ABSENT || found == Many.NONE) {
            counts.miss(index, key, limitGuard.moment());
        }
        return found;
    }

    private Value row(int index, Value[] key) {
        if (key.length > 1) {
            return table(index).find(key);
        }
        Value known = asked[index] == key[0] ? found[index] : null;
        if (known == null) {
            known = table(index).find(key);
            asked[index] = key[0];
            found[index] = known;
        }
        return known;
    }

    /** {@return what was calculated of what is the same all through the run} */
    RunMemory memory() {
        RunMemory known = memory;
        if (known == null) {
            known = new RunMemory(this, program, reading);
            memory = known;
        }
        return known;
    }

    void warn(Problem warning) {
        counts.warn(warning);
    }

    /** {@return the warnings so far, to which places may be added} */
    List<Problem> warnings() {
        return counts.keptWarnings();
    }

    /** {@return what counts what is not in the outputs} */
    Counts counts() {
        return counts;
    }

    /** From now on, records that are written belong to this target. */
    void writing(int targetIndex) {
        target = targetIndex;
    }

    void countWritten() {
        written[target]++;
        if (units.areThere()) {
            int of = target;
            units.onFailure(() -> written[of]--);
        }
        limitGuard.beginUnit();
    }

    long written(int targetIndex) {
        return written[targetIndex];
    }
}
