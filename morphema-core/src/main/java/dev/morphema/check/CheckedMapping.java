package dev.morphema.check;

import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.shape.Shape;
import dev.morphema.syntax.Decl;
import dev.morphema.value.Converter;
import dev.morphema.value.Value;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A mapping that was checked, in its parts. Immutable.
 *
 * @param resolution what the names in the tree mean
 */
public record CheckedMapping(
        List<Source> sources,
        List<Table> tables,
        List<Param> params,
        List<Global> globals,
        List<Define> defines,
        List<Target> targets,
        Resolution resolution) {
    /** The option that says whether a source has many files. */
    static final String FILES = "files";

    static final String FILES_MANY = "many";

    /** The option that names samples. */
    static final String SAMPLE = "sample";

    /** The option that names a schema, of sources and targets. */
    static final String SCHEMA = "schema";

    public CheckedMapping {
        sources = List.copyOf(sources);
        tables = List.copyOf(tables);
        params = List.copyOf(params);
        globals = List.copyOf(globals);
        defines = List.copyOf(defines);
        targets = List.copyOf(targets);
    }

    private static boolean isOfManyFiles(Options options) {
        return FILES_MANY.equals(options.text(FILES).orElse(""));
    }

    /** {@return whether a source is a sequence of records, whatever its inputs hold} */
    static boolean isSequence(SourceFormat format, Options options) {
        return format.traits().sequence() || isOfManyFiles(options);
    }

    /** Something with a name of its own. */
    public interface Declared {
        /** {@return how it was declared} */
        Decl.Named decl();
    }

    /** What runs in a frame. */
    public interface Framed {
        /** {@return the size of the frame} */
        int slots();
    }

    /**
     * A source and what is read of it.
     *
     * @param shape what its samples and its schema show, or null if it has none
     */
    public record Source(
            Decl.Source decl,
            SourceFormat format,
            Options options,
            Projection projection,
            @Nullable Shape shape) implements Declared {
        /** {@return whether the source is the sequence over any number of files} */
        public boolean isOfManyFiles() {
            return CheckedMapping.isOfManyFiles(options);
        }

        /** {@return the files that show what its inputs are like, as the mapping names them} */
        public List<String> samples() {
            return options.texts(SAMPLE).orElse(List.of());
        }

        /** {@return the schema, as the mapping names it} */
        public Optional<String> schema() {
            return options.text(SCHEMA);
        }

        /** {@return whether the source is a sequence of records, whatever its inputs hold} */
        public boolean isSequence() {
            return CheckedMapping.isSequence(format, options);
        }
    }

    /**
     * A table.
     *
     * @param decl how it was declared
     * @param rows of a table from a file; empty for others
     * @param slots the size of its frame, for a loop
     * @param onDemand the index of the source that is asked for each row when it is looked up, or
     *     -1
     */
    public record Table(Decl.Named decl, List<Value> rows, int slots, int onDemand) implements Framed {
        Table(Decl.Named decl, List<Value> rows, int slots) {
            this(decl, rows, slots, -1);
        }

        public Table {
            rows = List.copyOf(rows);
        }
    }

    /** A parameter with the conversion to its type. */
    public record Param(Decl.Param decl, Converter converter, int slots) implements Declared, Framed {}

    /** A let of the top level. */
    public record Global(Decl.Let decl, int slots) implements Framed {}

    /** A define; its first slots are its arguments. */
    public record Define(Decl.Define decl, int slots) implements Framed {}

    /**
     * A target.
     *
     * @param split whether there is a document for each turn of a loop
     * @param list whether a document is a list; if not, it is one record or value
     * @param columns of a flat format
     * @param prefixes the prefixes that its fields use, with their namespaces
     * @param slots the size of its frame
     * @param shape what its schema wants, or null if it has none
     */
    public record Target(
            Decl.Target decl,
            TargetFormat format,
            Options options,
            boolean split,
            boolean list,
            List<String> columns,
            Map<String, String> prefixes,
            int slots,
            @Nullable Shape shape)
            implements Declared, Framed {
        public Target {
            columns = List.copyOf(columns);
            prefixes = Map.copyOf(prefixes);
        }

        /** {@return the schema, as the mapping names it} */
        public Optional<String> schema() {
            return options.text(SCHEMA);
        }

        /** {@return the options by which a document of this target can be read} */
        public Options optionsToReadBack() {
            if (!format.traits().flat()) {
                return options;
            }
            return options.isOn("header", true)
                    ? options.without("columns")
                    : options.with("columns", columns).with("header", false);
        }
    }

    /** {@return the source of a name, or null} */
    public @Nullable Source source(String name) {
        return sources.stream()
                .filter(s -> s.decl().name().text().equals(name))
                .findFirst()
                .orElse(null);
    }
}
