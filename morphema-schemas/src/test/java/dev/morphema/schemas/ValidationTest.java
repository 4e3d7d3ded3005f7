package dev.morphema.schemas;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.format.Input;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Documents are looked at by their schemas. */
class ValidationTest {
    private static final Map<String, String> SCHEMAS =
            Map.of("notice.xsd", """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema"><xs:include schemaLocation="parts/kinds.xsd"/>
              <xs:element name="n"><xs:complexType><xs:sequence>
                <xs:element name="c" maxOccurs="unbounded"><xs:complexType><xs:sequence>
                  <xs:element name="k" type="kind"/></xs:sequence><xs:attribute name="no" type="xs:int"/></xs:complexType></xs:element>
              </xs:sequence></xs:complexType></xs:element></xs:schema>
            """, "parts/kinds.xsd", """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema"><xs:simpleType name="kind">
              <xs:restriction base="xs:string"><xs:enumeration value="a"/></xs:restriction></xs:simpleType></xs:schema>
            """, "list.json", """
            {"$id": "https://example.org/all/list.json", "type": "array", "items": {"$ref": "item.json"}}
            """, "item.json", """
            {"$id": "https://example.org/all/item.json", "type": "object", "required": ["k"],
             "properties": {"k": {"enum": ["a", "b"]}, "on": {"type": "string", "format": "date"}}}
            """);

    private static final SchemaReader.Files FILES = path -> {
        if (!SCHEMAS.containsKey(path)) {
            throw new NoSuchElementException(path);
        }
        return text(path, SCHEMAS.get(path));
    };

    private static Input text(String name, String text) {
        return Input.of(name, text.getBytes(StandardCharsets.UTF_8));
    }

    private static List<String> problems(String format, String schema, String document) throws IOException {
        return new Validation(10)
                .check(text("doc", document), format, schema, FILES).stream()
                        .map(ValidationTest::told)
                        .toList();
    }

    private static String told(Problem problem) {
        return problem.code().printed() + " " + problem.input() + " " + problem.message();
    }

    @ParameterizedTest(name = "{2}")
    @DisplayName("what is wrong is told with its place")
    @CsvSource(
            delimiter = '~',
            quoteCharacter = '`',
            value = {
                "xml ~ notice.xsd ~ <n><c no='1'><k>a</k></c></n> ~ ",
                "xml ~ notice.xsd ~ <n><c><k>a</k></c><c><k>x</k></c></n> ~ `invalid doc:1:30, field /n/c[2]/k Value 'x' is not facet-valid with respect to enumeration '[a]'. It must be a value from the enumeration.`",
                "xml ~ notice.xsd ~ <n><c no='x'><k>a</k></c></n> ~ invalid doc:1:14, field /n/c 'x' is not a valid value for 'integer'.",
                "xml ~ notice.xsd ~ <n><c> ~ bad-xml doc:1:7, field /n/c XML document structures must start and end within the same entity.",
                "json ~ list.json ~ [{\"k\": \"a\"}] ~ ",
                "json ~ list.json ~ [{\"k\": \"a\"}, {\"k\": \"c\"}] ~ `invalid doc:1:20, field /1/k Does not have a value in the enumeration [\"a\", \"b\"].`",
                "json ~ item.json ~ {\"k\": \"a\", \"on\": \"31.01.2026\"} ~ invalid doc:1:18, field /on Does not match the date pattern must be a valid RFC 3339 full-date.",
                "jsonl ~ list.json ~ {\"k\": \"a\"} {} ~ `invalid doc:1:12, record 2 Required property 'k' not found.`",
                "json ~ list.json ~ [{] ~ bad-json doc:1:3 The document is not well-formed: Unexpected close marker ']': expected '}'."
            })
    void places(String format, String schema, String document, String expected) throws IOException {
        assertThat(problems(format, schema, document)).isEqualTo(expected == null ? List.of() : List.of(expected));
    }

    @Test
    @DisplayName("after so many problems it stops")
    void most() throws IOException {
        assertThat(problems("json", "list.json", "[" + "{},".repeat(50) + "{}]"))
                .hasSize(10);
        assertThat(problems("xml", "notice.xsd", "<n>" + "<c no='x'><k>a</k></c>".repeat(50) + "</n>"))
                .hasSize(10);
    }

    @Test
    @DisplayName("nothing outside is fetched, and entities do not grow without end")
    void hostile() throws IOException {
        assertThat(problems(
                        "xml", "notice.xsd", "<!DOCTYPE n SYSTEM 'http://example.org/x.dtd'><n><c><k>a</k></c></n>"))
                .isEmpty();
        StringBuilder bomb = new StringBuilder("<!DOCTYPE n [<!ENTITY a 'aaaaaaaaaa'>");
        for (char c = 'b'; c < 'k'; c++) {
            bomb.append("<!ENTITY ")
                    .append(c)
                    .append(" '")
                    .append(("&" + (char) (c - 1) + ";").repeat(10))
                    .append("'>");
        }
        assertThat(problems("xml", "notice.xsd", bomb + "]><n><c><k>&j;</k></c></n>"))
                .singleElement()
                .asString()
                .startsWith("bad-xml");
    }

    @Test
    @DisplayName("a schema for another format is refused")
    void otherFormat() {
        assertThatThrownBy(() -> problems("xml", "list.json", "<n/>")).isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> problems("json", "notice.xsd", "{}")).isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> problems("csv", "list.json", "a")).isInstanceOf(ProblemException.class);
    }
}
