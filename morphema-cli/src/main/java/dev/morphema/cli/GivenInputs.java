package dev.morphema.cli;

import dev.morphema.FilePattern;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.format.Limits;
import dev.morphema.http.Fetched;
import dev.morphema.http.WebSource;
import dev.morphema.jdbc.Database;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.schemas.ApiCall;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The inputs of a run as the command line names them: files, patterns, standard input, databases
 * and addresses.
 */
final class GivenInputs {
    private static final String STANDARD = "-";

    private final Terminal terminal;
    private final Mapping mapping;
    private final Connections connections;
    private final Limits limits;
    private final WebInputs web;
    private final SchemaReader.Files schemas;
    private boolean allAddresses = true;

    /** @param schemas opens what the mapping names */
    GivenInputs(
            Terminal terminal,
            Mapping mapping,
            Connections connections,
            Limits limits,
            WebInputs web,
            SchemaReader.Files schemas) {
        this.terminal = terminal;
        this.mapping = mapping;
        this.connections = connections;
        this.limits = limits;
        this.web = web;
        this.schemas = schemas;
    }

    /**
     * {@return the inputs that words name}
     *
     * @param words by source
     * @param standardTaken whether standard input is something else already
     */
    Inputs named(Map<String, List<String>> words, boolean standardTaken) {
        Inputs inputs = Inputs.NONE;
        boolean taken = standardTaken;
        for (Map.Entry<String, List<String>> input : words.entrySet()) {
            String source = input.getKey();
            if (input.getValue().contains(STANDARD)) {
                if (standardTaken) {
                    throw TerminalCommand.usage("Standard input is the mapping, so it cannot be an input too.", null);
                }
                if (taken || input.getValue().size() > 1) {
                    throw TerminalCommand.usage(
                            "Standard input can be read for one source only, as its only input.", null);
                }
                taken = true;
                inputs = inputs.andStream(source, terminal.in(), "standard input");
            } else {
                inputs = and(inputs, source, input.getValue());
            }
        }
        return inputs;
    }

    private Inputs and(Inputs inputs, String source, List<String> words) {
        if (words.size() == 1) {
            Optional<Database> database = connections.database(words.get(0));
            if (database.isPresent()) {
                allAddresses = false;
                return inputs.andInput(source, database.get().input());
            }
            Optional<WebSource> address = connections.web(words.get(0));
            if (address.isPresent()) {
                checkCall(source, address.get());
                Fetched pages = web.get(words.get(0), address.get().limits(limits));
                refusePageForPeople(source, pages);
                return inputs.andInputs(source, pages.pages());
            }
        }
        allAddresses = false;
        return inputs.andFiles(source, files(source, words));
    }

    /** Such as one that asks for a password, or says that something went wrong. */
    private void refusePageForPeople(String source, Fetched pages) {
        String format = mapping.formatOfSource(source);
        if (pages.mediaType().filter("text/html"::equals).isPresent() && !format.equals("xml")) {
            throw new ProblemException(Problem.error(
                            Code.NOT_READABLE, "The server sends a page for people (text/html), and no " + format + ".")
                    .in(InputLocation.at(pages.pages().get(0).name(), 0, 0))
                    .withHelp("does it want credentials? A header can stand in a file of connections"));
        }
    }

    /** An interface that is described is not called in a way that it does not know. */
    private void checkCall(String source, WebSource address) {
        mapping.outline().schemaOf(source).ifPresent(schema -> {
            try {
                List<Problem> problems = ApiCall.problems(schema, schemas, address.address());
                if (!problems.isEmpty()) {
                    throw new ProblemException(problems);
                }
            } catch (IOException e) {
                // The check of the mapping has told so.
            }
        });
    }

    /**
     * Without inputs and outputs the quickest look at what a mapping does is to run it on its
     * samples. What is written to files is never made of samples: an input may have been forgotten.
     */
    Inputs samples(boolean quiet) {
        Inputs samples = mapping.samples();
        if (!quiet) {
            samples.names()
                    .forEach((source, names) -> terminal.words()
                            .println(source + " is read from its sample, " + String.join(", ", names)
                                    + "; --in takes another input"));
        }
        return samples;
    }

    private List<Path> files(String source, List<String> words) {
        List<Path> files = new ArrayList<>();
        words.forEach(word -> files.addAll(
                mapping.hasManyFiles(source) ? FilePattern.files(Path.of(""), word) : List.of(Path.of(word))));
        if (!mapping.hasManyFiles(source)
                && (files.size() > 1 || FilePattern.isPattern(words.get(0)) && !Files.exists(files.get(0)))) {
            throw TerminalCommand.usage(
                    "The source " + source + " is read from one file.",
                    "with the option files = many it is the sequence over any number of files");
        }
        return files;
    }

    /**
     * {@return whether all inputs came from addresses, so that it is known whether anything is new}
     */
    boolean areAllAddresses() {
        return allAddresses;
    }
}
