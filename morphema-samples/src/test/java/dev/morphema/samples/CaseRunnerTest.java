package dev.morphema.samples;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.Morphema;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
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

/** Cases are found in folders, run, and compared by meaning. */
class CaseRunnerTest {
    @TempDir
    private Path folder;

    @BeforeEach
    void mapping() throws IOException {
        write(
                "call.morphema",
                "morphema 1\nsource call: json\nparam unit: text = \"t\"\n"
                        + "target notice: xml { Call { @id = call.id  Mass { = call.mass  @unit = unit }  At = today() } }\n"
                        + "target rows: csv { { id = call.id  mass = call.mass } }\n"
                        + "target list: json { id = call.id  mass = call.mass }\n");
        write("call.cases/one/in/call.json", "{\"id\":\"A\",\"mass\":1.50}");
    }

    private Path write(String name, String text) throws IOException {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        return Files.writeString(file, text);
    }

    private CaseResult run() {
        List<SampleCase> cases = SampleCase.find(folder.resolve("call.morphema"));
        assertThat(cases).hasSize(1);
        return new CaseRunner(Morphema.standard()).run(cases.get(0));
    }

    @Test
    @DisplayName(
            "documents are compared by meaning: layout, order of attributes and fields, prefixes, the form of numbers")
    void equalByMeaning() throws IOException {
        write(
                "call.cases/one/out/notice.xml",
                "<?xml version='1.0'?>\n<Call id='A'>\n    <Mass unit=\"t\">1.50</Mass><At>2026-01-01</At></Call>");
        write("call.cases/one/out/list.json", "{ \"mass\": 1.5, \"id\": \"A\" }");
        write("call.cases/one/out/rows.csv", "id,mass\nA,1.50\n");
        assertThat(run().passed()).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "list.json | {\"id\":\"B\",\"mass\":1.5} | /id | \"B\" | \"A\"",
                "list.json | {\"id\":\"A\"} | /mass | nothing | 1.50",
                "rows.csv | id,mass\\nA,2\\n | [1]/mass | \"2\" | \"1.50\"",
                "notice.xml | <Call id=\"B\"><Mass unit=\"t\">1.50</Mass><At>2026-01-01</At></Call> | /Call/@id | \"B\" | \"A\"",
                "notice.xml | <Call id=\"A\"><Mass unit=\"kg\">1.50</Mass><At>2026-01-01</At></Call> | /Call/Mass[1]/@unit | \"kg\" | \"t\""
            })
    @DisplayName("a difference has its place and both values")
    void differences(String file, String expected, String path, String wanted, String actual) throws IOException {
        write("call.cases/one/out/" + file, expected.translateEscapes());
        CaseResult result = run();
        assertThat(result.passed()).isFalse();
        List<Difference> all = result.differences().values().iterator().next();
        assertThat(all).hasSize(1);
        assertThat(all.get(0).path()).isEqualTo(path);
        assertThat(all.get(0).expected()).isEqualTo(wanted);
        assertThat(all.get(0).actual()).isEqualTo(actual);
    }

    @Test
    @DisplayName("a case sets parameters, the present and the seed")
    void properties() throws IOException {
        write("call.cases/one/case.properties", "param.unit = kg\nnow = 2026-03-05T12:00:00Z\n");
        write(
                "call.cases/one/out/notice.xml",
                "<Call id=\"A\"><Mass unit=\"kg\">1.50</Mass><At>2026-03-05</At></Call>");
        assertThat(run().passed()).isTrue();
        write("call.cases/one/case.properties", "now = soon\n");
        assertThat(run().problems()).extracting(Problem::isError).contains(true);
    }

    @Test
    @DisplayName("what is wrong with a case or its mapping is its result")
    void wrongCases() throws IOException {
        write("call.cases/one/out/none.xml", "<a/>");
        assertThat(run().problems()).isNotEmpty();
        Files.delete(folder.resolve("call.cases/one/out/none.xml"));
        write("call.cases/one/out/list.json", "{");
        assertThat(run().passed()).isFalse();
        write("call.morphema", "morphema 1\ntarget o: json { a = b }");
        assertThat(run().problems()).extracting(Problem::code).contains(Code.UNKNOWN_NAME);
    }

    @Test
    @DisplayName("cases are found from a mapping, its folder of cases, one case and any folder above")
    void found() throws IOException {
        write("call.cases/two/in/call.json", "{}");
        write("call.cases/two/out/list.json", "{}");
        write("call.cases/one/out/list.json", "{}");
        assertThat(SampleCase.find(folder)).extracting(SampleCase::name).hasSize(2);
        assertThat(SampleCase.find(folder.resolve("call.cases"))).hasSize(2);
        assertThat(SampleCase.find(folder.resolve("call.cases/two"))).hasSize(1);
        assertThatThrownBy(() -> SampleCase.find(folder.resolve("nowhere"))).isInstanceOf(ProblemException.class);
    }
}
