package dev.morphema.cli;

import dev.morphema.Inputs;
import dev.morphema.jdbc.Database;
import dev.morphema.output.FileFaults;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.serve.MappingServer;
import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** {@code morphema serve}: answers posted messages with what mappings make of them. */
final class ServeCommand extends TerminalCommand {
    private static final int USUAL_PORT = 8080;
    private static final Pattern FURTHER = Pattern.compile("([^.=]+)\\.([^.=]+)=(.+)");

    private final PositionalParamSpec words =
            files("MAPPING", "A file, a pattern in quotes, or a folder with mappings.");
    private final OptionSpec port = value(
            "--port",
            Integer.class,
            "NUMBER",
            "The port to listen at; " + USUAL_PORT + " if not given, 0 takes a free one.");
    private final OptionSpec host =
            value("--host", String.class, "ADDRESS", "The address to listen at; only this machine if not given.");
    private final OptionSpec in = repeated(
            "--in",
            "MAPPING.SOURCE=FILE",
            "The input of a source that is not posted: a file, jdbc:… or the name of a connection with a database.");
    private final OptionSpec connections =
            value("--connections", Path.class, "FILE", "A file of properties with the databases that inputs can be.");
    private final OptionSpec atOnce =
            value("--at-once", Integer.class, "COUNT", "How many messages may be at work at once; 64 if not given.");
    private final OptionSpec allowRead = allowRead();

    ServeCommand(Terminal terminal) {
        super(terminal);
    }

    @Override
    CommandSpec spec() {
        CommandSpec spec = spec(
                        "Answer posted messages with what mappings make of them.",
                        "A mapping arrival.morphema answers at /arrival. Beside that there are /health, /metrics and /openapi.json. A mapping that changes is taken up when it passes the check.")
                .addPositional(words)
                .addArgGroup(group("Server", 1, port, host, atOnce))
                .addArgGroup(group("Inputs", 2, in, connections, allowRead));
        spec.usageMessage()
                .footerHeading("%nExamples%n")
                .footer(
                        "  morphema serve arrival.morphema --port 8080",
                        "  curl --data-binary @manifest.csv -H 'Content-Type: text/csv' http://127.0.0.1:8080/arrival");
        return spec;
    }

    @Override
    public Integer call() {
        List<Path> mappings = mappings();
        MappingServer.Builder builder = MappingServer.of(mappings.toArray(Path[]::new))
                .with(morphema(allowRead))
                .port(port.<@Nullable Integer>getValue() == null ? USUAL_PORT : port.<Integer>getValue())
                .log(this::say);
        if (host.<@Nullable String>getValue() != null) {
            builder.host(host.getValue());
        }
        if (atOnce.<@Nullable Integer>getValue() != null) {
            builder.atOnce(Math.max(1, atOnce.<Integer>getValue()));
        }
        further().forEach(builder::inputs);
        try (MappingServer server = builder.start()) {
            Runtime.getRuntime().addShutdownHook(new Thread(() -> end(server), "end-of-server"));
            server.paths().forEach(path -> say("POST " + server.address().resolve(path)));
            server.join();
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_ALLOWED, "The server cannot listen there: " + FileFaults.reason(e) + ".")
                            .withHelp("another port: --port 8081"),
                    e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return ExitCode.GOOD;
    }

    private void say(String line) {
        terminal().words().println(line);
        terminal().words().flush();
    }

    private void end(MappingServer server) {
        server.close();
        say("The server has stopped.");
    }

    private List<Path> mappings() {
        List<Path> mappings = new ArrayList<>();
        for (Path named : named(words)) {
            if (Files.isDirectory(named)) {
                mappings.addAll(mappingsIn(named));
            } else {
                mappings.add(named);
            }
        }
        return mappings;
    }

    private static List<Path> mappingsIn(Path folder) {
        List<Path> found = new ArrayList<>();
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, "*.morphema")) {
            files.forEach(found::add);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.error(Code.NOT_READABLE, "The folder cannot be read: " + FileFaults.reason(e) + ".")
                            .withValue(folder.toString()),
                    e);
        }
        if (found.isEmpty()) {
            throw new ProblemException(Problem.error(Code.FILE_NOT_FOUND, "The folder has no mappings.")
                    .withValue(folder.toString())
                    .withHelp("names of mappings end in .morphema"));
        }
        found.sort(null);
        return found;
    }

    /** {@return the inputs that are not posted, by mapping} */
    private Map<String, Inputs> further() {
        Connections known = Connections.of(connections.getValue(), System.getenv());
        Map<String, Inputs> further = new LinkedHashMap<>();
        for (String word : words(in)) {
            Matcher parts = FURTHER.matcher(word);
            if (!parts.matches()) {
                throw usage("--in takes a mapping, its source and an input.", "--in arrival.ships=ships.csv");
            }
            Inputs before = further.getOrDefault(parts.group(1), Inputs.NONE);
            Optional<Database> database = known.database(parts.group(3));
            further.put(
                    parts.group(1),
                    database.isPresent()
                            ? before.andInput(parts.group(2), database.get().input())
                            : before.andFile(parts.group(2), Path.of(parts.group(3))));
        }
        return further;
    }
}
