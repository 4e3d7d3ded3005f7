package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.format.Projection;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import dev.morphema.syntax.Name;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
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
        TableIndex make(RunState run);
    }

    /**
     * A target.
     *
     * @param split the loop that makes one document a turn, or null if there is one document
     * @param name of each document; null exactly if split is
     * @param document what is written
     * @param repeats whether it has records: turns of an outermost loop, or documents
     * @param pass the records that are pushed through, or null
     * @param foundByKey the sequences in which loops find what they want by keys
     */
    record Target(
            CheckedMapping.Target checked,
            @Nullable LoopPlan split,
            @Nullable Node name,
            Content document,
            boolean repeats,
            @Nullable Scan pass,
            List<Node> foundByKey) {}

    /**
     * One reading of a source, a record at a time.
     *
     * @param path the fields that lead to the records; empty for the records of the format
     */
    record Scan(int source, List<FieldName> path) {
        Scan {
            path = List.copyOf(path);
        }

        // As every record has them; but those are made when they are first called, which takes a
        // tenth of a small run.
        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Scan pass && source == pass.source && path.equals(pass.path);
        }

        @Override
        public int hashCode() {
            return source * 31 + path.hashCode();
        }
    }

    /** Lines of the printed plan are broken after so many characters, where that can be. */
    private static final int WIDEST = 110;

    private final CheckedMapping mapping;
    private final List<Unit> globals;
    private final List<Param> params;
    private final List<TableMaker> tables;
    private final List<Target> targets;
    private final List<Scan> passes;
    private final boolean[] kept;
    private final int[] readings;
    private final @Nullable String[] reasons;
    private final @Nullable String[] filling;
    private final Map<Scan, List<TotalNode>> totals;
    private final int mostSlots;
    private final int sites;

    Program(
            CheckedMapping mapping,
            List<Unit> globals,
            List<Param> params,
            List<TableMaker> tables,
            List<Target> targets,
            StreamFinder streams,
            SourceTotals totals,
            int sites) {
        this.sites = sites;
        this.mapping = mapping;
        this.globals = List.copyOf(globals);
        this.params = List.copyOf(params);
        this.tables = List.copyOf(tables);
        this.targets = List.copyOf(targets);
        this.kept = streams.kept();
        this.filling = streams.filling();
        this.passes = passes(targets);
        this.readings = new int[kept.length];
        for (int i = 0; i < readings.length; i++) {
            readings[i] = kept[i] ? 1 : 0;
        }
        this.totals = totals.byPass();
        for (Scan pass : passes) {
            readings[pass.source()]++;
        }
        for (Scan pass : this.totals.keySet()) {
            readings[pass.source()]++;
        }
        this.mostSlots = mostSlots(mapping);
        this.reasons = streams.reasons();
    }

    /** {@return the mapping this was compiled from} */
    public CheckedMapping mapping() {
        return mapping;
    }

    /**
     * {@return all readings of sources a record at a time, in the order of the targets that want
     * them}
     */
    List<Scan> passes() {
        return passes;
    }

    private static List<Scan> passes(List<Target> targets) {
        Set<Scan> passes = new LinkedHashSet<>();
        for (Target target : targets) {
            if (target.pass() != null) {
                passes.add(target.pass());
            }
        }
        return List.copyOf(passes);
    }

    private static int mostSlots(CheckedMapping mapping) {
        int most = 0;
        for (List<? extends CheckedMapping.Framed> units :
                List.of(mapping.tables(), mapping.params(), mapping.globals(), mapping.defines(), mapping.targets())) {
            for (CheckedMapping.Framed unit : units) {
                most = Math.max(most, unit.slots());
            }
        }
        return most;
    }

    /** {@return the functions that are calculated in one reading of a source for them} */
    List<TotalNode> totals(Scan pass) {
        return totals.getOrDefault(pass, List.of());
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

    /**
     * {@return the name of the table that a source fills, if it is used for nothing else; or null}
     */
    @Nullable
    String tableOf(int source) {
        return filling[source];
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

    /**
     * {@return how the program will run, in a stable text}: for each source whether its records
     * stream or are kept, and what is read of them; for each target the stages of its outermost
     * loop.
     */
    public String plan() {
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < kept.length; i++) {
            int source = i;
            CheckedMapping.Source checked = mapping.sources().get(i);
            String read = "read " + checked.decl().name().text();
            for (Scan pass : passes()) {
                if (pass.source() == i) {
                    out.append(read).append(each(pass));
                    out.append(": one record at a time\n").append(fields(projection(pass)));
                }
            }
            totals.forEach((pass, functions) -> {
                if (pass.source() == source) {
                    boolean again = passes.stream().anyMatch(other -> other.source() == source);
                    out.append(read).append(again ? ", once more" : each(pass)).append(": one record at a time\n");
                    out.append(again ? "" : fields(projection(pass)));
                    out.append(functions.stream()
                            .map(Node::written)
                            .distinct()
                            .collect(Collectors.joining(", ", "  for ", "\n")));
                }
            });
            if (filling[i] != null) {
                out.append(read)
                        .append(": one record at a time, for the table ")
                        .append(filling[i])
                        .append('\n');
                out.append(fields(keptProjection(i)));
            } else if (kept[i]) {
                boolean rest = passes().stream().anyMatch(pass -> pass.source() == source);
                out.append(read).append(rest ? ", the rest: as a whole" : ": as a whole");
                out.append('\n').append(fields(keptProjection(i)));
                if (reasons[i] != null) {
                    out.append("  ").append(reasons[i].replace("\n", "\n  ")).append('\n');
                }
            } else if (readings[i] == 0) {
                out.append(read).append(": not at all, nothing uses it\n");
            }
        }
        for (Target target : targets) {
            out.append("write ").append(target.checked().decl().name().text());
            out.append(": ").append(target.checked().format().name()).append('\n');
            LoopPlan loop = target.split() == null ? Streams.outermost(target.document()) : target.split();
            List<Node> inner = new ArrayList<>(target.foundByKey());
            if (loop != null) {
                out.append("  ").append(KeyedItems.describe(loop.sequence())).append('\n');
                inner.remove(loop.sequence());
                for (Stage stage : loop.stages()) {
                    out.append("  ")
                            .append(stage.describe().replace("\n", "\n  "))
                            .append('\n');
                    inner.removeIf(sequence -> stage instanceof Stages.Bind bind && bind.sequence() == sequence);
                }
            }
            for (Node sequence : inner) {
                out.append("  within: ").append(KeyedItems.describe(sequence)).append('\n');
            }
        }
        return out.toString();
    }

    /**
     * {@return the problem of a run for which the memory is not enough}: what it holds, and by
     * which rules
     */
    public Problem outOfMemory() {
        List<String> held = new ArrayList<>();
        RuleLocation rule = null;
        for (int i = 0; i < kept.length; i++) {
            Name source = mapping.sources().get(i).decl().name();
            if (kept[i]) {
                held.add((filling[i] == null ? "the source " : "the table of the source ") + source.text());
                rule = rule == null ? source.span().location() : rule;
            }
        }
        for (CheckedMapping.Table table : mapping.tables()) {
            held.add("the table " + table.decl().name().text());
        }
        for (Target target : targets) {
            LoopPlan loop = target.split() == null ? Streams.outermost(target.document()) : target.split();
            for (Stage stage : loop == null ? List.<Stage>of() : loop.stages()) {
                if (loop != null && stage.holds()) {
                    held.add(stage.describe().lines().findFirst().orElseThrow() + " (line "
                            + loop.sequence().span().line() + ")");
                    rule = rule == null ? loop.sequence().span().location() : rule;
                }
            }
        }
        String holds = held.isEmpty() ? "one record or document" : String.join("; ", held);
        return Problem.error(Code.MEMORY, "There is not enough memory for what this run holds.")
                .at(rule)
                .withHelp("it holds " + holds + "; more memory is given by -Xmx4g to Java,"
                        + " for the command by MORPHEMA_JAVA_OPTIONS=-Xmx4g");
    }

    private static String each(Scan pass) {
        return pass.path().isEmpty()
                ? ""
                : ", each " + pass.path().stream().map(FieldName::toString).collect(Collectors.joining("."));
    }

    /** {@return what a pass keeps of each record} */
    private Projection projection(Scan pass) {
        Projection at = mapping.sources().get(pass.source()).projection();
        for (FieldName step : pass.path()) {
            at = at.child(step);
        }
        return at;
    }

    /** {@return what is kept of a source beside what streams} */
    Projection keptProjection(int source) {
        Projection rest = mapping.sources().get(source).projection();
        for (Scan pass : passes()) {
            if (pass.source() == source) {
                rest = rest.without(pass.path());
            }
        }
        return rest;
    }

    /** The fields that are read, in lines that are not too long. */
    private static String fields(Projection projection) {
        StringBuilder lines = new StringBuilder("  fields ");
        int begin = 0;
        for (String part : projection.toString().split("(?<=, )")) {
            if (lines.length() - begin + part.length() > WIDEST) {
                lines.append("\n    ");
                begin = lines.length();
            }
            lines.append(part);
        }
        return lines.toString().replace(" \n", "\n") + "\n";
    }
}
