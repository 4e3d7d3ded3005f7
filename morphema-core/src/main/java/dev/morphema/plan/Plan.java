package dev.morphema.plan;

import dev.morphema.check.CheckedMapping;
import dev.morphema.format.Projection;
import dev.morphema.problem.Problem;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * What a mapping does. Immutable.
 *
 * @param mapping that it does, for what is declared
 * @param sources how each is read beside what {@linkplain Target#scan streams}
 * @param globals the lets of the top level
 * @param defines what each define gives
 * @param fallbacks of parameters, each null if it has none
 */
public record Plan(
        CheckedMapping mapping,
        List<Source> sources,
        List<Formula> globals,
        List<Formula> defines,
        List<@Nullable Formula> fallbacks,
        List<Table> tables,
        List<Target> targets) {
    public Plan {
        sources = List.copyOf(sources);
        globals = List.copyOf(globals);
        defines = List.copyOf(defines);
        fallbacks = Collections.unmodifiableList(new ArrayList<>(fallbacks));
        tables = List.copyOf(tables);
        targets = List.copyOf(targets);
    }

    /**
     * A source.
     *
     * @param kept whether it, or what no loop streams of it, is read as a whole
     * @param reason if it is kept, why, and what would let it stream; or null
     */
    public record Source(boolean kept, @Nullable String reason) {}

    /** What has slots of its own for its names. */
    public sealed interface Unit {
        /** {@return how many slots there are} */
        int slots();

        /** {@return this unit with its parts as a pass gives them} */
        Unit rebuilt(PlanPass pass);
    }

    /** A term that stands for itself: a let of the top level, a define, a default. */
    public record Formula(Term term, int slots) implements Unit {
        @Override
        public Formula rebuilt(PlanPass pass) {
            Term rebuilt = pass.term(term);
            return new Formula(rebuilt, pass.slots(slots));
        }
    }

    /** A table. */
    public sealed interface Table extends Unit {
        @Override
        Table rebuilt(PlanPass pass);
    }

    /** A table whose rows were read when the mapping was checked. */
    public record FileTable() implements Table {
        @Override
        public int slots() {
            return 0;
        }

        @Override
        public Table rebuilt(PlanPass pass) {
            return this;
        }
    }

    /**
     * A table that a loop fills.
     *
     * @param from the start of a range, or null
     * @param to the end of a range, or null
     */
    public record LoopTable(
            Pipeline loop,
            List<Term> keys,
            @Nullable Term from,
            @Nullable Term to,
            Term row,
            int slots) implements Table {
        @Override
        public Table rebuilt(PlanPass pass) {
            return new LoopTable(
                    pass.pipeline(loop),
                    pass.terms(keys),
                    from == null ? null : pass.term(from),
                    to == null ? null : pass.term(to),
                    pass.term(row),
                    pass.slots(slots));
        }
    }

    /**
     * A table each row of which is asked for when it is looked up.
     *
     * @param source the source that is asked
     */
    public record AskedTable(int source) implements Table {
        @Override
        public int slots() {
            return 0;
        }

        @Override
        public Table rebuilt(PlanPass pass) {
            return this;
        }
    }

    /** A table that stands in the mapping: the value of each entry. */
    public record InlineTable(List<Term> values, int slots) implements Table {
        @Override
        public Table rebuilt(PlanPass pass) {
            List<Term> rebuilt = pass.terms(values);
            return new InlineTable(rebuilt, pass.slots(slots));
        }
    }

    /**
     * A target.
     *
     * @param split the loop that makes one document a turn, or null if there is one document
     * @param name of each document; null exactly if split is
     * @param document what is written
     * @param repeats whether it has records: turns of an outermost loop, or documents
     * @param scan the records that are pushed through its outermost loop, or null
     */
    public record Target(
            CheckedMapping.Target checked,
            @Nullable Pipeline split,
            @Nullable Term name,
            Output document,
            boolean repeats,
            @Nullable Scan scan,
            int slots)
            implements Unit {
        @Override
        public Target rebuilt(PlanPass pass) {
            return new Target(
                    checked,
                    split == null ? null : pass.pipeline(split),
                    name == null ? null : pass.term(name),
                    pass.output(document),
                    repeats,
                    scan,
                    pass.slots(slots));
        }

        Target streaming(@Nullable Scan records) {
            return new Target(checked, split, name, document, repeats, records, slots);
        }

        /** {@return the loop whose turns are documents, or those that the document leads to} */
        List<Pipeline> loops() {
            return split == null ? OutermostLoop.all(document) : List.of(split);
        }
    }

    /**
     * {@return this plan with its parts as passes give them}
     *
     * @param passes gives the pass for each unit, which it may have looked through before
     */
    Plan rebuilt(Function<Unit, PlanPass> passes) {
        UnaryOperator<Formula> formula = unit -> unit.rebuilt(passes.apply(unit));
        List<@Nullable Formula> others = new ArrayList<>();
        fallbacks.forEach(fallback -> others.add(fallback == null ? null : formula.apply(fallback)));
        return new Plan(
                mapping,
                sources,
                globals.stream().map(formula).toList(),
                defines.stream().map(formula).toList(),
                others,
                tables.stream().map(unit -> unit.rebuilt(passes.apply(unit))).toList(),
                targets.stream().map(unit -> passes.apply(unit).target(unit)).toList());
    }

    /** Goes through all of this plan by a pass that changes nothing. */
    void look(PlanPass pass) {
        rebuilt(unit -> pass);
    }

    Plan with(List<Source> other) {
        return new Plan(mapping, other, globals, defines, fallbacks, tables, targets);
    }

    /**
     * {@return all readings of sources a record at a time for loops, in the order of the targets
     * that want them}
     */
    public List<Scan> scans() {
        Set<Scan> scans = new LinkedHashSet<>();
        for (Target target : targets) {
            if (target.scan() != null) {
                scans.add(target.scan());
            }
        }
        return List.copyOf(scans);
    }

    /** {@return the readings of sources by loops that read for themselves, in written order} */
    public List<Scan> ownScans() {
        List<Scan> scans = new ArrayList<>();
        look(new PlanPass() {
            @Override
            public Term term(Term term) {
                if (term instanceof PlannedTerm.Scanned scanned) {
                    scans.add(scanned.scan());
                }
                return super.term(term);
            }
        });
        return scans;
    }

    /** {@return what is read of each record} */
    Projection projection(Scan scan) {
        Projection at = mapping.sources().get(scan.source()).projection();
        for (FieldName step : scan.path()) {
            at = at.child(step);
        }
        return at;
    }

    /** {@return what is read of a source beside what streams} */
    public Projection keptProjection(int source) {
        Projection rest = mapping.sources().get(source).projection();
        for (Scan scan : scans()) {
            rest = scan.source() == source ? rest.without(scan.path()) : rest;
        }
        for (Scan scan : ownScans()) {
            rest = scan.source() == source ? rest.without(scan.path()) : rest;
        }
        return rest;
    }

    /**
     * {@return the problem of a run for which the memory is not enough}: what it holds, and by
     * which rules
     */
    public Problem outOfMemory() {
        return Holdings.outOfMemory(this);
    }

    /** {@return the plan in a stable printed form, for people} */
    @Override
    public String toString() {
        return new PlanPrinter(this).print();
    }
}
