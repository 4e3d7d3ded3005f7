package dev.morphema;

import dev.morphema.check.Checker;
import dev.morphema.check.Environment;
import dev.morphema.engine.Compiler;
import dev.morphema.engine.Program;
import dev.morphema.format.FormatRegistry;
import dev.morphema.format.Input;
import dev.morphema.format.Limits;
import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.function.FunctionTable;
import dev.morphema.function.Stability;
import dev.morphema.function.Trait;
import dev.morphema.output.FileFaults;
import dev.morphema.plan.Planner;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaReader;
import dev.morphema.shape.SchemaShape;
import dev.morphema.standard.StandardFormats;
import dev.morphema.syntax.Formatter;
import dev.morphema.syntax.SourceText;
import dev.morphema.value.Value;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Checks and loads mappings. Immutable and safe for use by many threads.
 *
 * <pre>{@code
 * Mapping mapping = Morphema.standard().load(Path.of("arrival.morphema"));
 * Result result = mapping.run(
 *         Inputs.file("manifest", Path.of("manifest.csv")),
 *         Outputs.file("notice", Path.of("notice.xml")));
 * }</pre>
 */
public final class Morphema {
    private static final Morphema STANDARD = builder().build();

    private final FormatRegistry formats;
    private final FunctionTable functions;
    private final List<SchemaReader> schemas;
    /** Folders that mappings may read of, beside their own. */
    private final List<Path> readable;

    private final Limits limits;

    private Morphema(Builder builder) {
        this.formats = new FormatRegistry(
                builder.sources, builder.targets, installed(SourceFormat.class), installed(TargetFormat.class));
        this.functions = builder.functions;
        this.schemas = List.copyOf(builder.schemas);
        this.readable = List.copyOf(builder.readable);
        this.limits = builder.limits;
    }

    private static <F> Supplier<Iterable<F>> installed(Class<F> kind) {
        return () -> ServiceLoader.load(kind, Morphema.class.getClassLoader());
    }

    /**
     * {@return Morphema with the formats and functions that come with it, and the formats that are
     * installed beside it}
     */
    public static Morphema standard() {
        return STANDARD;
    }

    /** {@return what makes a Morphema that has more, from the standard one} */
    public static Builder builder() {
        return new Builder();
    }

    /** Makes a Morphema with more formats, functions, folders or other limits. Not thread-safe. */
    public static final class Builder {
        private final List<SourceFormat> sources = new ArrayList<>(StandardFormats.sources());
        private final List<TargetFormat> targets = new ArrayList<>(StandardFormats.targets());
        private final List<SchemaReader> schemas = new ArrayList<>();
        private final List<Path> readable = new ArrayList<>();
        private FunctionTable functions = StandardFormats.functions();
        private Limits limits = Limits.DEFAULT;

        private Builder() {}

        /** Adds a format that mappings can read. */
        public Builder source(SourceFormat format) {
            sources.add(Objects.requireNonNull(format));
            return this;
        }

        /** Adds a format that mappings can write. */
        public Builder target(TargetFormat format) {
            targets.add(Objects.requireNonNull(format));
            return this;
        }

        /**
         * Adds what reads schemas, before those that are installed: the module morphema-schemas is
         * found by itself where it is on the class path.
         */
        public Builder schemas(SchemaReader reader) {
            schemas.add(Objects.requireNonNull(reader));
            return this;
        }

        /**
         * Adds the formats that a class loader finds: those that some module, or some library on
         * its class path, {@linkplain ServiceLoader provides} as a {@link SourceFormat} or {@link
         * TargetFormat}. What the loader of Morphema itself finds need not be added: it is looked
         * for when a mapping names such a format.
         *
         * @param loader finds them
         */
        public Builder installedFormats(ClassLoader loader) {
            ServiceLoader.load(SourceFormat.class, loader).forEach(this::source);
            ServiceLoader.load(TargetFormat.class, loader).forEach(this::target);
            return this;
        }

        /**
         * Adds a function for mappings to call.
         *
         * @param signature what it takes and gives, such as {@code checkDigit(imo: text, length?:
         *     integer): number}; the types are those of the reference of functions, {@code many}
         *     excepted
         * @param function does the work
         * @param traits what is special about it; if none, it gives absent for absent, null for
         *     null, and for the same arguments the same
         * @throws IllegalArgumentException if that is no signature, or there is a function of that
         *     name already
         */
        public Builder function(String signature, JavaFunction function, JavaFunction.Trait... traits) {
            List<JavaFunction.Trait> special = List.of(traits);
            Stability stability =
                    special.contains(JavaFunction.Trait.NEW_EACH_CALL) ? Stability.VOLATILE : Stability.PURE;
            Trait[] declared = special.contains(JavaFunction.Trait.TAKES_MISSING)
                    ? new Trait[] {Trait.TAKES_MISSING, Trait.ASKS_PRESENCE}
                    : new Trait[0];
            functions = functions.with(
                    signature, stability, (arguments, run) -> called(signature, function, arguments), declared);
            return this;
        }

        /**
         * Lets mappings also read files in a folder and below: tables, samples and mappings that
         * they use. If nothing is said, a mapping reads only what is in its own folder or below,
         * whatever it names.
         */
        public Builder allowRead(Path folder) {
            readable.add(Objects.requireNonNull(folder));
            return this;
        }

        /** Sets how much inputs may have and runs may take if a run says nothing else. */
        public Builder limits(Limits most) {
            limits = Objects.requireNonNull(most);
            return this;
        }

        /**
         * {@return a Morphema with what was added}
         *
         * @throws IllegalArgumentException if two formats have the same name
         */
        public Morphema build() {
            return new Morphema(this);
        }
    }

    private static Value called(String signature, JavaFunction function, Value[] arguments) {
        Value result;
        try {
            result = function.call(List.of(arguments));
        } catch (ProblemException e) {
            throw e;
        } catch (RuntimeException e) {
            throw new ProblemException(
                    Problem.error(Code.FAILED, "The function " + signature + " has failed: " + e + "."), e);
        }
        if (result == null) {
            throw new ProblemException(Problem.error(
                    Code.FAILED, "The function " + signature + " gave Java's null; for none it gives ABSENT."));
        }
        return result;
    }

    /**
     * {@return the mapping of a file, if it can be run, with all problems}
     *
     * <p>Samples and tables are looked for relative to the folder of the file. A file that cannot
     * be read is a problem too.
     */
    public Checked check(Path file) {
        return check(new FolderOrigin(file, readable));
    }

    /**
     * {@return the mapping of a text, if it can be run, with all problems}
     *
     * @param name what problems call the text
     * @param text the mapping
     * @param folder where samples and tables are looked for
     */
    public Checked check(String name, String text, Path folder) {
        return check(new FolderOrigin(name, text, folder, readable));
    }

    /**
     * {@return the mapping of a resource on the class path, if it can be run, with all problems}
     *
     * <p>Samples and tables are resources too, relative to that of the mapping.
     *
     * @param loader finds the resources
     * @param resource the mapping's name, such as {@code mappings/arrival.morphema}
     */
    public Checked check(ClassLoader loader, String resource) {
        return check(new ResourceOrigin(loader, resource));
    }

    /**
     * {@return the mapping of a file}
     *
     * @throws ProblemException if it has errors
     */
    public Mapping load(Path file) {
        return check(file).orThrow();
    }

    /**
     * {@return the mapping of a text}, as {@link #check(String, String, Path)} takes it
     *
     * @throws ProblemException if it has errors
     */
    public Mapping load(String name, String text, Path folder) {
        return check(name, text, folder).orThrow();
    }

    /**
     * {@return the mapping of a resource}, as {@link #check(ClassLoader, String)} takes it
     *
     * @throws ProblemException if it has errors
     */
    public Mapping load(ClassLoader loader, String resource) {
        return check(loader, resource).orThrow();
    }

    /**
     * {@return a mapping in a file, laid out in the one style}; the file is as it was.
     *
     * @throws ProblemException if the file cannot be read
     */
    public FormattedMapping format(Path file) {
        MappingOrigin origin = new FolderOrigin(file, readable);
        try {
            return formatted(file, origin.name(), origin.text());
        } catch (IOException e) {
            throw new ProblemException(UseLoader.unreadable(origin, null, e), e);
        }
    }

    /**
     * {@return a mapping laid out in the one style}
     *
     * @param name what problems call it
     */
    public FormattedMapping format(String name, String text) {
        return formatted(null, name, text);
    }

    private static FormattedMapping formatted(@Nullable Path file, String name, String text) {
        Formatter.Result result = Formatter.format(new SourceText(name, text));
        return new FormattedMapping(file, text, result.text(), result.problems());
    }

    /**
     * {@return what some files hold}: their format, and the form of all that is in them together.
     *
     * @param files at least one, all of one format, which is found out; those that end in {@code
     *     .gz} are decompressed
     * @param mostRecords after so many it stops
     * @throws ProblemException if a file cannot be read, or is not well-formed
     * @throws IllegalArgumentException if there is no file
     */
    public Looked look(List<Path> files, long mostRecords) {
        return look(files, mostRecords, new RunControl());
    }

    /**
     * {@return what some files hold}, as {@link #look(List, long)} does.
     *
     * @param control tells meanwhile how much was read, and stops it
     */
    public Looked look(List<Path> files, long mostRecords, RunControl control) {
        return new Looking(formats, limits, mostRecords, control).look(files);
    }

    /**
     * {@return what a schema says of documents of a format}; empty if nothing that is installed
     * reads schemas of that form.
     *
     * @param file the schema, relative to the current folder, perhaps with a part of it behind
     *     {@code #}
     * @param format the name of the format
     * @throws ProblemException if it cannot be read, or is no schema
     */
    public Optional<SchemaShape> schema(String file, String format) {
        try {
            return SchemaReader.first(schemas(), file, format, path -> input(Path.of(path)));
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.FILE_NOT_FOUND, "The schema cannot be read: " + FileFaults.reason(e) + ".")
                            .withValue(file),
                    e);
        }
    }

    private Checked check(MappingOrigin origin) {
        try {
            return checked(origin);
        } catch (StackOverflowError e) {
            return new Checked(
                    null,
                    List.of(Problem.error(Code.TOO_DEEP, "The mapping is nested too deeply to be checked.")
                            .withHelp(Mapping.TOO_DEEP_HELP)));
        } catch (OutOfMemoryError e) {
            return new Checked(
                    null,
                    List.of(Problem.error(Code.MEMORY, "There is not enough memory for what this mapping reads itself.")
                            .withHelp("its tables and samples are kept; Java gets more memory by -Xmx4g")));
        }
    }

    /** {@return a file as it is read}: one whose name ends in {@code .gz} is decompressed. */
    public Input input(Path file) {
        return new FileInput(file, limits);
    }

    private List<SchemaReader> schemas() {
        List<SchemaReader> readers = new ArrayList<>(schemas);
        ServiceLoader.load(SchemaReader.class, Morphema.class.getClassLoader()).forEach(readers::add);
        return readers;
    }

    private Checked checked(MappingOrigin origin) {
        UseLoader.Loaded loaded = UseLoader.load(origin);
        List<Problem> problems = new ArrayList<>(loaded.problems());
        if (!problems.stream().allMatch(p -> p.code() == Code.MISSING_BRACE)) {
            // What a broken text seems to mean would only hide what is broken; but a missing brace
            // was put in its
            // place.
            return new Checked(null, problems);
        }
        Environment environment = new Environment(formats, functions, loaded, this::schemas);
        Checker.Result checked = Checker.check(loaded.trees(), environment);
        problems.addAll(checked.problems());
        if (problems.stream().anyMatch(Problem::isError)) {
            return new Checked(null, problems);
        }
        try {
            Program program = Compiler.compile(Planner.plan(checked.mapping()));
            return new Checked(
                    new Mapping(program, formats, limits, origin.filesRead(), loaded, loaded.main()), problems);
        } catch (ProblemException e) {
            problems.addAll(e.problems());
            return new Checked(null, problems);
        }
    }
}
