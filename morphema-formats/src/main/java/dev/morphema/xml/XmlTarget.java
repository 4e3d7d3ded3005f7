package dev.morphema.xml;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Writes XML 1.0. */
public final class XmlTarget implements TargetFormat {
    @Override
    public String name() {
        return "xml";
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                OptionSpec.of("namespace", Form.TEXT),
                OptionSpec.of("declaration", Form.SWITCH),
                OptionSpec.of("indent", Form.COUNT),
                OptionSpec.of("encoding", Form.ENCODING));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        return XmlTargetEncoding.fault(options.encoding());
    }

    @Override
    public Traits traits() {
        return new Traits(Root.ONE_FIELD, false, true);
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) throws IOException {
        return new XmlDocumentWriter(out, document);
    }
}
