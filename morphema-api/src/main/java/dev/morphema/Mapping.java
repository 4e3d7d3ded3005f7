package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.check.Environment;
import dev.morphema.engine.ParamValues;
import dev.morphema.engine.Program;
import dev.morphema.engine.Run;
import dev.morphema.engine.RunCaches;
import dev.morphema.format.FormatRegistry;
import dev.morphema.format.Input;
import dev.morphema.format.Limits;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.output.FileFaults;
import dev.morphema.output.StagedOutput;
import dev.morphema.output.StagedOutputs;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.SourceText;
import dev.morphema.value.ListValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A mapping that was checked and can be run. Immutable and safe for use by many threads at the same
 * time.
 */
public final class Mapping {
    static final String TOO_DEEP_HELP =
            "move inner parts into a let or a define; Java's option -Xss gives a larger stack";

    private final Program program;
    private final FormatRegistry formats;
    /** Of runs that are told no others. */
    private final Limits limits;

    private final Set<Path> filesRead;
    private final Environment.Files files;
    private final SourceText text;
    private final List<String> sources;
    private final List<String> targets;
    private final List<String> params;

    /**
     * @param filesRead the files that the mapping was made of, which no output may replace
     * @param files finds the files that the mapping names
     * @param text the mapping itself
     */
    Mapping(
            Program program,
            FormatRegistry formats,
            Limits limits,
            Set<Path> filesRead,
            Environment.Files files,
            SourceText text) {
        this.text = text;
        this.program = program;
        this.files = files;
        this.limits = limits;
        this.filesRead = filesRead;
        this.formats = formats;
        CheckedMapping mapping = program.mapping();
        this.sources = names(mapping.sources());
        this.targets = names(mapping.targets());
        this.params = names(mapping.params());
    }

    private static List<String> names(List<? extends CheckedMapping.Declared> declared) {
        List<String> names = new ArrayList<>();
        for (CheckedMapping.Declared one : declared) {
            names.add(one.decl().name().text());
        }
        return List.copyOf(names);
    }

    /** {@return the names of the sources, in written order} */
    public List<String> sources() {
        return sources;
    }

    /** {@return the names of the targets, in written order} */
    public List<String> targets() {
        return targets;
    }

    /** {@return what the mapping takes and gives, as far as it is known before a run} */
    public Outline outline() {
        return new Outline(program.mapping());
    }

    /** {@return the names of the parameters, in written order} */
    public List<String> params() {
        return params;
    }

    /**
     * {@return how the mapping will run, in a stable text}: whether each source is read one record
     * at a time or kept as a whole, which of its fields are read, and the stages of each target's
     * outermost loop.
     */
    public String plan() {
        return program.plan().toString();
    }

    /**
     * {@return the samples that sources declare, as inputs of these sources}; of a source that is
     * read from one file, the first of its samples. Sources without a sample are not there.
     *
     * @throws ProblemException if a pattern of samples means no file
     */
    public Inputs samples() {
        Inputs samples = Inputs.NONE;
        for (CheckedMapping.Source source : program.mapping().sources()) {
            List<Input> all = new ArrayList<>();
            for (String named : source.samples()) {
                all.addAll(files.all(source.decl().format().span().source(), named));
            }
            if (!all.isEmpty()) {
                samples = samples.with(source.decl().name().text(), source.isOfManyFiles() ? all : all.subList(0, 1));
            }
        }
        return samples;
    }

    /**
     * {@return for each source with samples the fields that these have and the mapping does not
     * read}, as paths from the source or one of its records on.
     *
     * @throws ProblemException if a sample cannot be read
     */
    public Map<String, List<String>> unread() {
        Map<String, List<String>> unread = new LinkedHashMap<>();
        Map<String, List<Input>> samples = samples().bySource();
        for (CheckedMapping.Source source : program.mapping().sources()) {
            List<Input> shown = samples.get(source.decl().name().text());
            if (shown != null) {
                try {
                    unread.put(source.decl().name().text(), UnreadFields.of(source, shown));
                } catch (IOException e) {
                    throw new ProblemException(
                            Problem.error(Code.NOT_READABLE, "A sample cannot be read: " + FileFaults.reason(e) + "."),
                            e);
                }
            }
        }
        return unread;
    }

    /** As {@link #run(Inputs, Outputs, RunOptions)}, with the default options. */
    public Result run(Inputs inputs, Outputs outputs) {
        return run(inputs, outputs, RunOptions.DEFAULT);
    }

    /**
     * Runs the mapping. The outputs appear when all of them are whole; after a failure what stood
     * there before is untouched.
     *
     * @param inputs one for each source
     * @param outputs for some or all targets; none may be a file that is an input
     * @throws ProblemException if the run failed: by the data, by a file, or by a name that the
     *     mapping does not have
     */
    public Result run(Inputs inputs, Outputs outputs, RunOptions options) {
        return run(inputs, outputs, options, null);
    }

    /** {@return what runs one after the other can share} */
    /** {@return options with the limits of this mapping where they say nothing of their own} */
    RunOptions limited(RunOptions options) {
        return options.within(limits);
    }

    RunCaches newCaches() {
        return new RunCaches(program);
    }

    /**
     * As {@link #run(Inputs, Outputs, RunOptions)}, after other runs with the same caches; null if
     * there are none.
     */
    Result run(Inputs inputs, Outputs outputs, RunOptions given, @Nullable RunCaches caches) {
        RunOptions options = limited(given);
        checkNames(inputs, outputs, options);
        inputs.requireFiles();
        try (StagedOutputs staged = new StagedOutputs(inputs.files(), filesRead)) {
            open(outputs, staged);
            Result result = write(inputs, staged, outputs, options, caches);
            Validating validating = validating(options);
            if (validating != null) {
                validating.outputs(staged);
            }
            staged.commit();
            options.complete();
            return result;
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITTEN, "The output cannot be written: " + FileFaults.reason(e) + "."), e);
        } catch (OutOfMemoryError e) {
            // What the run held is garbage by now.
            throw new ProblemException(program.plan().outOfMemory(), e);
        } catch (StackOverflowError e) {
            throw new ProblemException(
                    Problem.error(Code.LIMIT, "The rules of this mapping are nested too deeply for this run.")
                            .withHelp(TOO_DEEP_HELP),
                    e);
        }
    }

    private void open(Outputs outputs, StagedOutputs staged) throws IOException {
        for (int i = 0; i < targets().size(); i++) {
            StagedOutput.Opening opening = outputs.byTarget().get(targets().get(i));
            if (opening != null) {
                StagedOutput output = opened(opening);
                staged.add(i, output);
                checkOutput(i, output);
            }
        }
        staged.checkPlaces();
    }

    private void checkOutput(int target, StagedOutput output) {
        String name = targets().get(target);
        if (output.isOfManyDocuments() != hasManyDocuments(name)) {
            throw new ProblemException(
                    output.isOfManyDocuments()
                            ? Problem.error(
                                    Code.USAGE, "The target " + name + " has one document: its output is a file.")
                            : Problem.error(
                                    Code.USAGE, "The target " + name + " has many documents: its output is a folder."));
        }
    }

    private static StagedOutput opened(StagedOutput.Opening opening) {
        try {
            return opening.open();
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_WRITTEN, "The output cannot be opened: " + FileFaults.reason(e) + "."), e);
        }
    }

    private Result write(
            Inputs given, StagedOutputs staged, Outputs outputs, RunOptions options, @Nullable RunCaches caches)
            throws IOException {
        try (RereadableInputs rereadable = RereadableInputs.of(given, program);
                ReadingThreads threads = options.readingThreads()) {
            Inputs inputs = rereadable.inputs();
            Validating validating = validating(options);
            if (validating != null) {
                validating.inputs(inputs);
            }
            try {
                return Result.of(
                        program,
                        Run.run(
                                program,
                                options.settings(caches),
                                new RunInputs(program, options.followed(inputs), threads, options.limits()),
                                new RunOutputs(
                                        program, staged, outputs.byTarget().isEmpty())),
                        inputs);
            } catch (ProblemException e) {
                throw new ProblemException(e.problems().stream()
                        .map(p -> InputLines.shown(p, inputs))
                        .toList());
            }
        }
    }

    private @Nullable Validating validating(RunOptions options) {
        DocumentCheck check = options.check();
        return check == null ? null : new Validating(program, check, path -> files.find(text, path));
    }

    private void checkNames(Inputs inputs, Outputs outputs, RunOptions options) {
        List<Problem> problems = new ArrayList<>();
        unknown(inputs.bySource().keySet(), sources(), Code.UNKNOWN_SOURCE, "source", problems);
        unknown(outputs.byTarget().keySet(), targets(), Code.UNKNOWN_TARGET, "target", problems);
        unknown(options.params().keySet(), params(), Code.PARAMETER, "parameter", problems);
        for (CheckedMapping.Source source : program.mapping().sources()) {
            String name = source.decl().name().text();
            List<Input> given = inputs.bySource().get(name);
            if (given == null) {
                problems.add(Problem.error(Code.MISSING_INPUT, "The source " + name + " has no input.")
                        .withHelp("give it one: --in " + name + "=FILE, in Java Inputs.file(\"" + name + "\", …)"));
            } else if (given.size() != 1 && !source.isOfManyFiles()) {
                problems.add(Problem.error(
                                Code.USAGE, "The source " + name + " has one input, given are " + given.size() + ".")
                        .withHelp("a source that is read from any number of files has the option files = many"));
            }
        }
        if (!problems.isEmpty()) {
            throw new ProblemException(problems);
        }
    }

    /** Refuses parameters that there are not, and values that are not of their types. */
    void requireParams(RunOptions options) {
        List<Problem> problems = new ArrayList<>();
        unknown(options.params().keySet(), params(), Code.PARAMETER, "parameter", problems);
        if (!problems.isEmpty()) {
            throw new ProblemException(problems);
        }
        ParamValues.requireTypes(program, options.params());
    }

    /** Refuses inputs of sources that there are not. */
    void requireSources(Inputs inputs) {
        List<Problem> problems = new ArrayList<>();
        unknown(inputs.bySource().keySet(), sources(), Code.UNKNOWN_SOURCE, "source", problems);
        if (!problems.isEmpty()) {
            throw new ProblemException(problems);
        }
    }

    private static void unknown(
            Collection<String> given, List<String> known, Code code, String what, List<Problem> problems) {
        for (String name : given) {
            if (!known.contains(name)) {
                problems.add(Problem.error(code, "The mapping has no " + what + " " + name + ".")
                        .withHelp(NearNames.proposal(name, known).orElse(null)));
            }
        }
    }

    /**
     * {@return what turns messages of one source into messages of one target, in memory}
     *
     * @throws ProblemException if the mapping has no such source or target, or needs another source
     */
    public Messages messages(String source, String target) {
        return messages(source, target, RunOptions.DEFAULT);
    }

    /** As {@link #messages(String, String)}, with options that hold for all messages. */
    public Messages messages(String source, String target, RunOptions options) {
        return messages(source, target, Inputs.NONE, options);
    }

    /**
     * As {@link #messages(String, String)}, where the mapping has more sources than that of the
     * messages.
     *
     * @param further the inputs of the other sources, read anew for each message
     * @param options that hold for all messages
     * @throws ProblemException if the mapping has no such source, target or parameter, a source has
     *     no input, or the value of a parameter is not of its type
     */
    public Messages messages(String source, String target, Inputs further, RunOptions options) {
        checkNames(
                further.andBytes(source, new byte[0]),
                Outputs.stream(target, OutputStream.nullOutputStream()),
                options);
        ParamValues.requireTypes(program, options.params());
        if (hasManyDocuments(target)) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "The target " + target + " has many documents; a message becomes one."));
        }
        return new Messages(this, source, target, further, options);
    }

    /** {@return whether a source is the sequence over any number of files} */
    public boolean hasManyFiles(String source) {
        int index = sources.indexOf(source);
        return index >= 0 && program.mapping().sources().get(index).isOfManyFiles();
    }

    /** {@return whether a target has any number of documents, each with a name} */
    public boolean hasManyDocuments(String target) {
        return target(target).split();
    }

    /** {@return the name of a target's format, such as {@code xml}} */
    public String formatOf(String target) {
        return target(target).format().name();
    }

    /** {@return the name of a source's format} */
    public String formatOfSource(String source) {
        return source(source).format().name();
    }

    /** {@return the encoding in which a source is read where nothing in it says another one} */
    public Charset encodingOf(String source) {
        return source(source).options().encoding();
    }

    private CheckedMapping.Source source(String name) {
        CheckedMapping.Source found = program.mapping().source(name);
        if (found == null) {
            throw new ProblemException(Problem.error(Code.UNKNOWN_SOURCE, "The mapping has no source " + name + ".")
                    .withHelp(NearNames.proposal(name, sources).orElse(null)));
        }
        return found;
    }

    /**
     * {@return a document of a target as a value, read by the options that the target is written
     * by}; a sequence of records is a list, and of a format that is not read back the lines are.
     *
     * @param target its name
     * @param name what problems call the document
     * @param document as the target could have written it
     * @throws ProblemException if the document is not well-formed, or the target's format cannot be
     *     read
     */
    public Value readBack(String target, String name, byte[] document) {
        CheckedMapping.Target checked = target(target);
        if (!checked.format().readsBack()) {
            return ListValue.of(new String(document, StandardCharsets.UTF_8)
                    .lines()
                    .<Value>map(TextValue::of)
                    .toList());
        }
        Input input = Input.of(name, document);
        SourceFormat format = formats.source(checked.format().name())
                .orElseThrow(() -> new ProblemException(
                        Problem.error(Code.UNKNOWN_FORMAT, "The format of the target " + target + " cannot be read.")));
        try (RecordReader reader = format.open(input, Projection.everything(), checked.optionsToReadBack())) {
            return reader.whole();
        } catch (IOException e) {
            throw new ProblemException(Problem.error(Code.NOT_READABLE, "The document cannot be read."), e);
        }
    }

    private CheckedMapping.Target target(String name) {
        int index = targets.indexOf(name);
        if (index < 0) {
            throw new ProblemException(Problem.error(Code.UNKNOWN_TARGET, "The mapping has no target " + name + ".")
                    .withHelp(NearNames.proposal(name, targets).orElse(null)));
        }
        return program.mapping().targets().get(index);
    }
}
