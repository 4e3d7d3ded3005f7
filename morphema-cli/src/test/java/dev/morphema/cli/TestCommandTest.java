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
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** {@code morphema test}: what it finds, how it compares, what it says. */
class TestCommandTest {
    @TempDir
    private Path folder;

    private String out = "";
    private String err = "";

    @BeforeEach
    void mapping() throws IOException {
        write("ships.morphema", """
                morphema 1
                source rows: csv { kg: number }
                param unit: text = "kg"
                target list: json { for r in rows { ship = r.ship  kg = r.kg  unit = unit } }
                target sheet: csv(header = false) { for r in rows { ship = r.ship  kg = r.kg } }
                target doc: xml { Ships { @n = count(rows)  Ship for r in rows { = r.ship  @kg = r.kg } } }
                target stamp: json { now = now()  id = uuid() }
                """);
        write("ships.cases/plain/in/rows.csv", "ship,kg\nNordlys,1.50\nSula,2\n");
    }

    private void write(String file, String text) throws IOException {
        Path place = folder.resolve(file);
        Files.createDirectories(place.getParent());
        Files.writeString(place, text);
    }

    private int test(String... paths) {
        String[] words = new String[paths.length + 1];
        words[0] = "test";
        for (int i = 0; i < paths.length; i++) {
            words[i + 1] = folder.resolve(paths[i]).toString();
        }
        ByteArrayOutputStream outBytes = new ByteArrayOutputStream();
        ByteArrayOutputStream errBytes = new ByteArrayOutputStream();
        int code = Main.run(words, new ByteArrayInputStream(new byte[0]), outBytes, errBytes);
        out = outBytes.toString(StandardCharsets.UTF_8);
        err = errBytes.toString(StandardCharsets.UTF_8);
        return code;
    }

    @Test
    @DisplayName("kept rows stand for a database, and statements are compared line by line")
    void otherFormats() throws IOException {
        write("calls.morphema", """
                morphema 1
                source calls: sql(query = "select id, ship from call")
                target log: sql(table = "log") { for c in calls { id = c.id  note = c.ship } }
                target lines: fixed(columns = ["id 1-3 right 0", "ship 4-9"]) { for c in calls { copy c } }
                target yaml: yaml { for c in calls { id = c.id } }
                """);
        write("calls.cases/one/in/calls.json", "[{\"id\": 1, \"ship\": \"Sula\"}]");
        write("calls.cases/one/out/log.sql", "INSERT INTO log (id, note) VALUES (1, 'Sula');\n");
        write("calls.cases/one/out/lines.txt", "001Sula\n");
        write("calls.cases/one/out/yaml.yaml", "- {id: 1}\n");
        assertThat(test("calls.morphema")).as(out).isZero();
        write("calls.cases/one/out/log.sql", "INSERT INTO log (id, note) VALUES (2, 'Sula');\n");
        assertThat(test("calls.morphema")).isEqualTo(ExitCode.DATA);
        assertThat(out).contains("expected \"INSERT INTO log (id, note) VALUES (2, 'Sula');\"");
    }

    @Test
    @DisplayName("documents are compared by meaning")
    void byMeaning() throws IOException {
        write(
                "ships.cases/plain/out/list.json",
                "[{\"unit\":\"kg\",\"kg\":1.5,\"ship\":\"Nordlys\"},{\"ship\":\"Sula\",\"kg\":2.0,\"unit\":\"kg\"}]");
        write("ships.cases/plain/out/sheet.csv", "\"Nordlys\",\"1.50\"\r\nSula,2\r\n");
        write(
                "ships.cases/plain/out/doc.xml",
                "<Ships n='2'><!-- c --><Ship\n kg='1.50'>Nordlys</Ship>\n\n<Ship kg='2'><![CDATA[Sula]]></Ship></Ships>");
        assertThat(test("")).isZero();
        assertThat(out).isEqualTo("passed  ships.cases/plain\n1 case: 1 passed, 0 failed\n");
        assertThat(test("ships.morphema")).isZero();
        assertThat(test("ships.cases")).isZero();
        assertThat(test("ships.cases/plain")).isZero();
    }

    @Test
    @DisplayName("a difference is told with its path, what was expected and what came")
    void differences() throws IOException {
        write(
                "ships.cases/plain/out/list.json",
                "[{\"ship\":\"Nordlys\",\"kg\":1.6,\"unit\":\"kg\"},{\"ship\":\"Sula\",\"kg\":2,\"unit\":\"kg\",\"x\":null},{}]");
        write(
                "ships.cases/plain/out/doc.xml",
                "<Ships n='2'><Ship kg='1.50'>Nordlys</Ship><Ship kg='3'/><More/></Ships>");
        write("ships.cases/plain/out/sheet.csv", "Nordlys,1.5\nSula,2\n");
        assertThat(test("")).isEqualTo(1);
        assertThat(out)
                .contains("list: 3 differences")
                .contains("[1]/kg\n      expected 1.6\n      actual   1.50\n")
                .contains("[2]/x\n      expected null\n      actual   nothing\n")
                .contains("[3]\n      expected a record\n      actual   nothing\n")
                .contains("/Ships/Ship[2]/@kg\n      expected \"3\"\n      actual   \"2\"\n")
                .contains("/Ships/Ship[2]\n      expected \"\"\n      actual   \"Sula\"\n")
                .contains("/Ships/More[1]\n      expected element More\n      actual   nothing\n")
                .contains("[1]/kg\n      expected \"1.5\"\n      actual   \"1.50\"\n")
                .endsWith("1 case: 0 passed, 1 failed\n");
    }

    @Test
    @DisplayName("a case sets parameters and the present, and random codes are the same each time")
    void settings() throws IOException {
        write(
                "ships.cases/plain/out/list.json",
                "[{\"ship\":\"Nordlys\",\"kg\":1.5,\"unit\":\"t\"},{\"ship\":\"Sula\",\"kg\":2,\"unit\":\"t\"}]");
        write("ships.cases/plain/out/stamp.json", "{\"now\":\"2026-03-05T12:00:00Z\",\"id\":\"?\"}");
        write("ships.cases/plain/case.properties", "param.unit = t\nnow = 2026-03-05T12:00:00Z\nseed = 7\n");
        assertThat(test("")).isEqualTo(1);
        assertThat(out)
                .contains("stamp: 1 difference")
                .contains("/id")
                .doesNotContain("/now")
                .doesNotContain("list:");
        String first = out;
        test("");
        assertThat(out).isEqualTo(first);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "now = yesterday | The value of now in | yesterday",
                "seed = many | The value of seed in | many",
                "sead = 1 | There is no setting sead in | there is now, seed and param.NAME",
                "param.unt = t | The mapping has no parameter unt. | did you mean unit?"
            })
    @DisplayName("a setting that has no meaning fails its case and says what there is")
    void wrongSettings(String setting, String message, String more) throws IOException {
        write("ships.cases/plain/out/sheet.csv", "Nordlys,1.50\nSula,2\n");
        write("ships.cases/plain/case.properties", setting + "\n");
        assertThat(test("")).isEqualTo(3);
        assertThat(out).contains(message).contains(more).endsWith("1 case: 0 passed, 1 failed\n");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "list.json | [{\"ship\": | This is not well-formed JSON here: the input ends in the middle of a value.",
                "doc.xml | <Ships><Ship></Ships> | is not well-formed",
                "sheet.csv | \"open,1 | A quote is opened here"
            })
    @DisplayName("an expected output that is broken is told as such")
    void brokenExpectations(String file, String text, String told) throws IOException {
        write("ships.cases/plain/out/" + file, text);
        assertThat(test("")).isNotZero();
        assertThat(out).contains("failed  ships.cases/plain").contains(told).contains("1 case: 0 passed, 1 failed\n");
    }

    @Test
    @DisplayName("a root element of another name is one difference; a list where a record was expected too")
    void otherRoots() throws IOException {
        write("ships.cases/plain/out/doc.xml", "<Boats n='2'/>");
        write("ships.cases/plain/out/list.json", "{\"ship\":\"Nordlys\"}");
        assertThat(test("")).isEqualTo(1);
        assertThat(out)
                .contains("doc: 1 difference\n    /\n      expected Boats\n      actual   Ships\n")
                .contains("list: 1 difference")
                .contains("actual   a list of 2");
    }

    @Test
    @DisplayName("a mapping without cases says where they would be")
    void noCases() throws IOException {
        write("other.morphema", "morphema 1\ntarget o: json { a = 1 }\n");
        assertThat(test("other.morphema")).isEqualTo(4);
        assertThat(err).contains("has no cases").contains("other.cases, with in/ and out/ in it");
    }

    @Test
    @DisplayName("what cannot be run is told with the place, and the other cases go on")
    void brokenCases() throws IOException {
        write("ships.cases/plain/out/sheet.csv", "Nordlys,1.50\nSula,2\n");
        write("ships.cases/bad/in/rows.csv", "ship,kg\nNordlys,x\n");
        write("ships.cases/bad/out/sheet.csv", "");
        write("ships.cases/empty/in/rows.csv", "ship,kg\n");
        write("ships.cases/odd/out/nothing.csv", "");
        assertThat(test("")).isEqualTo(3);
        assertThat(out)
                .contains("failed  ships.cases/bad\nerror: This text is not a number.")
                .contains("expects nothing")
                .contains("The mapping has no target nothing.")
                .contains("passed  ships.cases/plain")
                .contains("4 cases: 1 passed, 3 failed");
        assertThat(test("none")).isEqualTo(4);
        write("other/x.txt", "");
        assertThat(test("other")).isEqualTo(3);
        assertThat(err).contains("There are no cases here.");
    }

    @Test
    @DisplayName("a target of many documents is compared with a folder: missing, further and differing ones are told")
    void folders() throws IOException {
        write("split.morphema", """
                morphema 1
                source rows: csv(files = many)
                target o: xml for r in rows into "{r.day}/{r.ship}.xml" { Ship { @n = r.n } }
                """);
        write("split.cases/one/in/rows/a.csv", "day,ship,n\n1,Nordlys,5\n");
        write("split.cases/one/in/rows/b.csv", "day,ship,n\n2,Sula,6\n2,Havn,7\n");
        write("split.cases/one/out/o/1/Nordlys.xml", "<Ship n='5'/>");
        write("split.cases/one/out/o/2/Sula.xml", "<Ship n='9'/>");
        write("split.cases/one/out/o/2/Lost.xml", "<Ship n='9'/>");
        assertThat(test("split.morphema")).isEqualTo(1);
        assertThat(out)
                .contains("o: 3 differences")
                .contains("2/Havn.xml\n      expected nothing\n      actual   a document")
                .contains("2/Lost.xml\n      expected a document\n      actual   nothing")
                .contains("2/Sula.xml /Ship/@n\n      expected \"9\"\n      actual   \"6\"");
    }
}
