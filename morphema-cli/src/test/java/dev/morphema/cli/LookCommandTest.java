package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** {@code morphema look}, on the files of the demo and on others. */
class LookCommandTest {
    @TempDir
    private Path folder;

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();

    private int run(String... words) {
        out.reset();
        err.reset();
        return Main.run(words, new ByteArrayInputStream(new byte[0]), out, err);
    }

    private String shown(String... words) {
        int code = run(words);
        assertThat(code).as(err.toString(StandardCharsets.UTF_8)).isZero();
        return out.toString(StandardCharsets.UTF_8);
    }

    private String file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text).toString();
    }

    @Test
    @DisplayName("shows the tree of a document, and what repeats in it")
    void tree() {
        assertThat(shown("look", "../demo/expected/notice.xml"))
                .startsWith("source notice: xml\n\n1 document:\n")
                .containsPattern("\n  ArrivalNotice +record +always\n")
                .containsPattern("\n    Call +record +3 each\n")
                .containsPattern("\n      @imo +number +always +9000011 to 9000035\n")
                .containsPattern("\n          Container +text +6 of 8, 1 to 2 each +XXLU")
                .containsPattern("\n            @unit +text +always +only kg\n")
                .contains("for x in notice.ArrivalNotice.Call.Consignment.Item\n");
    }

    @Test
    @DisplayName("shows the options of a format and types as a mapping declares them")
    void types() {
        assertThat(shown("look", "../demo/samples/manifest.csv"))
                .startsWith("source manifest: csv(delimiter = \";\")\n\n10 records, each:\n")
                .containsPattern("\n  eta +datetime\\('dd.MM.yyyy HH:mm'\\) +always ")
                .containsPattern("\n  weight_kg +number\\(','\\) +always ")
                .containsPattern("\n  status +text +9 of 10 +OK \\(7\\) · CANCELLED \\(2\\)\n")
                .endsWith("What repeats: for x in manifest\n");
    }

    @Test
    @DisplayName("takes files as one, and tells what only some of them have")
    void severalFiles() throws IOException {
        file("1.json", "{\"calls\": [{\"ship\": \"A\", \"kg\": 1}]}");
        file("2.json", "{\"calls\": [{\"ship\": \"B\", \"note\": null}, {\"ship\": \"C\"}]}");
        assertThat(shown("look", folder + "/*.json"))
                .startsWith("source it: json\n\n2 documents, each:\n")
                .containsPattern("\n  calls +record +1 to 2 each\n")
                .containsPattern("\n    kg +number +1 of 3 +1\n")
                .containsPattern("\n    note +null +1 of 3\n")
                .contains("Only in 1.json: .calls.kg\n")
                .contains("Only in 2.json: .calls.note\n");
        assertThat(run("look", file("3.xml", "<a/>"), folder + "/1.json")).isEqualTo(ExitCode.USAGE);
    }

    @Test
    @DisplayName("writes a schema by which the files are valid")
    void schemas() throws IOException {
        for (String sample : new String[] {"notice.xml", "terminal.json"}) {
            String document = "../demo/expected/" + sample;
            boolean xml = sample.endsWith("xml");
            String schema = shown("look", document, "--as", xml ? "xsd" : "json-schema");
            String written = file(xml ? "learned.xsd" : "learned.json", schema);
            assertThat(shown("validate", document, "--schema", written)).isEqualTo(document + ": valid\n");
        }
        String odd = file("odd.xml", "<a><b/><c x='1'>t</c><b>2</b><c/><d>w<b>3</b>x</d></a>");
        String written = file("odd.xsd", shown("look", odd, "--as", "xsd"));
        assertThat(shown("validate", odd, "--schema", written)).endsWith(": valid\n");
        String mixed = file(
                "mixed.json",
                "[{\"a\": [1, \"x\"], \"b\": null}, {\"a\": 2, \"c\": {\"d\": true}}, {\"b\": \"2026-01-31\"}]");
        written = file("mixed.schema.json", shown("look", mixed, "--as", "json-schema"));
        assertThat(shown("validate", mixed, "--schema", written)).endsWith(": valid\n");
        assertThat(run("look", mixed, "--as", "xsd")).isEqualTo(ExitCode.USAGE);
        assertThat(run("look", mixed, "--as", "ddl")).isEqualTo(ExitCode.USAGE);
    }

    @Test
    @DisplayName("shows what an expression finds, and tells of a path that leads nowhere")
    void values() throws IOException {
        String calls =
                file("calls.json", "{\"calls\": [{\"ship\": \"A\", \"kg\": 1}, {\"ship\": \"B\", \"kg\": 200}]}");
        assertThat(shown("look", calls, "--values", "it.calls.ship")).isEqualTo("[\n  \"A\",\n  \"B\"\n]\n");
        assertThat(shown("look", calls, "--values", "c.ship for c in it.calls where c.kg > 100"))
                .isEqualTo("[\n  \"B\"\n]\n");
        assertThat(shown("look", calls, folder + "/calls.json", "--values", "count(it)"))
                .isEqualTo("[\n  2\n]\n");
        assertThat(run("look", calls, "--values", "it.calls.shop")).isEqualTo(ExitCode.DATA);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("did you mean ship?");
        assertThat(out.size()).isZero();
    }

    @Test
    @DisplayName("stops where it is told to, hides values, and says what cannot be read")
    void edges() throws IOException {
        String rows = file("rows.csv", "a,b\n1,x\n2,y\n3,z\n");
        assertThat(shown("look", rows, "--records", "2")).contains("2 records, and more, each:");
        assertThat(shown("look", rows, "--hide-values")).doesNotContain(" · ").containsPattern("  a +number +always\n");
        assertThat(shown("look", file("empty.csv", ""))).contains("There is nothing in it.");
        assertThat(shown("look", file("list.json", "[1, \"x\", null]")))
                .contains("(value)")
                .contains("number");
        assertThat(run("look", folder + "/none.csv")).isEqualTo(ExitCode.FILE);
        assertThat(run("look", file("bad.json", "{\"a\": 1"))).isEqualTo(ExitCode.DATA);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("the input ends in the middle of a value");
        assertThat(run("look")).isEqualTo(ExitCode.USAGE);
    }

    @Test
    @DisplayName("a run without inputs takes the declared samples, and says so")
    void samples() throws IOException {
        file("rows.csv", "a\n1\n2\n");
        String mapping = file(
                "m.morphema",
                "morphema 1\nsource rows: csv(sample = \"rows.csv\")\ntarget o: json(indent = 0) { for r in rows => r.a }\n");
        assertThat(shown("run", mapping)).isEqualTo("[\"1\",\"2\"]\n");
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("rows is read from its sample, ");
        assertThat(run("run", mapping, "--out", folder + "/o.json")).isEqualTo(ExitCode.USAGE);
        assertThat(folder.resolve("o.json")).doesNotExist();
        String without = file("n.morphema", "morphema 1\nsource rows: csv\ntarget o: json { for r in rows => r.a }\n");
        assertThat(run("run", without)).isEqualTo(ExitCode.USAGE);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("has no input");
    }

    @Test
    @DisplayName("check names what is not read, and with --strict ends with 2 for a warning")
    void checkOptions() throws IOException {
        file("calls.json", "{\"calls\": [{\"ship\": \"A\", \"kg\": 1, \"by\": {\"who\": 1}}], \"note\": \"x\"}");
        String mapping = file(
                "m.morphema",
                "morphema 1\nsource d: json(sample = \"calls.json\")\nlet unused = 1\n"
                        + "target o: json { list for c in d.calls => c.ship }\n");
        assertThat(shown("check", mapping, "--unread")).endsWith("d: not read are .calls.kg, .calls.by, .note.\n");
        assertThat(run("check", mapping, "--strict")).isEqualTo(ExitCode.MAPPING);
        assertThat(shown("check", "../demo/arrival.morphema", "--strict", "--unread"))
                .endsWith("manifest: all fields of its sample are read.\n");
    }

    @Test
    @DisplayName("tells the columns of a table without rows")
    void headerOnly() throws IOException {
        assertThat(shown("look", file("ships.csv", "imo,name\n")))
                .endsWith("No records, but the names of their fields:\n\n  imo\n  name\n");
        assertThat(shown("look", file("none.csv", ""))).endsWith("There is nothing in it.\n");
    }

    @Test
    @DisplayName("tells of single values between records, and counts them for what only records have")
    void mixed() throws IOException {
        assertThat(shown("look", file("mixed.json", "[1, 'x', null, {'kg': 1}]".replace('\'', '"'))))
                .containsPattern("\n  \\(value\\) +text or number or record or null +1 · x\n")
                .containsPattern("\n  kg +number +1 of 4 +1\n");
        assertThat(shown("look", file("mixed.xml", "<a><kg>1</kg><kg unit='t'>2</kg></a>")))
                .containsPattern("\n    kg +number +2 each +1 to 2\n")
                .containsPattern("\n      @unit +text +1 of 2 +t\n")
                .endsWith("What repeats: for x in mixed.a.kg\n");
    }

    @Test
    @DisplayName("takes a file for what its ending says where its first bytes do not tell")
    void ending() throws IOException {
        assertThat(shown("look", file("one.json", "12"))).startsWith("source one: json\n\n1 document:\n");
        assertThat(run("look", file("text.xml", "x"))).isEqualTo(ExitCode.DATA);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("not well-formed XML");
    }

    @Test
    @DisplayName("shows values of a file whatever its name")
    void nameWithQuotes() throws IOException {
        String file = file("it's own.csv", "imo,name\n9000011,Blue\n");
        assertThat(shown("look", file, "--values", "it.name")).contains("Blue");
    }

    @Test
    @DisplayName("tells a wish that cannot be, in the words of the wish")
    void wrongWishes() throws IOException {
        String file = file("ships.csv", "imo,name\n9000011,Blue\n");
        assertThat(run("look", folder.toString())).isEqualTo(ExitCode.FILE);
        assertThat(err.toString(StandardCharsets.UTF_8))
                .contains("a pattern takes the files in it: '" + folder + "/*'");
        assertThat(run("look", file, "--records", "0")).isEqualTo(ExitCode.USAGE);
        assertThat(run("look", file, "--values", "name")).isEqualTo(ExitCode.DATA);
        assertThat(err.toString(StandardCharsets.UTF_8))
                .contains("| name\n")
                .contains("what is in the file is called it: it.name");
    }
}
