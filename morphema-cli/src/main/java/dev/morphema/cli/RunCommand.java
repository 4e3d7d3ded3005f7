package dev.morphema.cli;

import dev.morphema.Checked;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Result;
import dev.morphema.RunControl;
import dev.morphema.RunOptions;
import dev.morphema.format.Input;
import dev.morphema.format.Insertion;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.ProblemException;
import dev.morphema.schemas.Validation;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema run}: runs a mapping on inputs and outputs. */
final class RunCommand extends TerminalCommand {
    private static final String STANDARD = "-";

    private final PositionalParamSpec file = mappingFile();
    private final OptionSpec allowRead = allowRead();
    private final OptionSpec in = repeated(
            "--in",
            "[SOURCE=]FILE",
            "The input of a source; - is standard input, jdbc:… is a database, https://… a document of the web, and either may be the name of a connection. With one source its name may be left out. A source of many files takes several, or a pattern in quotes.");
    private final OptionSpec out = repeated(
            "--out",
            "[TARGET=]FILE",
            "The output of a target; - is standard output, jdbc:…, or the name of a connection, is a database. With one target its name may be left out. A target of many documents takes a folder. Without --out all results are shown and no file is written.");
    private final OptionSpec connections = value(
            "--connections",
            Path.class,
            "FILE",
            "A file of properties with the databases and addresses that inputs and outputs can be, such as harbour.url, harbour.user and harbour.password=${HARBOUR_PASSWORD}.");
    private final OptionSpec params = repeated("--param", "NAME=VALUE", "The value of a parameter.");
    private final OptionSpec memory = OptionSpec.builder("--memory")
            .type(Long.class)
            .arity("1")
            .paramLabel("SIZE")
            .converters(new MemorySize())
            .description(
                    "How much memory grouping and sorting may take before they use a temporary file, such as 500k, 64m or 2g; a quarter of Java's memory if not given.")
            .build();
    private final OptionSpec threads = value(
            "--threads",
            Integer.class,
            "COUNT",
            "How many threads may be used; as many as there are processors if not given. Large inputs are read in threads of their own.");
    private final OptionSpec limits = repeated(
            "--limit",
            "NAME=NUMBER",
            "Another limit than the usual one, such as text=500m, depth=2000 or time=30000 (milliseconds); their names: "
                    + Arrays.stream(Limit.values()).map(Limit::word).collect(Collectors.joining(", ")) + ".");
    private final OptionSpec summary = value(
            "--summary",
            Path.class,
            "FILE",
            "A file for what the run came to, in JSON: how many records were read, written and left out, warnings, look-ups that found nothing, or why it failed.");
    private final OptionSpec validate = flag(
            "--validate",
            "Look whether inputs and outputs are as the schemas say that the mapping names; what is not is not written.");
    private final OptionSpec append = flag(
            "--append",
            "Go on behind what is in the files of the outputs, in CSV, JSON Lines and fixed columns; a header is written once. With --merge-into, add to a list that is there.");
    private final OptionSpec mergeInto = value(
            "--merge-into",
            String.class,
            "[TARGET=]FILE",
            "Put the output of a target into the JSON, YAML or XML document of a file, which stays as it is in all else; a copy is kept in FILE.bak. With one target its name may be left out.");
    private final OptionSpec at = value(
            "--at",
            String.class,
            "PATH",
            "Where in the document of --merge-into, as in config.ports; without it, into the outermost record or the root element.");
    private final OptionSpec replace =
            flag("--replace", "With --merge-into: entries that are there already are replaced.");
    private final OptionSpec every = value(
            "--every",
            String.class,
            "PERIOD",
            "Run again and again, such as every 30s, 5m, 1h or PT1H; inputs from addresses are asked for what is new, and without it nothing is run.");
    private final OptionSpec rounds =
            value("--rounds", Integer.class, "COUNT", "With --every: so many rounds; without it, until it is stopped.");
    private final OptionSpec quiet = flag("--quiet", "Say nothing of what was read and written.");

    RunCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        CommandSpec spec = spec("Run a mapping.")
                .addPositional(file)
                .addArgGroup(group(
                        "Inputs and outputs",
                        1,
                        in,
                        out,
                        append,
                        mergeInto,
                        at,
                        replace,
                        connections,
                        params,
                        validate,
                        allowRead))
                .addArgGroup(group("Again and again", 2, every, rounds))
                .addArgGroup(group("Memory, threads and limits", 3, memory, threads, limits));
        spec.usageMessage()
                .footerHeading("%nExamples%n")
                .footer(
                        "  morphema run arrival.morphema --in manifest.csv",
                        "  morphema run arrival.morphema --in manifest=manifest.csv --out notice=notice.xml --out berths=berths.json",
                        "  morphema run dues.morphema --in - --out dues.csv --param valid=2026-03-01",
                        "  morphema run ports.morphema --in ports.csv --merge-into config.json --at harbour.ports",
                        "  morphema run permits.morphema --in calls='inbox/*.json' --out permits/");
        return spec;
    }

    @Override
    List<OptionSpec> messages() {
        List<OptionSpec> messages = new ArrayList<>();
        messages.add(summary);
        messages.add(quiet);
        messages.addAll(super.messages());
        return messages;
    }

    @Override
    public Integer call() {
        long start = System.nanoTime();
        Summary summary = summaryOf();
        try {
            return run(start, summary);
        } catch (ProblemException e) {
            if (summary != null) {
                summary.write(e.problems(), secondsSince(start));
            }
            throw e;
        }
    }

    private int run(long start, @Nullable Summary summary) {
        ProblemPrinter printer = terminal().problems(!hidesValues());
        Checked checked = MappingFile.check(
                morphema(allowRead), file.<Path>getValue(), terminal().in());
        Mapping mapping = checked.mapping().orElse(null);
        if (mapping == null) {
            throw new ProblemException(checked.problems());
        }
        printer.printEach(checked.problems());
        GivenOutputs outputs = outputs(mapping);
        if (every.getValue() == null && rounds.getValue() != null) {
            throw usage("--rounds says something of --every, which is not given.", null);
        }
        Connections known = Connections.of(connections.getValue(), System.getenv());
        try (WebInputs web = new WebInputs()) {
            if (every.getValue() != null) {
                return rounds().run(() -> {
                    Optional<Result> result = turn(mapping, outputs, known, web);
                    return result.map(done -> told(mapping, done)).orElse("nothing new");
                });
            }
            Result result = turn(mapping, outputs, known, web).orElseThrow();
            if (summary != null) {
                summary.write(result, outputs.places(), checked.problems(), secondsSince(start));
            }
            warn(printer, checked, result);
            if (!isOn(quiet)) {
                new Account(terminal().words(), !hidesValues())
                        .print(mapping, result, outputs.places(), System.nanoTime() - start);
            }
            return ExitCode.GOOD;
        }
    }

    private void warn(ProblemPrinter printer, Checked checked, Result result) {
        if (!checked.problems().isEmpty() && !result.warnings().isEmpty()) {
            terminal().words().println();
        }
        printer.printEach(result.warnings(), result.kindsOfWarnings());
        long warnings = checked.problems().size() + result.warningsInAll();
        if (warnings > 0) {
            terminal().words().println();
            terminal().words().println(ProblemPrinter.counted(0, warnings));
        }
    }

    /** {@return what one run came to; empty if there was nothing new to run it on} */
    private Optional<Result> turn(Mapping mapping, GivenOutputs outputs, Connections known, WebInputs web) {
        RunControl control = new RunControl();
        try (Progress progress = Progress.of(control, terminal());
                Interruption interruption = terminal().interruptions().of(control)) {
            GivenInputs given = new GivenInputs(terminal(), mapping, known, limits(), web, this::schema);
            Inputs inputs = inputs(given, mapping);
            if (web.isTaken() && given.areAllAddresses()) {
                return Optional.empty();
            }
            Result result = mapping.run(inputs, outputs.staged(known), options().control(control));
            web.take();
            return Optional.of(result);
        } catch (ProblemException e) {
            if (Main.isBrokenPipe(e) && outputs.areFilesThere()) {
                terminal().words().println("Standard output was closed before its end; the files are written.");
            }
            throw e;
        }
    }

    /** Files that a mapping names are looked for beside it. */
    private Input schema(String path) {
        Path mapping = file.getValue();
        return morphema(allowRead)
                .input(mapping.equals(MappingFile.STANDARD) ? Path.of(path) : mapping.resolveSibling(path));
    }

    private Rounds rounds() {
        Integer most = rounds.getValue();
        if (most != null && most < 1) {
            throw usage("--rounds takes a number from 1 on.", null);
        }
        if (summary.getValue() != null) {
            throw usage("--summary tells of one run, and --every makes many.", null);
        }
        if (words(in).stream().anyMatch(word -> word.equals(STANDARD) || word.endsWith("=" + STANDARD))) {
            throw usage("Standard input can be read once, and --every reads again.", null);
        }
        return new Rounds(terminal(), !hidesValues(), !isOn(quiet), Period.of(every.getValue()), most);
    }

    private String told(Mapping mapping, Result result) {
        terminal().problems(!hidesValues()).printEach(result.warnings(), result.kindsOfWarnings());
        return Account.inOneLine(mapping, result);
    }

    private static double secondsSince(long start) {
        return TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - start) / 1e3;
    }

    private @Nullable Summary summaryOf() {
        Path place = summary.getValue();
        if (place == null) {
            return null;
        }
        Path mapping = file.getValue();
        List<String> merged = mergeInto.getValue() == null ? List.of() : List.of(mergeInto.<String>getValue());
        Stream<String> others = Stream.of(words(in), words(out), merged)
                .flatMap(List::stream)
                .flatMap(word -> Stream.of(word, word.substring(word.indexOf('=') + 1)))
                .filter(word -> !Connections.isAddress(word));
        boolean taken = Stream.concat(others, Stream.of(mapping.toString()))
                .anyMatch(other -> Path.of(other)
                        .toAbsolutePath()
                        .normalize()
                        .equals(place.toAbsolutePath().normalize()));
        if (taken) {
            throw usage("The summary would overwrite an input or output.", "give it a file of its own");
        }
        return new Summary(place, MappingFile.shown(mapping), !hidesValues());
    }

    private Inputs inputs(GivenInputs inputs, Mapping mapping) {
        if (words(in).isEmpty() && words(out).isEmpty() && mergeInto.getValue() == null) {
            return inputs.samples(isOn(quiet));
        }
        boolean standardTaken = file.<Path>getValue().equals(MappingFile.STANDARD);
        return inputs.named(NamedWords.of(words(in), mapping.sources(), "source", "--in"), standardTaken);
    }

    private GivenOutputs outputs(Mapping mapping) {
        String into = mergeInto.getValue();
        String place = at.getValue();
        if (into == null && (place != null || isOn(replace))) {
            throw usage("--at and --replace say something of --merge-into, which is not given.", null);
        }
        if (isOn(append) && isOn(replace)) {
            throw usage("--append adds to what --replace would take away.", "give one of them");
        }
        if (into != null && isOn(validate)) {
            throw usage(
                    "--validate looks at whole documents, and --merge-into writes a part of one.",
                    "morphema validate looks at the file afterwards");
        }
        Insertion.Existing existing = isOn(replace)
                ? Insertion.Existing.REPLACED
                : isOn(append) ? Insertion.Existing.EXTENDED : Insertion.Existing.REFUSED;
        GivenOutputs.Merge merge = new GivenOutputs.Merge(
                into == null ? List.of() : List.of(into), place == null ? List.of() : EntryPath.of(place), existing);
        return new GivenOutputs(terminal(), mapping, words(out), merge, isOn(append));
    }

    private RunOptions options() {
        @Nullable Long bytes = memory.getValue();
        @Nullable Integer count = threads.getValue();
        RunOptions options = bytes == null ? RunOptions.DEFAULT : RunOptions.DEFAULT.memory(bytes);
        if (count != null) {
            if (count < 1) {
                throw usage("--threads takes a number from 1 on.", null);
            }
            options = options.threads(count);
        }
        options = options.limits(limits());
        if (isOn(validate)) {
            options = options.validate(new Validation(ValidateCommand.MOST_PROBLEMS));
        }
        for (String param : words(params)) {
            int at = param.indexOf('=');
            if (at <= 0) {
                throw usage("--param takes a name and a value.", "--param name=value");
            }
            options = options.param(param.substring(0, at), param.substring(at + 1));
        }
        return options;
    }

    private Limits limits() {
        Limits given = Limits.DEFAULT;
        for (String word : words(limits)) {
            int at = word.indexOf('=');
            String name = word.substring(0, Math.max(0, at));
            Limit limit = Limit.of(name).orElseThrow(() -> {
                List<String> known =
                        Arrays.stream(Limit.values()).map(Limit::word).toList();
                return usage(
                        "There is no limit " + (name.isEmpty() ? word : name) + ".",
                        NearNames.proposal(name, known)
                                .orElse("--limit text=500m; limits are " + String.join(", ", known)));
            });
            String number = word.substring(at + 1);
            long most = number.equals("unlimited")
                    ? Limits.UNLIMITED
                    : MemorySize.number(number)
                            .filter(it -> it >= limit.least())
                            .orElseThrow(() -> usage(
                                    "The limit " + name + " is a number from " + limit.least() + " on, or unlimited.",
                                    "--limit " + name + "=64m, where m stands for 1024 times 1024"));
            given = given.with(limit, most);
        }
        return given;
    }
}
