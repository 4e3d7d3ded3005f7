package dev.morphema;

import dev.morphema.format.Input;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/** The inputs of a run, each for a source of the mapping. Immutable. */
public final class Inputs {
    /** No inputs, for a mapping without sources. */
    public static final Inputs NONE = new Inputs(Map.of());

    private final Map<String, List<Input>> bySource;

    private Inputs(Map<String, List<Input>> bySource) {
        this.bySource = bySource;
    }

    /** {@return one input: a file} */
    public static Inputs file(String source, Path file) {
        return NONE.andFile(source, file);
    }

    /** {@return one input: a text, which is read as UTF-8} */
    public static Inputs text(String source, String text) {
        return NONE.andText(source, text);
    }

    /** {@return one input: bytes, which must not be changed while they are in use} */
    public static Inputs bytes(String source, byte[] bytes) {
        return NONE.andBytes(source, bytes);
    }

    /** {@return one input: a stream, which is read once; who opened it closes it} */
    public static Inputs stream(String source, InputStream stream) {
        return NONE.andStream(source, stream);
    }

    /** {@return these inputs and a file} */
    public Inputs andFile(String source, Path file) {
        return and(source, new FileInput(Objects.requireNonNull(file)));
    }

    /**
     * {@return these inputs and any number of files, in this order, for a source with {@code files
     * = many}}
     */
    public Inputs andFiles(String source, List<Path> files) {
        List<Input> inputs = new ArrayList<>();
        files.forEach(file -> inputs.add(new FileInput(file)));
        return and(source, inputs);
    }

    /** {@return these inputs and a text} */
    public Inputs andText(String source, String text) {
        return andBytes(source, text.getBytes(StandardCharsets.UTF_8));
    }

    /** {@return these inputs and bytes} */
    public Inputs andBytes(String source, byte[] bytes) {
        return and(source, Input.of(source, bytes));
    }

    /** {@return these inputs and a stream} */
    public Inputs andStream(String source, InputStream stream) {
        return andStream(source, stream, source);
    }

    /** {@return these inputs and a stream, which problems call by the given name} */
    public Inputs andStream(String source, InputStream stream, String name) {
        Objects.requireNonNull(stream);
        return and(source, new StreamInput(name, stream));
    }

    /**
     * {@return these inputs and one of any kind}, such as a database of the module morphema-jdbc;
     * who made it closes it
     */
    public Inputs andInput(String source, Input input) {
        return and(source, Objects.requireNonNull(input));
    }

    /**
     * {@return these inputs and any number of any kind, in this order, for a source with {@code
     * files = many}}; for others just one
     */
    public Inputs andInputs(String source, List<Input> inputs) {
        return and(source, List.copyOf(inputs));
    }

    private Inputs and(String source, Input input) {
        return and(source, List.of(input));
    }

    private Inputs and(String source, List<Input> inputs) {
        Map<String, List<Input>> more = new LinkedHashMap<>(bySource);
        more.put(Objects.requireNonNull(source), inputs);
        return new Inputs(more);
    }

    /** {@return these inputs, but others for a source, from which the same bytes come} */
    Inputs with(String source, List<Input> inputs) {
        return and(source, inputs);
    }

    /** {@return what problems call the inputs, by their sources} */
    public Map<String, List<String>> names() {
        Map<String, List<String>> names = new LinkedHashMap<>();
        bySource.forEach((source, inputs) ->
                names.put(source, inputs.stream().map(Input::name).toList()));
        return names;
    }

    Map<String, List<Input>> bySource() {
        return bySource;
    }

    /** Refuses files that are not there, also for sources that the run may not come to. */
    void requireFiles() {
        List<Problem> missing = new ArrayList<>();
        bySource.forEach((source, inputs) -> {
            for (Input input : inputs) {
                if (input instanceof FileInput file && Files.notExists(file.file())) {
                    missing.add(Problem.error(
                                    Code.FILE_NOT_FOUND,
                                    "The input of the source " + source + " is not there: there is no such file.")
                            .withValue(input.name()));
                }
            }
        });
        if (!missing.isEmpty()) {
            throw new ProblemException(missing);
        }
    }

    /** {@return the files among these inputs, each where it really is} */
    Set<Path> files() throws IOException {
        Set<Path> files = new HashSet<>();
        for (List<Input> inputs : bySource.values()) {
            for (Input input : inputs) {
                if (input instanceof FileInput file && Files.isRegularFile(file.file())) {
                    files.add(file.file().toRealPath());
                }
            }
        }
        return files;
    }

    /** Opens a stream. */
    @FunctionalInterface
    interface Opening {
        InputStream open() throws IOException;
    }

    /** A stream, which is read once, and stays open for the one who opened it. */
    private record StreamInput(String name, InputStream stream) implements Input {
        @Override
        public InputStream open() {
            return new FilterInputStream(stream) {
                @Override
                public void close() {
                    // not ours to close
                }
            };
        }
    }

    /** Bytes that are at hand and can be read again. */
    record NamedInput(String name, long size, Opening opening) implements Input {
        @Override
        public InputStream open() throws IOException {
            return opening.open();
        }

        @Override
        public boolean isRereadable() {
            return true;
        }
    }
}
