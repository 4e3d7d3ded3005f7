package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.plan.Plan;
import dev.morphema.plan.Scan;
import dev.morphema.store.Lookup;
import dev.morphema.value.Converter;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** A compiled mapping. Immutable, shared by all runs. */
public final class Program {
    /** An expression with the size of the frame it runs in. */
    static final class Unit {
        private final int slots;
        private @Nullable Node node;

        Unit(int slots) {
            this.slots = slots;
        }

        /**
         * Set once while compiling: a define may be called by what is compiled before it, and by
         * itself.
         */
        void set(Node compiled) {
            node = compiled;
        }

        int slots() {
            return slots;
        }

        Node node() {
            return Objects.requireNonNull(node);
        }
    }

    /** A parameter. */
    record Param(String name, Converter converter, @Nullable Node fallback) {}

    /** Fills a table when it is first asked for. */
    @FunctionalInterface
    interface TableMaker {
        Lookup make(RunState run);
    }

    /**
     * A target.
     *
     * @param split the loop that makes one document a turn, or null if there is one document
     * @param name of each document; null exactly if split is
     * @param document what is written
     * @param repeats whether it has records: turns of an outermost loop, or documents
     * @param scan the records that are pushed through, or null
     * @param slots the size of its frame
     */
    record Target(
            CheckedMapping.Target checked,
            @Nullable LoopPlan split,
            @Nullable Node name,
            Content document,
            boolean repeats,
            @Nullable Scan scan,
            int slots) {}

    private final Plan plan;
    private final List<Unit> globals;
    private final List<Param> params;
    private final List<TableMaker> tables;
    private final List<Target> targets;
    private final List<Scan> scans;
    private final List<Scan> ownScans;
    private final int[] readings;
    private final Map<Scan, List<TotalNode>> totals;
    private final int mostSlots;
    private final int sites;

    Program(
            Plan plan,
            List<Unit> globals,
            List<Param> params,
            List<TableMaker> tables,
            List<Target> targets,
            Map<Scan, List<TotalNode>> totals,
            int sites) {
        this.plan = plan;
        this.globals = List.copyOf(globals);
        this.params = List.copyOf(params);
        this.tables = List.copyOf(tables);
        this.targets = List.copyOf(targets);
        this.totals = totals;
        this.sites = sites;
        this.scans = plan.scans();
        this.readings = new int[plan.sources().size()];
        for (int i = 0; i < readings.length; i++) {
            readings[i] = plan.sources().get(i).kept() ? 1 : 0;
        }
        scans.forEach(scan -> readings[scan.source()]++);
        this.ownScans = plan.ownScans();
        ownScans.forEach(scan -> readings[scan.source()]++);
        totals.keySet().forEach(scan -> readings[scan.source()]++);
        this.mostSlots = mostSlots(plan);
    }

    /** {@return what the program does} */
    public Plan plan() {
        return plan;
    }

    /** {@return the mapping this was compiled from} */
    public CheckedMapping mapping() {
        return plan.mapping();
    }

    /**
     * {@return all readings of sources a record at a time, in the order of the targets that want
     * them}
     */
    List<Scan> scans() {
        return scans;
    }

    /** {@return the readings of sources a record at a time by any loop} */
    Stream<Scan> allScans() {
        return Stream.concat(scans.stream(), ownScans.stream());
    }

    private static int mostSlots(Plan plan) {
        Stream<@Nullable ? extends Plan.Unit> units = Stream.of(
                        plan.globals(), plan.defines(), plan.fallbacks(), plan.tables(), plan.targets())
                .flatMap(List::stream);
        return units.filter(Objects::nonNull).mapToInt(Plan.Unit::slots).max().orElse(0);
    }

    /** {@return the functions that are calculated in one reading of a source for them} */
    List<TotalNode> totals(Scan scan) {
        return totals.getOrDefault(scan, List.of());
    }

    /**
     * {@return the size of a frame in which each rule of the mapping can be calculated that uses no
     * names but its own}
     */
    int mostSlots() {
        return mostSlots;
    }

    /** {@return how many places look for fields in records} */
    int sites() {
        return sites;
    }

    /** {@return how many times the input of a source is read at most} */
    public int readings(int source) {
        return readings[source];
    }

    List<Unit> globals() {
        return globals;
    }

    List<Param> params() {
        return params;
    }

    List<TableMaker> tables() {
        return tables;
    }

    List<Target> targets() {
        return targets;
    }
}
