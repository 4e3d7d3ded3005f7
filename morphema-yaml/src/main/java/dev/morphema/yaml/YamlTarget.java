package dev.morphema.yaml;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import java.io.OutputStream;
import java.util.List;

/** Writes YAML 1.2 in UTF-8, laid out in blocks. */
public final class YamlTarget implements TargetFormat {
    private static final String DOCUMENTS = "documents";

    @Override
    public String name() {
        return YamlSource.NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(OptionSpec.choice("missing", "absent", "null"), OptionSpec.choice(DOCUMENTS, "one", "each"));
    }

    @Override
    public Traits traits() {
        return new Traits(Root.ANY, false, false);
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) {
        Options options = document.options();
        return new YamlWriter(
                out,
                options.text(DOCUMENTS, "one").equals("each"),
                options.text("missing", "absent").equals("null"));
    }
}
