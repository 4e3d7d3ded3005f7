package dev.morphema.cli;

import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.Result;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema demo}: lays out the demo and runs it. */
final class DemoCommand extends TerminalCommand {
    private static final List<String> FILES =
            List.of("arrival.morphema", "samples/manifest.csv", "tables/commodities.csv", "tables/berths.csv");
    private static final int LINES_SHOWN = 16;

    private final PositionalParamSpec place = PositionalParamSpec.builder()
            .index("0")
            .type(Path.class)
            .arity("0..1")
            .paramLabel("FOLDER")
            .defaultValue("morphema-demo")
            .description("Where the demo is laid out; ${DEFAULT-VALUE} if none is given.")
            .build();

    private final OptionSpec all = flag(
            "--all",
            "Also make invoices of a database, a workbook and a small service of exchange rates; all of it is here, and the service ends with the command.");

    DemoCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        return spec(
                        "Convert the demo manifest of a harbour: rows of CSV become a nested arrival notice in XML and a list in JSON.",
                        "The mapping and its files are laid out in a folder, to be looked into and changed; what stands there already stays.")
                .addPositional(place)
                .addOption(all);
    }

    @Override
    public Integer call() {
        long start = System.nanoTime();
        Path folder = place.getValue();
        DemoFiles files = new DemoFiles(folder);
        files.layOut(FILES);
        Path mappingFile = folder.resolve("arrival.morphema");
        Mapping mapping = Morphema.standard().load(mappingFile);
        Map<String, String> outputs = new LinkedHashMap<>();
        outputs.put("notice", folder.resolve("out/notice.xml").toString());
        outputs.put("terminal", folder.resolve("out/terminal.json").toString());
        Outputs places = Outputs.NONE;
        for (Map.Entry<String, String> output : outputs.entrySet()) {
            places = places.andFile(output.getKey(), Path.of(output.getValue()));
        }
        Path manifest = folder.resolve("samples/manifest.csv");
        Result result = mapping.run(Inputs.file("manifest", manifest), places);
        long nanos = System.nanoTime() - start;

        PrintWriter out = terminal().text();
        out.println("mapping " + mappingFile);
        out.println("input   " + manifest);
        new Account(out, true).print(mapping, result, outputs, nanos);
        new ProblemPrinter(
                        out,
                        true,
                        terminal().look().colourOut(),
                        terminal().look().width())
                .print(result.warnings());
        outputs.forEach((target, file) -> show(file, mapping.formatOf(target)));
        out.println();
        out.println("Change " + mappingFile + " and run: morphema run " + mappingFile + " --in " + manifest
                + " --out terminal=-");
        if (isOn(all)) {
            out.println();
            new DuesDemo(terminal(), files).run();
        }
        return ExitCode.GOOD;
    }

    private void show(String file, String format) {
        terminal().text().println();
        terminal().text().flush();
        ShownOutput shown = new ShownOutput(terminal(), "the first lines of " + file, format);
        try (Stream<String> lines = Files.lines(Path.of(file))) {
            String first = lines.limit(LINES_SHOWN).collect(Collectors.joining("\n", "", "\n"));
            OutputStream out = shown.stream();
            out.write(first.getBytes(StandardCharsets.UTF_8));
            out.flush();
        } catch (IOException e) {
            throw new ProblemException(Problem.error(Code.NOT_READABLE, file + " cannot be read again."), e);
        }
    }
}
