package dev.morphema.cli;

import dev.morphema.problem.Code;
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
import java.nio.file.InvalidPathException;
import java.util.List;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;

/** The command {@code morphema}. */
public final class Main {
    private static final String BROKEN_PIPE = "Broken pipe";

    private static final int LEAST_WIDTH = 80;
    private static final int MOST_WIDTH = 120;

    private static final List<String> COMMANDS =
            List.of("demo", "look", "draft", "validate", "run", "serve", "check", "plan", "test", "format");

    private Main() {}

    /** Runs the command and ends with its exit code. */
    public static void main(String[] args) {
        // Picocli would look for what is not used here: types to convert to, and Groovy, for which
        // all jars are opened.
        System.setProperty("picocli.converters.excludes", "java.time.*,java.sql.*");
        System.setProperty("picocli.disable.closures", "true");
        // Standard streams in UTF-8 whatever the machine's encoding is; results go to standard
        // output as bytes.
        OutputStream out = new FileOutputStream(FileDescriptor.out);
        OutputStream err = new FileOutputStream(FileDescriptor.err);
        Look look = Look.of(
                System.getProperty("morphema.terminal"), System.getProperty("morphema.columns"), System.getenv());
        System.exit(run(args, System.in, out, err, look, true));
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
        return run(args, in, out, err, Look.PLAIN, false);
    }

    /**
     * As {@link #run(String[], InputStream, OutputStream, OutputStream)}.
     *
     * @param look of the place where the streams are shown
     * @param isProgram whether the program ends with the command, so that the system may interrupt
     *     it
     */
    static int run(String[] args, InputStream in, OutputStream out, OutputStream err, Look look, boolean isProgram) {
        PrintWriter words = new PrintWriter(new OutputStreamWriter(err, StandardCharsets.UTF_8), true);
        PrintWriter text = new PrintWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8), true);
        Interruption.Kind interruptions = isProgram ? Interruption.ofProgram(words) : Interruption.none();
        Terminal terminal = new Terminal(in, out, text, words, look, interruptions);
        // To make the options of all commands takes longer than to make those of one.
        CommandLine line = isOneCommand(args) ? lineOf(List.of(args[0]), terminal) : lineOfAll(terminal);
        line.setOut(text)
                .setErr(words)
                .setColorScheme(CommandLine.Help.defaultColorScheme(
                        look.colourOut() ? CommandLine.Help.Ansi.ON : CommandLine.Help.Ansi.OFF))
                .setUsageHelpAutoWidth(false)
                .setUsageHelpWidth(Math.min(MOST_WIDTH, Math.max(LEAST_WIDTH, look.width())))
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler((e, command, parsed) -> failed(e, command.getCommand(), words))
                .setParameterExceptionHandler((e, rest) -> misused(e, words));
        int code = executed(line, args, words);
        text.flush();
        words.flush();
        return code;
    }

    private static CommandSpec spec() {
        CommandSpec spec = TerminalCommand.withHelp(CommandSpec.create().name("morphema"));
        spec.usageMessage()
                .description("Turns messages of one system into messages of another, by a mapping.")
                .synopsisSubcommandLabel("COMMAND")
                .footerHeading("%nExit codes%n")
                .footer(
                        "  0    all is well",
                        "  1    the data is not as the mapping needs it",
                        "  2    the mapping is wrong",
                        "  3    the command was used wrongly",
                        "  4    a file cannot be read or written",
                        "  70   a fault of Morphema itself",
                        "  130  interrupted (SIGINT), 143 ended by the system (SIGTERM)");
        return spec;
    }

    /** {@return the command with all that it has below it} */
    static CommandLine lineOfAll(Terminal terminal) {
        return lineOf(COMMANDS, terminal)
                .addSubcommand("help", new CommandLine.HelpCommand())
                .addSubcommand("completion", new CompletionCommand(terminal).spec());
    }

    private static CommandLine lineOf(List<String> commands, Terminal terminal) {
        CommandLine line = new CommandLine(spec());
        for (String name : commands) {
            line.addSubcommand(name, command(name, terminal).spec());
        }
        return line;
    }

    private static boolean isOneCommand(String[] args) {
        return args.length > 0 && COMMANDS.contains(args[0]);
    }

    private static TerminalCommand command(String name, Terminal terminal) {
        return switch (name) {
            case "demo" -> new DemoCommand(terminal);
            case "look" -> new LookCommand(terminal);
            case "draft" -> new DraftCommand(terminal);
            case "validate" -> new ValidateCommand(terminal);
            case "run" -> new RunCommand(terminal);
            case "serve" -> new ServeCommand(terminal);
            case "check" -> new CheckCommand(terminal);
            case "plan" -> new PlanCommand(terminal);
            case "test" -> new TestCommand(terminal);
            case "format" -> new FormatCommand(terminal);
            default -> throw new IllegalArgumentException(name);
        };
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
            words.println("morphema: there is not enough memory for this mapping.");
            words.println("try: give Java more memory, MORPHEMA_JAVA_OPTIONS=-Xmx4g");
            return ExitCode.DATA;
        }
    }

    /** Says what was wrong with the words of the command line. */
    private static int misused(CommandLine.ParameterException e, PrintWriter words) {
        words.println("morphema: " + message(e));
        CommandLine.UnmatchedArgumentException.printSuggestions(e, words);
        words.println("try: " + e.getCommandLine().getCommandSpec().qualifiedName() + " --help");
        return ExitCode.USAGE;
    }

    private static String message(CommandLine.ParameterException e) {
        if (!(e instanceof CommandLine.UnmatchedArgumentException unmatched)) {
            return String.valueOf(e.getMessage());
        }
        // What stands behind the first word that is not known may well belong to it.
        String word = unmatched.getUnmatched().get(0);
        if (unmatched.isUnknownOption()) {
            return "There is no option " + word + ".";
        }
        return e.getCommandLine().getParent() == null
                ? "There is no command " + word + "."
                : "The word " + word + " is one too many.";
    }

    /** {@return whether whoever reads an output has closed it} */
    static boolean isBrokenPipe(Exception e) {
        return e.getCause() instanceof IOException cause && BROKEN_PIPE.equals(cause.getMessage());
    }

    /** Says why a command has failed. */
    private static int failed(Exception e, TerminalCommand command, PrintWriter words) {
        if (isBrokenPipe(e)) {
            // Whoever read the result, such as head, has seen enough.
            return ExitCode.GOOD;
        }
        if (e instanceof ProblemException failure) {
            List<Problem> problems = failure.problems();
            if (failure.problem().code() == Code.CANCELLED) {
                // Whoever stopped the run says so.
                return ExitCode.INTERRUPTED;
            }
            command.terminal().problems(!command.hidesValues()).print(problems);
            if (command.debugs()) {
                e.printStackTrace(words);
            }
            return ExitCode.of(problems);
        }
        if (e instanceof InvalidPathException bad) {
            words.println("morphema: no file of this system can be called " + bad.getInput());
            words.println("try: another name; or, where only names in ASCII are known, LC_ALL=C.UTF-8");
            return ExitCode.FILE;
        }
        words.println("morphema: something went wrong inside: " + e);
        if (command.debugs()) {
            e.printStackTrace(words);
        } else {
            words.println("This is a fault of Morphema, not of your files; --debug shows where it arose.");
        }
        return ExitCode.FAULT;
    }
}
