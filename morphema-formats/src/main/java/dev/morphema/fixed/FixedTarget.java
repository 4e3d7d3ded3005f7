package dev.morphema.fixed;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import java.io.OutputStream;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Writes text whose fields stand at the same places of each line. A value that is longer than its
 * column is a problem, and never cut.
 */
public final class FixedTarget implements TargetFormat {
    @Override
    public String name() {
        return FixedSource.NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                FixedLayout.COLUMNS,
                FixedLayout.CODE,
                OptionSpec.of("length", Form.COUNT),
                OptionSpec.choice("line-end", "lf", "crlf", "none"),
                OptionSpec.of("encoding", Form.ENCODING));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        return FixedLayout.faultOf(options, true);
    }

    @Override
    public Traits traits() {
        return new Traits(Root.RECORDS, false, false);
    }

    @Override
    public Document continued(Input before, Document document) {
        return document;
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) {
        return new FixedWriter(out, document.options());
    }
}
