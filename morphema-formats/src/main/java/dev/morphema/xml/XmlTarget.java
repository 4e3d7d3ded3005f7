package dev.morphema.xml;

import dev.morphema.format.Input;
import dev.morphema.format.Insertion;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import dev.morphema.formats.DecodedText;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
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
    public byte[] inserted(Input before, byte[] part, Insertion place) throws IOException {
        try (InputStream bytes = before.open();
                InputStream ofPart = new ByteArrayInputStream(part)) {
            DecodedText document = DecodedText.of(XmlEncoding.start(bytes, before.name(), null), before.name());
            DecodedText added = DecodedText.of(XmlEncoding.start(ofPart, "the result", null), "the result");
            String whole = XmlInsertion.of(before.name(), document.text(), added.text(), place);
            ByteArrayOutputStream encoded = new ByteArrayOutputStream();
            encoded.write(document.encoded(""));
            try (OutputStream referencing = new ReferencingEncoder(encoded, document.charset())) {
                referencing.write(whole.getBytes(StandardCharsets.UTF_8));
            }
            return encoded.toByteArray();
        }
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) throws IOException {
        return new XmlDocumentWriter(out, document);
    }
}
