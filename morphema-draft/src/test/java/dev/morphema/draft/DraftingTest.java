package dev.morphema.draft;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.Morphema;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is found out from samples and schemas. */
class DraftingTest {
    @TempDir
    private Path folder;

    private String file(String name, String text) throws IOException {
        Files.writeString(folder.resolve(name), text);
        return folder.resolve(name).toString();
    }

    private Draft draft(String to, String... from) {
        Draft draft = Drafting.draft(List.of(from), to, folder);
        assertThat(Morphema.standard().check("draft", draft.text(), folder).problems())
                .as(draft.text())
                .noneMatch(problem -> problem.isError());
        return draft;
    }

    @ParameterizedTest(name = "{2}")
    @DisplayName("the rule of a field is found by its values")
    @CsvSource(
            delimiter = '~',
            quoteCharacter = '`',
            value = {
                "Oslo|Rome|Nice ~ Oslo|Rome|Nice ~ x = row.a",
                "12,50|3,00|1.000,25 ~ 12.50|3.00|1000.25 ~ `x: number(',', '.') = row.a`",
                "05.03.2026|28.12.2025|01.01.2026 ~ 2026-03-05|2025-12-28|2026-01-01 ~ x: date('dd.MM.yyyy') = row.a",
                "2026-03-05|2025-12-28|2026-01-01 ~ 5 Mar 2026|28 Dec 2025|1 Jan 2026 ~ `x = format(date(row.a), \"d MMM yyyy\")`",
                "05.03.2026 14:30|05.07.2026 02:00|01.01.2026 00:15 ~ 2026-03-05T14:30:00+01:00|2026-07-05T02:00:00+02:00|2026-01-01T00:15:00+01:00 ~ `x: datetime('dd.MM.yyyy HH:mm', 'Europe/Oslo') = row.a`",
                "ab|cd|ef ~ AB|CD|EF ~ x = upper(row.a)",
                " ab | cd|ef  ~ ab|cd|ef ~ x = trim(row.a)",
                "A-1|B-22|C-333 ~ 1|22|333 ~ `x = after(row.a, \"-\")`",
                "XXSKE|XXTOR|YYNOR ~ XX|XX|YY ~ `x = left(row.a, 2)`",
                "7|12|301 ~ 0007|0012|0301 ~ `x = padLeft(row.a, 4, '0')`",
                "7|12|301 ~ N7|N12|N301 ~ x = \"N{row.a}\"",
                "1500|2250|90 ~ 1.5|2.25|0.09 ~ x = row.a / 1000",
                "10|20|40 ~ 12.50|25.00|50.00 ~ x = row.a * 1.25",
                "7|12|301 ~ 107|112|401 ~ x = row.a + 100",
                "M|W|M|D|W ~ monthly|weekly|monthly|daily|weekly ~ x = aWords[row.a]",
                "2|9|12|3|30 ~ few|few|many|few|many ~ `x = if row.a <= 10 then \"few\" else \"many\"`",
                "a|b|c ~ same|same|same ~ x = \"same\"",
                "a|b|c ~ 1|2|3 ~ x = n"
            })
    void rules(String values, String wanted, String rule) throws IOException {
        StringBuilder rows = new StringBuilder("a\n");
        for (String value : values.split("\\|", -1)) {
            rows.append('"').append(value).append("\"\n");
        }
        StringBuilder results = new StringBuilder("x\n");
        for (String value : wanted.split("\\|", -1)) {
            results.append(value).append('\n');
        }
        Draft draft = draft(file("wanted.csv", results.toString()), file("rows.csv", rows.toString()));
        assertThat(draft.text()).containsPattern(Pattern.quote(rule) + "( |\n)");
        assertThat(draft.differences()).isEmpty();
        assertThat(draft.isTried()).isTrue();
        assertThat(draft.found()).isEqualTo(draft.fields()).isEqualTo(1);
    }

    @Test
    @DisplayName("what is not found is a todo that says what is expected, and the draft runs")
    void todo() throws IOException {
        Draft draft = draft(
                file(
                        "wanted.json",
                        "[{\"a\": \"x1\", \"b\": \"green\"}, {\"a\": \"x2\", \"b\": \"ultramarine\"}, {\"a\": \"x3\", \"b\": \"teal\"}]"),
                file("rows.csv", "k\nx1\nx2\nx3\n"));
        assertThat(draft.text())
                .contains("a = row.k  # fits 3 of 3 values")
                .contains("b = todo(\"expected: green, ultramarine, teal\")");
        assertThat(draft.found()).isEqualTo(1);
        assertThat(draft.fields()).isEqualTo(2);
        assertThat(draft.differences()).hasSize(3);
    }

    @Test
    @DisplayName("a sample with other values gives the form, and names the rules")
    void names() throws IOException {
        Draft draft = draft(
                file(
                        "like.json",
                        "{\"calls\": [{\"vesselName\": \"Havørn\", \"grossWeight\": 12.5, \"colour\": \"red\"}]}"),
                file("rows.csv", "vessel_name,gross_wt\nNordlys,\"7,5\"\nSula,\"30,25\"\n"));
        assertThat(draft.isTried()).isFalse();
        assertThat(draft.text())
                .contains("calls for row in rows {")
                .containsPattern("vesselName += row.vessel_name +# a guess")
                .contains("grossWeight: number(',') = row.gross_wt")
                .contains("colour = todo(\"such as red\")");
    }

    @Test
    @DisplayName("a schema of the target gives its form, with the namespace and what is required")
    void schemas() throws IOException {
        String schema = file("notice.xsd", """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:example:notice"
                    elementFormDefault="qualified">
                  <xs:element name="Notice"><xs:complexType><xs:sequence>
                    <xs:element name="Call" maxOccurs="unbounded"><xs:complexType><xs:sequence>
                      <xs:element name="VesselName" type="xs:string"/>
                      <xs:element name="Weight"><xs:complexType><xs:simpleContent><xs:extension base="xs:decimal">
                        <xs:attribute name="unit" fixed="kg" use="required"/>
                      </xs:extension></xs:simpleContent></xs:complexType></xs:element>
                      <xs:element name="Pilot" type="xs:string"/>
                      <xs:element name="Remark" type="xs:string" minOccurs="0"/>
                    </xs:sequence><xs:attribute name="imo" use="required"/></xs:complexType></xs:element>
                  </xs:sequence></xs:complexType></xs:element>
                </xs:schema>
                """);
        Draft draft = draft(schema, file("rows.csv", "imo,vessel,weight\n9000011,Nordlys,12.5\n"));
        assertThat(draft.text())
                .contains("target notice: xml(namespace = \"urn:example:notice\", schema = \"notice.xsd\")")
                .contains("Call for row in rows {")
                .containsPattern("@imo += row.imo")
                .containsPattern("VesselName += row.vessel")
                .contains("= row.weight")
                .containsPattern("@unit = \"kg\"")
                .contains("todo(\"a text\")")
                .doesNotContain("Remark");
    }

    @Test
    @DisplayName("schemas of both sides are enough")
    void schemasOnly() throws IOException {
        String from = file(
                "from.json",
                "{\"$schema\": \"x\", \"type\": \"array\", \"items\": {\"type\": \"object\", \"properties\":"
                        + " {\"shipName\": {\"type\": \"string\"}, \"load\": {\"enum\": [\"CARGO\", \"PAX\"]}}}}");
        String to = file(
                "to.json",
                "{\"$schema\": \"x\", \"type\": \"object\", \"required\": [\"ships\"], \"properties\": {\"ships\":"
                        + " {\"type\": \"array\", \"items\": {\"type\": \"object\", \"properties\": {\"name\":"
                        + " {\"type\": \"string\"}, \"load\": {\"enum\": [\"cargo\", \"pax\"]}}}}}}");
        assertThat(draft(to, from).text())
                .contains("source fromData: json(schema = \"from.json\")")
                .contains("{ CARGO = \"cargo\"  PAX = \"pax\" }")
                .contains("name = row.shipName");
    }

    @Test
    @DisplayName("a header without rows is a form too")
    void header() throws IOException {
        assertThat(draft(file("wanted.csv", "id,ship name\n"), file("rows.csv", "shipName,ID\nNordlys,7\n"))
                        .text())
                .contains("'ship name' = row.shipName")
                .containsPattern("id += row.ID");
    }

    @Test
    @DisplayName("objects whose names are data are made by their keys")
    void keyedTargets() throws IOException {
        Draft draft = draft(file("wanted.json", """
                        {"ships": {"Nordlys": {"imo": 9000011, "total": 150}, "Sula": {"imo": 9000023, "total": 250},
                          "Havgap": {"imo": 9000035, "total": 75}},
                         "days": {"2026-03-05": "Nordlys", "2026-03-06": "Sula", "2026-03-07": "Nordlys",
                          "2026-03-08": "Havgap"}}
                        """), file("rows.csv", """
                        ship,imo,kg,eta
                        Nordlys,9000011,100,05.03.2026
                        Sula,9000023,250,06.03.2026
                        Nordlys,9000011,50,07.03.2026
                        Havgap,9000035,75,08.03.2026
                        """));
        assertThat(draft.differences()).as(draft.text()).isEmpty();
        assertThat(draft.text())
                .containsPattern("ships for row in rows group by .* keyed by .* \\{")
                .contains("days for row in rows keyed by date(row.eta, 'dd.MM.yyyy') => row.ship");
    }

    @Test
    @DisplayName("objects whose names are data are gone through by their entries")
    void keyedSources() throws IOException {
        Draft draft = draft(
                file("list.json", "[{\"name\": \"Nordlys\", \"kg\": 150}, {\"name\": \"Sula\", \"kg\": 250}]"),
                file("ships.json", "{\"ships\": {\"Nordlys\": {\"total\": 150}, \"Sula\": {\"total\": 250}}}"));
        assertThat(draft.differences()).isEmpty();
        assertThat(draft.text()).contains("for ship in entries(ships.ships)").contains("name = ship.key");
    }

    @Test
    @DisplayName("by its name alone a field may be a total, a number of a line, or the only date")
    void namedTotals() throws IOException {
        String wanted = file("wanted.schema.json", """
                {"$schema": "https://json-schema.org/draft/2020-12/schema", "type": "object",
                 "required": ["ships", "cancelled"], "properties": {
                   "ships": {"type": "array", "items": {"type": "object",
                     "required": ["ship", "rows", "averageWeight", "bills"], "properties": {
                     "ship": {"type": "string"}, "rows": {"type": "number"}, "averageWeight": {"type": "number"},
                     "bills": {"type": "array", "items": {"type": "object", "required": ["line", "day"], "properties": {
                       "line": {"type": "number"}, "day": {"type": "string", "format": "date"}}}}}}},
                   "cancelled": {"type": "array", "items": {"type": "object", "required": ["bill"],
                     "properties": {"bill": {"type": "string"}}}}}}
                """);
        Draft draft = draft(wanted, file("rows.csv", """
                ship,bill,weight,arrival,state
                Nordlys,B1,10,2026-03-05,ok
                Nordlys,B2,20,2026-03-06,cancelled
                Sula,B3,30,2026-03-07,ok
                """));
        assertThat(draft.text())
                .contains("ships for row in rows group by ship = row.ship as members {")
                .containsPattern("rows += count\\(members\\)")
                .containsPattern("averageWeight += avg\\(members.weight\\)")
                .containsPattern("line = n2? +#")
                .containsPattern("day += row.arrival")
                .contains("cancelled for row in rows where row.state == \"cancelled\" {");
    }

    @Test
    @DisplayName("rows of another source are those with the key of the record at hand")
    void joinedByKey() throws IOException {
        String wanted = file(
                "wanted.json",
                "[{\"crop\": \"rye\", \"loads\": [{\"tonnes\": 7, \"hour\": 1}, {\"tonnes\": 8, \"hour\": 2}]}]");
        Draft draft = draft(
                wanted,
                file("fields.csv", "field,crop\nF1,barley\nF2,oats\n"),
                file("harvest.csv", "field,hour,tonnes\nF1,14,30\nF2,15,12\n"));
        assertThat(draft.isTried()).as(draft.text()).isFalse();
        assertThat(draft.text()).contains("loads for row in harvest where row.field == field.field {");
    }

    @Test
    @DisplayName("what stands there is not replaced, and what is not there is told")
    void files() throws IOException {
        String rows = file("rows.csv", "a\n1\n");
        Draft draft = draft(rows, rows);
        Path place = folder.resolve("draft.morphema");
        draft.write(place);
        assertThat(place).hasContent(draft.text());
        assertThatThrownBy(() -> draft.write(place))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("There is such a file already");
        assertThatThrownBy(() -> Drafting.draft(List.of(rows), folder + "/none.json", folder))
                .isInstanceOf(ProblemException.class);
    }
}
