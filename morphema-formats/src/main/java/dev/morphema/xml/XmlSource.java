package dev.morphema.xml;

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

/** Reads XML 1.0. The source is a record with one field, the root element. */
public final class XmlSource implements SourceFormat {
    @Override
    public String name() {
        return "xml";
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                OptionSpec.of("trim", Form.SWITCH),
                OptionSpec.choice("layout", "drop", "keep"),
                OptionSpec.of("encoding", Form.ENCODING));
    }

    @Override
    public Traits traits() {
        return new Traits(false, false, true);
    }

    @Override
    public RecordReader open(Input input, Projection projection, Options options) throws IOException {
        return new XmlRecordReader(input, List.of(), projection, options);
    }

    @Override
    public RecordReader openAt(Input input, List<FieldName> path, Projection projection, Options options)
            throws IOException {
        return new XmlRecordReader(input, path, projection, options);
    }
}
