package dev.morphema.json;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.value.FieldName;
import java.io.IOException;
import java.util.List;

/**
 * Reads JSON (RFC 8259): one document, whose array is the sequence of its items, or one record a
 * line.
 */
public final class JsonSource implements SourceFormat {
    private final String name;
    private final boolean lines;

    private JsonSource(String name, boolean lines) {
        this.name = name;
        this.lines = lines;
    }

    /** {@return the format of one document} */
    public static JsonSource document() {
        return new JsonSource("json", false);
    }

    /** {@return the format of one record a line} */
    public static JsonSource lines() {
        return new JsonSource("jsonl", true);
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(OptionSpec.of("encoding", Form.ENCODING));
    }

    @Override
    public Traits traits() {
        return new Traits(false, lines, !lines);
    }

    @Override
    public RecordReader open(Input input, Projection projection, Options options) throws IOException {
        return new JsonRecordReader(input, List.of(), projection, options, lines);
    }

    @Override
    public RecordReader openAt(Input input, List<FieldName> path, Projection projection, Options options)
            throws IOException {
        return new JsonRecordReader(input, path, projection, options, lines);
    }
}
