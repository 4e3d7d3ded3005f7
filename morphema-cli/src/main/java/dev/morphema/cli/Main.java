package dev.morphema.cli;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The command {@code morphema}. */
@Command(
        name = "morphema",
        description = "Turns messages of one system into messages of another, by a mapping.",
        versionProvider = Version.class,
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "COMMAND",
        footerHeading = "%nExit codes%n",
        footer = {
            "  0    all is well",
            "  1    the data is not as the mapping needs it",
            "  2    the mapping is wrong",
            "  3    the command was used wrongly",
            "  4    a file cannot be read or written",
            "  130  interrupted"
        })
public final class Main {
    private static final String BROKEN_PIPE = "Broken pipe";

    private static final Map<String, Class<?>> COMMANDS = new LinkedHashMap<>();

    static {
        COMMANDS.put("demo", DemoCommand.class);
        COMMANDS.put("run", RunCommand.class);
        COMMANDS.put("check", CheckCommand.class);
        COMMANDS.put("plan", PlanCommand.class);
        COMMANDS.put("test", TestCommand.class);
    }

    private Main() {}

    /** Runs the command and ends with its exit code. */
    public static void main(String[] args) {
        // Standard streams in UTF-8 whatever the machine's encoding is; results go to standard output as bytes.
        OutputStream out = new FileOutputStream(FileDescriptor.out);
        OutputStream err = new FileOutputStream(FileDescriptor.err);
        System.exit(run(args, System.in, out, err));
    }

    /**
     * {@return the exit code of the command}
     *
     * @param args the words of the command line
     * @param in standard input
     * @param out standard output, which gets results
     * @param err standard error, which gets everything else
     */
    public static int run(String[] args, InputStream in, OutputStream out, OutputStream err) {
        PrintWriter words = new PrintWriter(new OutputStreamWriter(err, StandardCharsets.UTF_8), true);
        PrintWriter text = new PrintWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8), true);
        Terminal terminal = new Terminal(in, out, text, words);
        CommandLine line = new CommandLine(new Main(), new Terminal.Factory(terminal));
        commands(args).forEach(line::addSubcommand);
        line.setOut(text)
                .setErr(words)
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler((e, command, parsed) -> failed(e, command, words))
                .setParameterExceptionHandler((e, rest) -> {
                    words.println("morphema: " + e.getMessage());
                    CommandLine.UnmatchedArgumentException.printSuggestions(e, words);
                    words.println("try: " + e.getCommandLine().getCommandSpec().qualifiedName() + " --help");
                    return ExitCode.USAGE;
                });
        int code = executed(line, args, words);
        text.flush();
        words.flush();
        return code;
    }

    /** To look at the options of all commands takes as long as a small run, so only those of the one that is named are. */
    private static Collection<Class<?>> commands(String[] args) {
        Class<?> named = args.length == 0 ? null : COMMANDS.get(args[0]);
        return named == null ? COMMANDS.values() : List.of(named);
    }

    /** Runs the command; when memory is not enough, no stack trace helps. */
    private static int executed(CommandLine line, String[] args, PrintWriter words) {
        if (args.length == 0) {
            line.usage(words);
            return ExitCode.USAGE;
        }
        try {
            return line.execute(args);
        } catch (OutOfMemoryError e) {
            words.println("morphema: the memory is not enough for this run; nothing was written.");
            words.println(
                    "A table, a source that is used twice, or one very large group is kept in memory; morphema plan tells.");
            words.println("try: give Java more memory, MORPHEMA_JAVA_OPTIONS=-Xmx4g");
            return ExitCode.FAULT;
        }
    }

    private static int failed(Exception e, CommandLine command, PrintWriter words) {
        Common common = command.getCommand() instanceof TerminalCommand own ? own.common() : new Common();
        if (e.getCause() instanceof IOException cause && BROKEN_PIPE.equals(cause.getMessage())) {
            // Whoever read the result, such as head, has seen enough.
            return ExitCode.GOOD;
        }
        if (e instanceof ProblemException failure) {
            List<Problem> problems = failure.problems();
            new ProblemPrinter(words, !common.hideValues()).print(problems);
            if (common.debug()) {
                e.printStackTrace(words);
            }
            return ExitCode.of(problems);
        }
        words.println("morphema: something went wrong inside: " + e);
        if (common.debug()) {
            e.printStackTrace(words);
        } else {
            words.println("This is a fault of Morphema, not of your files; --debug shows where it arose.");
        }
        return ExitCode.FAULT;
    }
}
