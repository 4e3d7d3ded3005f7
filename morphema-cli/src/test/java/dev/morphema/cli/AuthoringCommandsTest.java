package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The commands by which mappings are begun and looked at: draft, check and validate. */
class AuthoringCommandsTest {
    private static final String SCHEMA = """
            {"type": "array", "items": {"type": "object", "required": ["ship"], "additionalProperties": false,
             "properties": {"ship": {"type": "string"}, "kg": {"type": "number", "maximum": 100}}}}
            """;

    @TempDir
    private Path folder;

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();

    @BeforeEach
    void files() throws IOException {
        file("rows.csv", "vessel,mass\nNordlys,10.5\nSula,7\n");
        file("wanted.json", "[{\"ship\": \"Nordlys\", \"kg\": 10.5}, {\"ship\": \"Sula\", \"kg\": 7}]");
        file("ships.schema.json", SCHEMA);
        file("ships.morphema", """
                morphema 1
                source rows: csv(sample = "rows.csv")
                target out: json(schema = "ships.schema.json") {
                  for row in rows { ship = row.vessel  kg: number = row.mass }
                }
                """);
    }

    private String file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text).toString();
    }

    private String place(String name) {
        return folder.resolve(name).toString();
    }

    private int run(String... words) {
        out.reset();
        err.reset();
        return Main.run(words, new ByteArrayInputStream(new byte[0]), out, err);
    }

    private String printed() {
        return out.toString(StandardCharsets.UTF_8);
    }

    private String said() {
        return err.toString(StandardCharsets.UTF_8);
    }

    @Test
    @DisplayName("a draft is written to a new file, and runs")
    void draft() throws IOException {
        String mapping = place("draft.morphema");
        assertThat(run("draft", "--from", place("rows.csv"), "--to", place("wanted.json"), "--out", mapping))
                .isZero();
        assertThat(said())
                .contains(": 2 of 2 fields have a rule\n")
                .contains("tried   with the samples: it gives what is expected\n")
                .contains("next    morphema run " + mapping);
        assertThat(Files.readString(Path.of(mapping))).contains("sample = \"rows.csv\"");
        assertThat(run("run", mapping, "--quiet")).isZero();
        assertThat(printed()).contains("\"ship\": \"Nordlys\",\n    \"kg\": 10.5");

        assertThat(run("draft", "--from", place("rows.csv"), "--to", place("wanted.json"), "--out", mapping))
                .isEqualTo(ExitCode.FILE);
        assertThat(said()).contains("There is such a file already, and it stays as it is.");
        assertThat(run("draft", "--to", place("wanted.json"))).isEqualTo(ExitCode.USAGE);
    }

    @Test
    @DisplayName("what a draft gives otherwise is named; without values if they are to be hidden")
    void differences() throws IOException {
        file("wanted.json", "[{\"ship\": \"Nordlys\", \"x\": \"teal\"}, {\"ship\": \"Sula\", \"x\": \"umber\"}]");
        assertThat(run("draft", "--from", place("rows.csv"), "--to", place("wanted.json")))
                .isZero();
        assertThat(said()).contains("something else at 2 places\n        [1]/x is nothing, expected \"teal\"\n");
        assertThat(run("draft", "--from", place("rows.csv"), "--to", place("wanted.json"), "--hide-values"))
                .isZero();
        assertThat(said()).contains("        [1]/x\n").doesNotContain("teal");
    }

    @Test
    @DisplayName("check tells problems for programs")
    void checkForPrograms() throws IOException {
        String wrong = file(
                "wrong.morphema",
                "morphema 1\nsource rows: csv(sample = \"rows.csv\")\n"
                        + "target out: json { for row in rows { a = row.vesel } }\n");
        assertThat(run("check", wrong, "--format", "json")).isEqualTo(ExitCode.MAPPING);
        assertThat(printed())
                .contains("\"severity\" : \"error\"")
                .contains("\"code\" : \"unknown-field\"")
                .contains("\"line\" : 3")
                .containsPattern("\"input\" : \".*rows.csv:2, record 1\"")
                .contains("\"help\" : \"did you mean vessel?\"");
        assertThat(run("check", wrong, "--format", "sarif")).isEqualTo(ExitCode.MAPPING);
        assertThat(printed())
                .contains("\"version\" : \"2.1.0\"")
                .contains("\"ruleId\" : \"unknown-field\"")
                .contains("\"startLine\" : 3")
                .containsPattern("(?s)relatedLocations.*rows.csv.*\"startLine\" : 2");
        assertThat(run("check", place("ships.morphema"), "--format", "json")).isZero();
        assertThat(printed()).isEqualTo("{\n  \"problems\" : [ ]\n}\n");
        assertThat(run("check", wrong, "--format", "xml")).isEqualTo(ExitCode.USAGE);
    }

    @Test
    @DisplayName("validate tells what is wrong with its place, and ends with 1")
    void validate() throws IOException {
        assertThat(run("validate", place("wanted.json"), "--schema", place("ships.schema.json")))
                .isZero();
        assertThat(printed()).endsWith("wanted.json: valid\n");
        String bad = file("bad.json", "[{\"ship\": \"A\"},\n {\"kg\": 700, \"x\": 1}]");
        assertThat(run("validate", bad, "--schema", place("ships.schema.json"))).isEqualTo(ExitCode.DATA);
        assertThat(said())
                .contains("Required property 'ship' not found")
                .contains("Must have a maximum value of 100")
                .contains("bad.json:2:9, field /1/kg");
        assertThat(printed()).endsWith("bad.json: not valid, 3 errors\n");
        assertThat(run("validate", place("none.json"), "--schema", place("ships.schema.json")))
                .isEqualTo(ExitCode.FILE);
        assertThat(run("validate", bad, "--schema", place("none.json"))).isEqualTo(ExitCode.FILE);
        assertThat(said()).contains("A file cannot be read: ").contains("none.json");
    }

    @Test
    @DisplayName("a run that validates writes nothing that is not as its schema says")
    void validatedRuns() throws IOException {
        String output = place("out.json");
        assertThat(run(
                        "run",
                        place("ships.morphema"),
                        "--in",
                        place("rows.csv"),
                        "--out",
                        output,
                        "--validate",
                        "--quiet"))
                .isZero();
        String before = Files.readString(Path.of(output));
        String heavy = file("heavy.csv", "vessel,mass\nNordlys,1000\n");
        assertThat(run("run", place("ships.morphema"), "--in", heavy, "--out", output, "--validate", "--quiet"))
                .isEqualTo(ExitCode.DATA);
        assertThat(said())
                .contains("Must have a maximum value of 100")
                .contains("out.json:4:11, field /0/kg")
                .contains("ships.morphema:4:")
                .contains("kg: number = row.mass");
        assertThat(Path.of(output)).hasContent(before);
        assertThat(run("run", place("ships.morphema"), "--in", heavy, "--out", output, "--quiet"))
                .isZero();
    }

    @Test
    @DisplayName("an input that is not as its schema says is refused before the run")
    void validatedInputs() throws IOException {
        String mapping = file("read.morphema", """
                morphema 1
                source ships: json(schema = "ships.schema.json")
                target out: jsonl { for s in ships { name = s.ship } }
                """);
        String bad = file("bad.json", "[{\"kg\": 7}]");
        assertThat(run("run", mapping, "--in", bad, "--out", place("o.jsonl"), "--validate"))
                .isEqualTo(ExitCode.DATA);
        assertThat(said()).contains("Required property 'ship' not found");
        assertThat(Path.of(place("o.jsonl"))).doesNotExist();
    }
}
