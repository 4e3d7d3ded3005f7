package dev.morphema.benchmarks;

import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Map;

/** The workloads as mappings. */
final class Morphemas {
    private Morphemas() {}

    /** {@return the mapping of a name in this package} */
    static Mapping mapping(String name) {
        return Morphema.standard().load(name + ".morphema", text(name), Path.of("."));
    }

    /** {@return its text} */
    static String text(String name) {
        try (InputStream in = Morphemas.class.getResourceAsStream(name + ".morphema")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static Contender of(Workload workload) {
        return (folder, out) -> {
            Inputs inputs = Inputs.NONE;
            for (Map.Entry<String, String> input : workload.inputs().entrySet()) {
                inputs = inputs.andFile(input.getKey(), folder.resolve(input.getValue()));
            }
            mapping(workload.name()).run(inputs, Outputs.file("out", out));
        };
    }
}
