package dev.morphema.yaml;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import java.io.IOException;
import java.util.List;

/**
 * Reads YAML 1.2 by its core schema: a document is a value, several documents, or the items of a
 * list that is the only one, are a sequence. Documents are read one at a time.
 */
public final class YamlSource implements SourceFormat {
    static final String NAME = "yaml";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of();
    }

    @Override
    public List<String> endings() {
        return List.of(".yaml", ".yml");
    }

    @Override
    public Traits traits() {
        return new Traits(false, false, false);
    }

    @Override
    public RecordReader open(Input input, Projection projection, Options options) throws IOException {
        return new YamlReader(input, projection, options.limits());
    }
}
