package dev.morphema.yaml;

import dev.morphema.format.Input;
import dev.morphema.format.Insertion;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.Reader;
import java.io.StringWriter;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.snakeyaml.engine.v2.api.YamlUnicodeReader;

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
    public byte[] inserted(Input before, byte[] part, Insertion place) throws IOException {
        try (InputStream bytes = before.open()) {
            String text = text(bytes, before.name());
            String result = YamlInsertion.of(before.name(), text, new String(part, StandardCharsets.UTF_8), place);
            return result.getBytes(StandardCharsets.UTF_8);
        }
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) {
        Options options = document.options();
        return new YamlWriter(
                out,
                options.text(DOCUMENTS, "one").equals("each"),
                options.text("missing", "absent").equals("null"));
    }

    /** {@return the text of a document, which is written back in UTF-8} */
    private static String text(InputStream bytes, String name) throws IOException {
        StringWriter text = new StringWriter();
        try (Reader characters = new YamlUnicodeReader(bytes)) {
            characters.transferTo(text);
            return text.toString();
        } catch (CharacterCodingException e) {
            throw new ProblemException(YamlFaults.encoding(name), e);
        }
    }
}
