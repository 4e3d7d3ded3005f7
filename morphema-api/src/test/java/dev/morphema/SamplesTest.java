package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.Severity;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a sample tells the check about paths, kinds, and one or many. */
class SamplesTest {
    @TempDir
    private Path folder;

    @BeforeEach
    void samples() throws IOException {
        write("call.json", """
                {"ship": {"name": "Nordlys", "imo": "9000011"}, "tags": ["a"], "draft": 7.5, "ok": true, "note": null,
                 "lines": [{"bill": "1", "kg": 10, "code": "12"}, {"bill": "2", "kg": 20, "extra": {"x": 1}, "code": "7"}]}""");
        write(
                "notice.xml",
                "<n:Notice xmlns:n='urn:n' port='XX'><Call id='1'><Name>A</Name></Call><Call id='2'><Name>B</Name><Kg u='t'>5</Kg></Call></n:Notice>");
    }

    private void write(String file, String text) throws IOException {
        Files.writeString(folder.resolve(file), text);
    }

    private List<Problem> json(String body) {
        return Morphema.standard()
                .check(
                        "m",
                        "morphema 1\nsource c: json(sample = \"call.json\")\ntarget o: json { " + body + " }",
                        folder)
                .problems();
    }

    private List<Problem> xml(String body) {
        return Morphema.standard()
                .check(
                        "m",
                        "morphema 1\nprefix n = \"urn:n\"\nsource d: xml(sample = \"notice.xml\")\ntarget o: json { "
                                + body + " }",
                        folder)
                .problems();
    }

    private static List<Code> codes(List<Problem> problems) {
        return problems.stream().map(Problem::code).toList();
    }

    @Test
    @DisplayName("paths that the sample has are fine, at any depth and through lists")
    void knownPaths() {
        assertThat(
                        json(
                                "a = c.ship.name  b = sum(c.lines.kg)  d for l in c.lines { x = l.extra.x }  e = c.note  f = c.tags"))
                .isEmpty();
        assertThat(
                        xml(
                                "a = d.Notice.@port  b for x in d.n:Notice.Call { n = x.Name  k = x.Kg  u = x.Kg.@u  i = x.@id }"))
                .isEmpty();
    }

    @Test
    @DisplayName("a path that the sample lacks is a warning with what is near, since it may come some day")
    void unknownPaths() {
        assertThat(json("a = c.ship.nme")).singleElement().satisfies(p -> {
            assertThat(p.code()).isEqualTo(Code.UNKNOWN_FIELD);
            assertThat(p.severity()).isEqualTo(Severity.WARNING);
            assertThat(p.help()).isEqualTo("did you mean name?");
        });
        assertThat(json("a for l in c.lines => l.bil").get(0).help()).isEqualTo("did you mean bill?");
        assertThat(json("a = c.draft.x"))
                .extracting(Problem::message)
                .containsExactly("The sample has a single value here, and no field x in it.");
        assertThat(xml("a = first(d.Notice.Cal).Name"))
                .extracting(Problem::help)
                .containsExactly("did you mean Call?");
        assertThat(xml("a = d.Notce.Call")).extracting(Problem::help).contains("did you mean Notice?");
        assertThat(xml("a = d.Notice.port")).extracting(Problem::code).containsExactly(Code.UNKNOWN_FIELD);
    }

    @Test
    @DisplayName(
            "elements that are copied into rows give the columns that the sample shows, attributes and texts among them")
    void copiedElementsAreRows() {
        Mapping mapping = Morphema.standard()
                .load(
                        "m",
                        "morphema 1\nsource d: xml(sample = \"notice.xml\")\n"
                                + "target calls: csv { for c in d.Notice.Call { copy c without Kg } }\n"
                                + "target weights: csv { for c in d.Notice.Call for k in c.Kg { copy k } }",
                        folder);
        ByteArrayOutputStream calls = new ByteArrayOutputStream();
        ByteArrayOutputStream weights = new ByteArrayOutputStream();
        mapping.run(
                Inputs.file("d", folder.resolve("notice.xml")),
                Outputs.stream("calls", calls).andStream("weights", weights));
        assertThat(calls).hasToString("id,Name\n1,A\n2,B\n");
        assertThat(weights).hasToString("u,text\nt,5\n");
    }

    @Test
    @DisplayName("where the sample shows many, one is an error before the run")
    void oneOrMany() {
        assertThat(codes(json("a = c.lines.bill"))).containsExactly(Code.ONE_OR_MANY);
        assertThat(codes(json("a = upper(c.tags)"))).containsExactly(Code.ONE_OR_MANY);
        assertThat(codes(json("a = c.lines.kg + 1"))).containsExactly(Code.ONE_OR_MANY);
        assertThat(codes(xml("a = d.Notice.Call.Name"))).containsExactly(Code.ONE_OR_MANY);
        assertThat(codes(xml("a = first(d.Notice.Call).Name"))).isEmpty();
    }

    @Test
    @DisplayName("kinds that the sample shows are held against what is wanted")
    void kinds() {
        assertThat(codes(json("a = c.ship.name * 2"))).containsExactly(Code.WRONG_KIND);
        assertThat(codes(json("a = if c.draft then 1"))).containsExactly(Code.WRONG_KIND);
        assertThat(codes(json("a = if c.ok then 1"))).isEmpty();
        assertThat(codes(json("a = c.ship.imo * 2"))).isEmpty();
        assertThat(codes(json("a for l in c.lines sort by l.code => l.bill"))).containsExactly(Code.TEXT_COMPARED);
        assertThat(codes(json("a = max(c.lines.code)"))).containsExactly(Code.TEXT_COMPARED);
        assertThat(codes(json("a = c.ship.name == 5"))).containsExactly(Code.WRONG_KIND);
    }

    @Test
    @DisplayName(
            "a column of words and numbers may be calculated with, one of decimal commas not before it has its type")
    void mixedColumns() throws IOException {
        write("rows.csv", "mixed;comma;words\n1;1,5;a\nx;2;b\n");
        String mapping = "morphema 1\nsource r: csv(delimiter = \";\", sample = \"rows.csv\"%s\n"
                + "target o: csv { for x in r { a = if x.mixed != \"x\" then x.mixed * 2  b = x.%s * 2 } }";
        assertThat(codes(Morphema.standard()
                        .check("m", String.format(mapping, ") { comma: number(',') }", "comma"), folder)
                        .problems()))
                .isEmpty();
        for (String column : List.of("comma", "words")) {
            assertThat(codes(Morphema.standard()
                            .check("m", String.format(mapping, ")", column), folder)
                            .problems()))
                    .containsExactly(Code.WRONG_KIND);
        }
    }

    @Test
    @DisplayName("a sample that is not there is a warning, one that is broken an error with its place")
    void badSamples() throws IOException {
        Files.delete(folder.resolve("call.json"));
        assertThat(json("a = c.anything")).singleElement().satisfies(p -> {
            assertThat(p.severity()).isEqualTo(Severity.WARNING);
            assertThat(p.code()).isEqualTo(Code.FILE_NOT_FOUND);
        });
        write("call.json", "{\"a\": ");
        assertThat(json("a = c.a")).first().satisfies(p -> {
            assertThat(p.code()).isEqualTo(Code.BAD_JSON);
            assertThat(p.input().input()).endsWith("call.json");
            assertThat(p.rule()).isNotNull();
        });
    }

    @Test
    @DisplayName("members of groups, records and tables know their fields")
    void knownFields() {
        assertThat(codes(json("a for l in c.lines group by l.bill as ls { b = bill  k = sum(ls.kgs) }")))
                .containsExactly(Code.UNKNOWN_FIELD);
        assertThat(codes(json("let r = { x = 1 }  a = r.y"))).containsExactly(Code.UNKNOWN_FIELD);
        assertThat(codes(json("a for l in c.lines group by l.bill as ls { k = l.kg }")))
                .containsExactly(Code.UNKNOWN_NAME);
        assertThat(codes(json(
                        "a for l in c.lines for t in c.tags group by l.bill as ps { t = [ps.t]  k = sum(ps.l.kg) }")))
                .isEmpty();
        assertThat(codes(json("a for l in c.lines let d = l.kg * 2 group by l.bill as ls { k = sum(ls.d) }")))
                .isEmpty();
    }
}
