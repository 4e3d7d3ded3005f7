package dev.morphema.fixed;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Reads text whose fields stand at the same places of each line, or of each record of a length. All
 * lines are alike, or a code at some place of each tells of which kind it is; then the record has
 * one field, named after the code, with the fields of such lines.
 */
public final class FixedSource implements SourceFormat {
    static final String NAME = "fixed";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                FixedLayout.COLUMNS,
                FixedLayout.CODE,
                OptionSpec.of("length", Form.COUNT),
                OptionSpec.of("skip", Form.COUNT),
                OptionSpec.choice("others", "refuse", "skip"),
                OptionSpec.choice("longer", "refuse", "cut"),
                OptionSpec.choice("blank", "absent", "text"),
                OptionSpec.of("encoding", Form.ENCODING));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        return FixedLayout.faultOf(options, false);
    }

    @Override
    public Traits traits() {
        return new Traits(false, true, false);
    }

    @Override
    public RecordReader open(Input input, Projection projection, Options options) throws IOException {
        return new FixedReader(input, projection, options);
    }
}
