package dev.morphema.schemas;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.Checked;
import dev.morphema.Morphema;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Mappings are checked against the schemas of their sources and targets. */
class SchemaChecksTest {
    private static final String NOTICE = """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns="urn:example:notice"
                targetNamespace="urn:example:notice" elementFormDefault="qualified">
              <xs:include schemaLocation="parts/types.xsd"/>
              <xs:import namespace="http://www.w3.org/XML/1998/namespace"
                  schemaLocation="http://www.w3.org/2001/xml.xsd"/>
              <xs:element name="Notice">
                <xs:complexType>
                  <xs:sequence>
                    <xs:element name="Call" type="Call" maxOccurs="unbounded"/>
                    <xs:element ref="Remark" minOccurs="0"/>
                  </xs:sequence>
                  <xs:attribute name="harbour" use="required"/>
                  <xs:attribute ref="xml:lang"/>
                </xs:complexType>
              </xs:element>
              <xs:element name="Remark" type="xs:string"/>
              <xs:element name="Warning" type="xs:string" substitutionGroup="Remark"/>
            </xs:schema>
            """;
    private static final String TYPES = """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns="urn:example:notice"
                targetNamespace="urn:example:notice" elementFormDefault="qualified">
              <xs:complexType name="Call">
                <xs:sequence>
                  <xs:element name="Vessel" type="xs:string"/>
                  <xs:element name="Eta" type="xs:dateTime" nillable="true"/>
                  <xs:element name="Kind">
                    <xs:annotation><xs:documentation>what is carried</xs:documentation></xs:annotation>
                    <xs:simpleType>
                      <xs:restriction base="xs:string">
                        <xs:enumeration value="cargo"/><xs:enumeration value="ice"/>
                      </xs:restriction>
                    </xs:simpleType>
                  </xs:element>
                  <xs:choice>
                    <xs:element name="Berth" type="Code"/>
                    <xs:element name="Anchorage" type="xs:positiveInteger"/>
                  </xs:choice>
                  <xs:element name="Weight" type="Mass" minOccurs="0"/>
                  <xs:element name="Feeder" type="Call" minOccurs="0"/>
                </xs:sequence>
                <xs:attribute name="imo" type="xs:string" use="required"/>
              </xs:complexType>
              <xs:simpleType name="Code">
                <xs:restriction base="xs:string"><xs:pattern value="[A-Z][0-9]+"/><xs:maxLength value="4"/></xs:restriction>
              </xs:simpleType>
              <xs:complexType name="Mass">
                <xs:simpleContent>
                  <xs:extension base="xs:decimal"><xs:attribute name="unit" use="required"/></xs:extension>
                </xs:simpleContent>
              </xs:complexType>
            </xs:schema>
            """;
    private static final String CALLS = """
            {"$schema": "https://json-schema.org/draft/2020-12/schema",
             "type": "object", "required": ["calls"], "additionalProperties": false,
             "properties": {
               "calls": {"type": "array", "items": {"$ref": "#/$defs/call"}},
               "note": {"type": ["string", "null"]}},
             "$defs": {
               "base": {"type": "object", "required": ["imo"], "properties": {
                 "imo": {"type": "integer", "minimum": 1000000}}},
               "call": {"allOf": [{"$ref": "#/$defs/base"}], "type": "object", "required": ["kind"], "properties": {
                 "kind": {"enum": ["cargo", "ice"]},
                 "eta": {"type": "string", "format": "date-time"},
                 "code": {"type": "string", "pattern": "^[A-Z]{3}$", "maxLength": 3},
                 "tags": {"type": "array", "items": {"type": "string"}},
                 "feeders": {"type": "array", "items": {"$ref": "#/$defs/call"}},
                 "mass": {"oneOf": [{"type": "number"},
                   {"$ref": "parts/mass.json#/definitions/mass"}]}}}}}
            """;

    @TempDir
    private Path folder;

    @BeforeEach
    void files() throws IOException {
        Files.createDirectories(folder.resolve("parts"));
        file("notice.xsd", NOTICE);
        file("parts/types.xsd", TYPES);
        file("calls.json", CALLS);
        file("parts/mass.json", """
                {"definitions": {"mass": {"type": "object", "required": ["value"],
                  "properties": {"value": {"type": "number"}, "unit": {"type": "string"}}}}}
                """);
        file("api.yaml", """
                openapi: 3.0.3
                paths:
                  /calls:
                    get:
                      responses:
                        "200": {content: {application/json: {schema: {$ref: "#/components/schemas/Calls"}}}}
                    post:
                      requestBody: {content: {application/json: {schema: {$ref: "#/components/schemas/Call"}}}}
                components:
                  schemas:
                    Calls: {type: array, items: {$ref: "#/components/schemas/Call"}}
                    Call:
                      type: object
                      required: [imo]
                      additionalProperties: false
                      properties:
                        imo: {type: string}
                        kind: {type: string, enum: [CARGO, ICE], nullable: true}
                """);
        file("rows-metadata.json", """
                {"@context": "http://www.w3.org/ns/csvw", "tableSchema": {"columns": [
                  {"titles": "imo", "datatype": "integer", "required": true},
                  {"name": "eta", "datatype": "date"},
                  {"titles": ["gross kg"], "datatype": {"base": "decimal"}}]}}
                """);
        file("rows.csv", "imo;eta;gross kg\n");
    }

    private void file(String name, String text) throws IOException {
        Files.writeString(folder.resolve(name), text);
    }

    private List<Problem> problems(String mapping) {
        Checked checked = Morphema.standard().check("test", "morphema 1\n" + mapping, folder);
        return checked.problems().stream()
                .filter(problem -> problem.code() != Code.UNUSED)
                .toList();
    }

    private static void assertTold(List<Problem> found, String expected) {
        assertThat(found.stream().map(SchemaChecksTest::told).toList())
                .isEqualTo(expected == null ? List.of() : List.of(expected));
    }

    private static String told(Problem problem) {
        return problem.code().printed() + " " + (problem.isError() ? "error" : "warning") + " at "
                + (problem.rule() == null
                        ? ""
                        : problem.rule()
                                .text()
                                .substring(
                                        problem.rule().column() - 1,
                                        problem.rule().column()
                                                - 1
                                                + problem.rule().length()))
                + (problem.help() == null ? "" : " | " + problem.help());
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what reads a source is compared with its schema")
    @CsvSource(
            delimiter = '~',
            quoteCharacter = '`',
            value = {
                "xml ~ notice.xsd ~ x.Notice.Call.Vessel ~ ",
                "xml ~ notice.xsd ~ x.Notice.Call.Feeder.Feeder.Vessel ~ ",
                "xml ~ notice.xsd ~ x.Notice.Warning ~ ",
                "xml ~ notice.xsd ~ x.Notice.@xml:lang ~ ",
                "xml ~ notice.xsd ~ x.Notice.Call.Weight.@unit ~ ",
                "xml ~ notice.xsd ~ x.Notice.Call.Vesel ~ unknown-field error at Vesel | did you mean Vessel?",
                "xml ~ notice.xsd ~ x.Notices ~ unknown-field error at Notices | did you mean Notice?",
                "xml ~ notice.xsd ~ x.Notice.Call.Feeder.Kynd ~ unknown-field error at Kynd | did you mean Kind?",
                "xml ~ notice.xsd ~ x..Vesel ~ unknown-field warning at Vesel | did you mean Vessel?",
                "xml ~ notice.xsd ~ count(c for c in x.Notice.Call where c.Kind == 'fish') ~ value-not-allowed error at 'fish' | there is cargo, ice",
                "xml ~ notice.xsd ~ count(c for c in x.Notice.Call where c.Kind in ['ice', 'cago']) ~ value-not-allowed error at 'cago' | did you mean cargo?",
                "json ~ calls.json ~ x.calls.mass.unit ~ ",
                "json ~ calls.json ~ x.calls.feeders.imo ~ ",
                "json ~ calls.json ~ x.call ~ unknown-field error at call | did you mean calls?",
                "json ~ calls.json ~ x.calls.ima ~ unknown-field warning at ima | did you mean imo?",
                "json ~ calls.json#/$defs/call ~ x.feeders.ima ~ unknown-field warning at ima | did you mean imo?",
                "json ~ api.yaml#GET /calls ~ x.imo ~ ",
                "json ~ api.yaml#GET /calls ~ x.ima ~ unknown-field error at ima | did you mean imo?",
                "json ~ api.yaml#/components/schemas/Call ~ x.ima ~ unknown-field error at ima | did you mean imo?",
                "jsonl ~ api.yaml#POST /calls body ~ x.ima ~ unknown-field error at ima | did you mean imo?",
                "csv ~ rows-metadata.json ~ x.'gross kg' ~ ",
                "csv ~ rows-metadata.json ~ x.gros ~ `unknown-field error at gros | there is eta, gross kg, imo`",
                "csv ~ rows.csv ~ x.eta ~ ",
                "csv ~ rows.csv ~ x.etta ~ unknown-field error at etta | did you mean eta?"
            })
    void sources(String format, String schema, String path, String expected) {
        List<Problem> found = problems(
                "source x: " + format + "(schema = \"" + schema + "\")\n" + "target o: json { a = [" + path + "] }");
        assertTold(found, expected);
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what an XML target writes is compared with its schema")
    @CsvSource(
            delimiter = '~',
            quoteCharacter = '`',
            nullValues = "",
            value = {
                "Vessel = 'A'  Eta = null  Kind = 'ice'  Berth = 'B1'  @imo = 1 ~ ",
                "Vessel = 'A'  Eta = now()  Kind = 'ice'  Anchorage = 3  Weight { = 1.5  @unit = 'kg' }  @imo = 1 ~ ",
                "Vesel = 'A'  Eta = null  Kind = 'ice'  @imo = 1 ~ not-in-schema error at Vesel | did you mean Vessel?",
                "Vessel = 'A'  Kind = 'ice'  Eta = null  @imo = 1 ~ `field-order error at Eta | the order is Vessel, Eta, Kind, Berth, Anchorage, Weight, Feeder`",
                "Vessel = 'A'  Eta = null  @imo = 1 ~ `required-field error at Call | add Kind = …: what is carried, one of cargo, ice`",
                "Vessel = 'A'  Eta = null  Kind = 'ice' ~ required-field error at Call | add @imo = …",
                "Vessel = 'A'  Eta = null  if d.x == 1 { Kind = 'ice' }  @imo = 1 ~ required-field warning at Kind | Kind! = … ends the run where it is; ?? gives another value",
                "Vessel = 'A'  Eta = null  if d.x == 1 { Kind = 'ice' } else { Kind = 'cargo' }  @imo = 1 ~ ",
                "Vessel = 'A'  Eta = 'soon'  Kind = 'ice'  @imo = 1 ~ value-not-allowed error at 'soon'",
                "Vessel = 'A'  Eta = 12  Kind = 'ice'  @imo = 1 ~ value-not-allowed error at 12",
                "Vessel = 'A'  Eta = today()  Kind = 'ice'  @imo = 1 ~ wrong-kind error at today()",
                "Vessel = null  Eta = null  Kind = 'ice'  @imo = 1 ~ value-not-allowed error at null | absent leaves the field out",
                "Vessel = 'A'  Eta = null  Kind = if d.x == 1 then 'ise' else 'cargo'  @imo = 1 ~ value-not-allowed error at 'ise' | did you mean ice?",
                "Vessel = 'A'  Eta = null  Kind = 'ice'  Berth = 'BERTH'  @imo = 1 ~ value-not-allowed error at 'BERTH'",
                "Vessel = 'A'  Eta = null  Kind = 'ice'  Anchorage = 0  @imo = 1 ~ value-not-allowed error at 0",
                "Vessel = 'A'  Eta = null  Kind = 'ice'  Anchorage = 1.5  @imo = 1 ~ value-not-allowed error at 1.5",
                "Vessel = 'A'  Eta = null  Kind = 'ice'  Weight = 3  @imo = 1 ~ required-field error at 3 | add @unit = …",
                "Vessel { Name = 'A' }  Eta = null  Kind = 'ice'  @imo = 1 ~ wrong-kind error at Vessel | give it a rule: name = …",
                "Vessel { = 'A' }  Eta = null  Kind = 'ice'  @imo = 1 ~ ",
                "Vessel for v in d.v => v  Eta = null  Kind = 'ice'  @imo = 1 ~ `one-or-many error at Vessel | first(…) takes one of them, without for`",
                "Vessel = [d.a, d.b]  Eta = null  Kind = 'ice'  @imo = 1 ~ `one-or-many error at [d.a, d.b] | first(…) or join(…, \" \") makes one of it`",
                "= 'x'  Vessel = 'A'  Eta = null  Kind = 'ice'  @imo = 1 ~ not-in-schema error at = 'x'",
                "@xsi:type = 'Call'  Vessel = 'A'  Eta = null  Kind = 'ice'  @imo = 1 ~ ",
                "copy d.call ~ "
            })
    void xmlTargets(String body, String expected) {
        List<Problem> found =
                problems("source d: json\ntarget o: xml(namespace = \"urn:example:notice\", schema = \"notice.xsd\") {"
                        + " Notice { @harbour = \"X\"  Call { " + body + " } } }");
        assertTold(found, expected);
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what a JSON target writes is compared with its schema")
    @CsvSource(
            delimiter = '~',
            quoteCharacter = '`',
            nullValues = "",
            value = {
                "imo = 9000011  kind = 'ice' ~ ",
                "imo = 9000011  kind = 'ice'  extra = 1 ~ `not-in-schema warning at extra | there is code, eta, feeders, imo, kind, mass, tags`",
                "imo = '9000011'  kind = 'ice' ~ value-not-allowed error at '9000011'",
                "imo = 12  kind = 'ice' ~ value-not-allowed error at 12",
                "imo = trim(d.x)  kind = 'ice' ~ wrong-kind error at trim(d.x) | name: integer = … converts it",
                "imo: integer = d.x  kind = 'ice' ~ ",
                "imo: text = d.x  kind = 'ice' ~ wrong-kind error at text | name: integer = … converts it",
                "kind = 'ice' ~ required-field error at for c in d.c { kind = 'ice' } | add imo = …",
                "imo? = d.x  kind = 'ice' ~ required-field warning at imo | imo! = … ends the run where it is; ?? gives another value",
                "imo = 9000011  kind = 'ice'  code = 'ABCD' ~ value-not-allowed error at 'ABCD'",
                "imo = 9000011  kind = 'ice'  code = 'abc' ~ value-not-allowed error at 'abc'",
                "imo = 9000011  kind = 'ice'  eta = now() ~ ",
                "imo = 9000011  kind = 'ice'  eta = 12 ~ value-not-allowed error at 12",
                "imo = 9000011  kind = 'ice'  tags = 'x' ~ one-or-many error at 'x' | square brackets make a list of it: [ … ]",
                "imo = 9000011  kind = 'ice'  tags = ['x', 1] ~ value-not-allowed error at 1",
                "imo = 9000011  kind = 'ice'  tags for t in d.t => t ~ ",
                "imo = 9000011  kind = 'ice'  tags { a = 1 } ~ one-or-many error at tags | square brackets make a list of it: name [ { … } ] or name = [ value ]",
                "imo = 9000011  kind = 'ice'  mass = 1.5 ~ ",
                "imo = 9000011  kind = 'ice'  mass { unit = 'kg' } ~ required-field error at mass | add value = …",
                "imo = 9000011  kind = 'ice'  mass { value = 1 } ~ ",
                "imo = 9000011  kind = 'ice'  feeders for f in d.f { imo = 9000012  kind = 'ise' } ~ value-not-allowed error at 'ise' | did you mean ice?"
            })
    void jsonTargets(String body, String expected) {
        List<Problem> found = problems("source d: json\n"
                + "target o: json(schema = \"calls.json\") { calls [ for c in d.c { " + body + " } ] }");
        assertThat(found.stream()
                        .map(SchemaChecksTest::told)
                        .map(told -> told.replaceAll(" (\\{|for c).*\\|", " … |"))
                        .toList())
                .isEqualTo(expected == null ? List.of() : List.of(expected.replaceAll(" (\\{|for c).*\\|", " … |")));
    }

    @Test
    @DisplayName("a code list of the source that the target does not have is a warning")
    void codesOfBoth() {
        assertThat(problems("""
                source d: json(schema = "api.yaml#/components/schemas/Call")
                target o: json(schema = "calls.json") { calls [ { imo = 9000011  kind = d.kind ?? "ice" } ] }
                """)).singleElement().satisfies(problem -> {
            assertThat(problem.isError()).isFalse();
            assertThat(problem.message())
                    .isEqualTo("The source may have CARGO, ICE here; the schema wants one of cargo, ice.");
        });
    }

    @Test
    @DisplayName("a declared type that the schema rules out is an error")
    void declaredTypes() {
        assertThat(problems("source x: xml(schema = \"notice.xsd\") { Notice.Call.Eta: number }\n"
                        + "target o: json { a = [x.Notice.Call.Eta] }"))
                .extracting(SchemaChecksTest::told)
                .containsExactly("wrong-kind error at number | numbers are written like -12.50");
    }

    @Test
    @DisplayName("a schema and a sample tell together: the one the fields, the other what values look like")
    void schemaAndSample() throws IOException {
        file("sample.json", "{\"calls\": [{\"imo\": 9000011, \"kind\": \"ice\", \"own\": \"x\"}]}");
        assertThat(problems("source x: json(schema = \"calls.json\", sample = \"sample.json\")\n"
                        + "target o: json { a = [x.calls.own]  b = [x.calls.tags]  c = [x.calls.tagz] }"))
                .extracting(SchemaChecksTest::told)
                .containsExactly("unknown-field warning at tagz | did you mean tags?");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("a schema that cannot be used is told at the option that names it")
    @CsvSource(
            delimiter = '~',
            quoteCharacter = '`',
            value = {
                "xml ~ none.xsd ~ file-not-found ~ The schema cannot be read, so nothing is checked against it.",
                "xml ~ calls.json ~ bad-schema ~ This is not the name of a schema for xml.",
                "xml ~ notice.xsd#Call ~ bad-schema ~ The schema has no element Call at its top level.",
                "json ~ calls.json#/$defs/nothing ~ bad-schema ~ The schema has no part #/$defs/nothing.",
                "json ~ api.yaml ~ bad-schema ~ `This describes an interface, so one of its schemas is to be named.`",
                "json ~ api.yaml#GET /none ~ bad-schema ~ The description has no schema of JSON for GET /none.",
                "json ~ broken.json ~ bad-schema ~ The schema is not well-formed: Unexpected character ('}' (code 125)): expected a value",
                "json ~ network.json ~ bad-schema ~ `The schema refers to https://example.org/x.json, and nothing is fetched from a network.`",
                "xml ~ network.xsd ~ bad-schema ~ `The schema imports http://example.org/x.xsd, and nothing is fetched from a network.`",
                "xml ~ missing.xsd ~ bad-schema ~ The schema names a file that cannot be read: gone.xsd.",
                "xml ~ wrong.xsd ~ bad-schema ~ The schema is wrong: Cannot resolve the name 'Nowhere' to a(n) 'type definition' component."
            })
    void unusable(String format, String schema, String code, String message) throws IOException {
        String begin = "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\">";
        file("broken.json", "{\"type\": }");
        file("network.json", "{\"$ref\": \"https://example.org/x.json\"}");
        file(
                "network.xsd",
                begin + "<xs:import namespace=\"urn:x\" schemaLocation=\"http://example.org/x.xsd\"/>"
                        + "<xs:element name=\"A\"/></xs:schema>");
        file("missing.xsd", begin + "<xs:include schemaLocation=\"gone.xsd\"/><xs:element name=\"A\"/></xs:schema>");
        file("wrong.xsd", begin + "<xs:element name=\"A\" type=\"Nowhere\"/></xs:schema>");
        List<Problem> found = problems(
                "source x: " + format + "(schema = \"" + schema + "\")\n" + "target o: json { a = [x.y ?? 1] }");
        assertThat(found).isNotEmpty();
        assertThat(found.get(0).code().printed()).isEqualTo(code);
        assertThat(found.get(0).message()).startsWith(message);
        assertThat(told(found.get(0))).contains(" at \"" + schema + "\"");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("a problem shows the place in the schema that says so")
    @CsvSource(
            delimiter = '~',
            quoteCharacter = '`',
            value = {
                "source x: xml(schema = 'notice.xsd') ~ x.Notice.Call.Vesel ~ notice.xsd ~ <xs:element name=\"Call\"",
                "source x: xml(schema = 'notice.xsd') ~ x.Notice.Call.Weight.@unid ~ parts/types.xsd ~ <xs:element name=\"Weight\"",
                "source x: xml(schema = 'notice.xsd') ~ count(c for c in x.Notice.Call where c.Kind == 'fish') ~ parts/types.xsd ~ <xs:element name=\"Kind\"",
                "source x: json(schema = 'calls.json') ~ x.calls.ima ~ calls.json ~ {\"allOf\"",
                "source x: json(schema = 'calls.json') ~ x.calls.mass.unid ~ calls.json ~ {\"oneOf\"",
                "source x: json(schema = 'api.yaml#/components/schemas/Call') ~ x.ima ~ api.yaml ~ type: object",
                "source x: csv(schema = 'rows-metadata.json') ~ x.emo ~ rows-metadata.json ~ {\"columns\"",
                "source x: csv(schema = 'rows.csv') ~ x.emo ~ rows.csv ~ imo;eta"
            })
    void places(String source, String path, String file, String text) throws IOException {
        assertThat(problems(source.replace('\'', '"') + "\ntarget o: json { a = [" + path + "] }"))
                .singleElement()
                .satisfies(problem -> assertPlace(problem, file, text));
    }

    @Test
    @DisplayName("a problem of a target shows the place in its schema, and one of a sample that in the sample")
    void placesOfTargets() throws IOException {
        file("few.csv", "imo;kind\n9000011;ice\n90x;ice\n");
        List<Problem> found = problems("""
                source rows: csv(delimiter = ";", sample = "few.csv") { imo: integer }
                target o: xml(namespace = "urn:example:notice", schema = "notice.xsd") {
                  Notice { Call { Vessel = "A"  Eta = null  Kind = first(rows).kind  Berth = "BERTH" } }
                }
                """);
        assertThat(found).hasSize(4);
        assertPlace(found.get(0), "few.csv", "90x;ice");
        assertPlace(found.get(1), "parts/types.xsd", "<xs:element name=\"Berth\"");
        assertPlace(found.get(2), "parts/types.xsd", "<xs:attribute name=\"imo\"");
        assertPlace(found.get(3), "notice.xsd", "<xs:attribute name=\"harbour\"");
    }

    @Test
    @DisplayName("types of one name in two namespaces are two places")
    void placesInNamespaces() throws IOException {
        file("outer.xsd", """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:b="urn:b" targetNamespace="urn:a"
                    elementFormDefault="qualified">
                  <xs:import namespace="urn:b" schemaLocation="inner.xsd"/>
                  <xs:element name="root" type="a:Thing" xmlns:a="urn:a"/>
                  <xs:complexType name="Thing"><xs:sequence>
                    <xs:element name="part" type="b:Thing"/>
                  </xs:sequence></xs:complexType>
                </xs:schema>
                """);
        file("inner.xsd", """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:b">
                  <xs:complexType name="Thing"><xs:sequence>
                    <xs:element name="part"><xs:complexType><xs:attribute name="no"/></xs:complexType></xs:element>
                  </xs:sequence></xs:complexType>
                </xs:schema>
                """);
        for (String path : List.of("x.root.part.prt", "x.root.part.part.mo")) {
            List<Problem> found =
                    problems("source x: xml(schema = \"outer.xsd\")\ntarget o: json { a = [" + path + "] }");
            assertThat(found).hasSize(1);
            assertPlace(found.get(0), path.endsWith("prt") ? "outer.xsd" : "inner.xsd", "<xs:element name=\"part\"");
        }
    }

    private void assertPlace(Problem problem, String file, String text) throws IOException {
        InputLocation place = problem.input();
        assertThat(place).as("%s", problem).isNotNull();
        assertThat(place.input()).endsWith(file);
        String line = Files.readAllLines(folder.resolve(file)).get((int) place.line() - 1);
        assertThat(line.substring(Math.max(0, place.column() - 1))).startsWith(text);
    }

    @Test
    @DisplayName("a mapping with schemas runs")
    void runs() throws IOException {
        assertThat(problems("""
                source rows: csv(delimiter = ";", schema = "rows.csv")
                target o: csv(schema = "rows-metadata.json") {
                  for row in rows { imo = row.imo  eta = row.eta  'gross kg' = row.'gross kg' }
                }
                """)).isEmpty();
    }
}
