package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** Documents of any content are read and written without loss. */
class DocumentProperties {
    private static final Mapping COPY_JSON = Language.load("source d: json\ntarget o: json(indent = 0) = d");
    private static final Mapping TO_CSV =
            Language.load("source d: json\ntarget o: csv { for r in d { a = r.a  b = r.b } }");
    private static final Mapping FROM_CSV =
            Language.load("source d: csv\ntarget o: json(indent = 0) { for r in d { copy r } }");
    private static final Mapping TO_XML =
            Language.load("source d: json\ntarget o: xml { A { B for r in d { @a = r.a  = r.b } } }");
    private static final Mapping FROM_XML = Language.load(
            "source d: xml\ntarget o: json(indent = 0) { for b in d.A.B { a = b.@a  b = filled_or_empty(b) } }\n"
                    + "define filled_or_empty(x) = text(x)");
    private static final Mapping ONE_OR_MANY = Language.load(
            "source d: json\ntarget o: json(indent = 0) { s = sum(d.x.y)  n = count(d.x.y)  l = [d.x.y]  m = max(d.x.y) }");

    /**
     * Letters of many kinds, with all that has a meaning in some format; no characters that XML
     * cannot hold.
     */
    @Provide
    Gen<String> texts() {
        return Gens.strings()
                .withChars("ab ,;\"'\\\n\t{}[]<>&:=|#€äø\u00A0\u2028")
                .withCharRange('0', '9')
                .ofMaxLength(12)
                .map(t -> t.replace("\r", ""));
    }

    @Provide
    Gen<String> json() {
        Gen<String> leaves = Gens.oneOf(
                texts().map(DocumentProperties::quoted),
                Gens.bigDecimals().map(d -> d.toPlainString()),
                Gens.of("true", "false", "null"));
        Gen<String> inner = Gens.lazyOf(
                () -> leaves,
                () -> leaves,
                () -> json().list().ofMaxSize(3).map(items -> "[" + String.join(",", items) + "]"),
                () -> json().list().ofMaxSize(3).map(DocumentProperties::object));
        return inner;
    }

    private static String object(List<String> values) {
        List<String> fields = new ArrayList<>();
        for (int i = 0; i < values.size(); i++) {
            fields.add(quoted("f" + i) + ":" + values.get(i));
        }
        return "{" + String.join(",", fields) + "}";
    }

    private static String quoted(String text) {
        return "\""
                + text.chars()
                        .mapToObj(c ->
                                c < 32 || c == '"' || c == '\\' ? String.format("\\u%04x", c) : Character.toString(c))
                        .collect(Collectors.joining())
                + "\"";
    }

    private static byte[] run(Mapping mapping, byte[] message) {
        return mapping.messages("d", "o").transform(message);
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static String text(byte[] bytes) {
        return new String(bytes, StandardCharsets.UTF_8);
    }

    @Property(tries = 300)
    void jsonIsCopiedWithoutLoss(@ForAll("json") String document) {
        // The document is compact already, but for escapes, which are compared by writing them once
        // more.
        byte[] once = run(COPY_JSON, bytes(document));
        assertThat(text(run(COPY_JSON, once))).isEqualTo(text(once));
    }

    @Property(tries = 300)
    void csvKeepsEveryText(@ForAll("texts") String a, @ForAll("texts") String b) {
        String row = "{\"a\":" + quoted(a) + ",\"b\":" + quoted(b) + "}";
        String json = "[" + row + "," + row + "]";
        byte[] expected = run(COPY_JSON, bytes(json));
        assertThat(text(run(FROM_CSV, run(TO_CSV, bytes(json))))).isEqualTo(text(expected));
    }

    @Property(tries = 300)
    void xmlKeepsEveryText(@ForAll("texts") String a, @ForAll("texts") String b) {
        String json = "[{\"a\":" + quoted(a) + ",\"b\":" + quoted(b) + "}]";
        byte[] expected = run(COPY_JSON, bytes(json));
        assertThat(text(run(FROM_XML, run(TO_XML, bytes(json))))).isEqualTo(text(expected));
    }

    @Property(tries = 100)
    void aPathOverOneAndOverAListOfOneAgree(@ForAll int y) {
        String single = "{\"x\": {\"y\": " + y + "}}";
        String listed = "{\"x\": [{\"y\": " + y + "}]}";
        String nested = "{\"x\": [{\"y\": [" + y + "]}]}";
        String expected = text(run(ONE_OR_MANY, bytes(single)));
        assertThat(text(run(ONE_OR_MANY, bytes(listed)))).isEqualTo(expected);
        assertThat(text(run(ONE_OR_MANY, bytes(nested)))).isEqualTo(expected);
    }
}
