package dev.morphema.json;

import dev.morphema.format.Input;
import dev.morphema.format.Insertion;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.TargetFormat;
import dev.morphema.formats.DecodedText;
import dev.morphema.formats.Decoding;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Writes JSON (RFC 8259) in UTF-8: one document, or one record a line. */
public final class JsonTarget implements TargetFormat {
    private final String name;
    private final boolean lines;
    private final QuotedNames names = new QuotedNames();

    private JsonTarget(String name, boolean lines) {
        this.name = name;
        this.lines = lines;
    }

    /** {@return the format of one document} */
    public static JsonTarget document() {
        return new JsonTarget("json", false);
    }

    /** {@return the format of one record a line} */
    public static JsonTarget lines() {
        return new JsonTarget("jsonl", true);
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public List<OptionSpec> options() {
        List<OptionSpec> options = new ArrayList<>();
        options.add(OptionSpec.choice("missing", "absent", "null"));
        if (!lines) {
            options.add(OptionSpec.of("indent", Form.COUNT));
        }
        return options;
    }

    @Override
    public Traits traits() {
        return new Traits(lines ? Root.RECORDS : Root.ANY, false, false);
    }

    @Override
    public @Nullable Document continued(Input before, Document document) {
        return lines ? document : null;
    }

    @Override
    public byte @Nullable [] inserted(Input before, byte[] part, Insertion place) throws IOException {
        if (lines) {
            return null;
        }
        try (InputStream bytes = before.open()) {
            DecodedText document = DecodedText.of(Decoding.start(bytes, StandardCharsets.UTF_8), before.name());
            return document.encoded(
                    JsonInsertion.of(before.name(), document.text(), new String(part, StandardCharsets.UTF_8), place));
        }
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) {
        return new JsonDocumentWriter(out, document.options(), lines, names);
    }
}
