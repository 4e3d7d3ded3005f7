package dev.morphema.schemas;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.Checked;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.format.Input;
import dev.morphema.problem.Problem;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Property;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import java.util.function.Function;
import java.util.function.Supplier;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;

/** Of mappings that run right over documents that are valid by their schema no error is told. */
class SchemaValidProperties {
    private static final int DOCUMENTS = 5;

    @TempDir
    private Path folder;

    @Property(tries = 60)
    void json(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        RandomForm form = RandomForm.of(random);
        Mapping mapping = checked(form, "json", "s.schema.json", form.jsonSchema(), "");
        assertSame(mapping, "json", "s.schema.json", () -> form.json(random), JsonMapper.shared()::readTree);
    }

    @Property(tries = 60)
    void xml(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        RandomForm form = RandomForm.of(random);
        Mapping mapping = checked(form, "xml", "s.xsd", form.xsd(), ".root");
        assertSame(mapping, "xml", "s.xsd", () -> form.xml(random), SchemaValidProperties::plain);
    }

    private void assertSame(
            Mapping mapping, String format, String file, Supplier<String> documents, Function<String, Object> read)
            throws IOException {
        for (int i = 0; i < DOCUMENTS; i++) {
            String document = documents.get();
            assertThat(read.apply(run(mapping, document, format, file))).isEqualTo(read.apply(document));
        }
    }

    private static String plain(String xml) {
        return xml.replaceAll("<\\?.*?\\?>", "")
                .replaceAll(">\\s+<", "><")
                .replaceAll("<(\\w+)([^<>]*)></\\1>", "<$1$2/>")
                .strip();
    }

    private Mapping checked(RandomForm form, String format, String file, String schema, String root)
            throws IOException {
        Files.writeString(folder.resolve(file), schema);
        boolean xml = format.equals("xml");
        String copied = form.copied("x" + root, xml);
        String text = "morphema 1\nsource x: " + format + "(schema = \"" + file + "\", mismatch = allow)\n"
                + "target same: " + format + "(schema = \"" + file + "\") {\n"
                + (xml ? "root {\n" + copied + "}\n" : copied) + "}\n"
                + "target computed: json {\n" + form.computed("x" + root, xml) + "}\n";
        Checked checked = Morphema.standard().check("test", text, folder);
        assertThat(checked.problems()).as("%s%n%s", schema, text).noneMatch(Problem::isError);
        return checked.mapping().orElseThrow();
    }

    private String run(Mapping mapping, String document, String format, String file) throws IOException {
        assertValid(document, format, file);
        ByteArrayOutputStream same = new ByteArrayOutputStream();
        mapping.run(
                Inputs.text("x", document),
                Outputs.stream("same", same).andStream("computed", new ByteArrayOutputStream()));
        String written = same.toString(StandardCharsets.UTF_8);
        assertValid(written, format, file);
        return written;
    }

    private void assertValid(String document, String format, String file) throws IOException {
        assertThat(new Validation(10).check(bytes("doc", document), format, file, path -> bytes(path, read(path))))
                .as(document)
                .isEmpty();
    }

    private String read(String path) {
        try {
            return Files.readString(folder.resolve(path));
        } catch (IOException e) {
            throw new AssertionError(path, e);
        }
    }

    private static Input bytes(String name, String text) {
        return Input.of(name, text.getBytes(StandardCharsets.UTF_8));
    }
}
