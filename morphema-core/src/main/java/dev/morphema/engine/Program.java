package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.value.Converter;
import java.util.List;
import java.util.Objects;
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

        /** Set once while compiling: a define may be called by what is compiled before it, and by itself. */
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
     * @param document what is written
     * @param repeats whether it has records: turns of an outermost loop
     * @param streamed the source whose records are pushed through, or -1
     */
    record Target(CheckedMapping.Target checked, Content document, boolean repeats, int streamed) {}

    private final CheckedMapping mapping;
    private final List<Unit> globals;
    private final List<Param> params;
    private final List<TableMaker> tables;
    private final List<Target> targets;
    private final boolean[] streams;

    Program(
            CheckedMapping mapping,
            List<Unit> globals,
            List<Param> params,
            List<TableMaker> tables,
            List<Target> targets,
            boolean[] streams) {
        this.mapping = mapping;
        this.globals = List.copyOf(globals);
        this.params = List.copyOf(params);
        this.tables = List.copyOf(tables);
        this.targets = List.copyOf(targets);
        this.streams = streams.clone();
    }

    /** {@return the mapping this was compiled from} */
    public CheckedMapping mapping() {
        return mapping;
    }

    /** {@return whether the records of a source are read one at a time; if not, all are kept} */
    public boolean streams(int source) {
        return streams[source];
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
     * {@return how the program will run, in a stable text}: for each source whether its records stream or are kept, and
     * what is read of them; for each target the stages of its outermost loop.
     */
    public String plan() {
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < streams.length; i++) {
            CheckedMapping.Source source = mapping.sources().get(i);
            out.append("read ").append(source.decl().name().text()).append(": ");
            out.append(
                    streams[i]
                            ? "one record at a time"
                            : "as a whole, since it is not just the outermost loop of targets");
            out.append("; fields ").append(source.projection()).append('\n');
        }
        for (Target target : targets) {
            out.append("write ").append(target.checked().decl().name().text());
            out.append(": ").append(target.checked().format().name()).append('\n');
            LoopPlan loop = Streams.outermost(target.document());
            if (loop != null) {
                out.append("  for each of ").append(loop.sequence().written()).append('\n');
                loop.stages()
                        .forEach(stage ->
                                out.append("  ").append(stage.describe()).append('\n'));
            }
        }
        return out.toString();
    }
}
