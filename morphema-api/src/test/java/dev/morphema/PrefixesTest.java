package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Names with a prefix are told by their form, wherever the prefix is declared, and if it is not.
 */
class PrefixesTest {
    private static final String NOTICE = "<n:Notice xmlns:n='urn:notice' xmlns:p='urn:party'>"
            + "<p:Id>7</p:Id><n:Line><p:Id>1</p:Id></n:Line><n:Line><p:Id>2</p:Id></n:Line></n:Notice>";

    @TempDir
    private Path folder;

    @BeforeEach
    void sample() throws IOException {
        Files.writeString(folder.resolve("notice.xml"), NOTICE);
    }

    private Checked check(String mapping) {
        return Morphema.standard().check("test.morphema", "morphema 1\n" + mapping, folder);
    }

    private String run(String mapping) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        check(mapping)
                .mapping()
                .orElseThrow()
                .run(Inputs.file("d", folder.resolve("notice.xml")), Outputs.stream("o", out));
        return out.toString(StandardCharsets.UTF_8);
    }

    @Test
    void prefixesComeFromTheMappingThatIsUsed() throws IOException {
        Files.writeString(
                folder.resolve("names.morphema"), "morphema 1\nprefix x = \"urn:notice\"\nprefix y = \"urn:party\"\n");
        assertThat(
                        run(
                                "use \"names.morphema\"\nsource d: xml { x:Notice.y:Id: number }\n"
                                        + "target o: json(indent = 0) { ids for l in d.x:Notice.x:Line => l.y:Id  y:first = d.x:Notice.y:Id + 1 }"))
                .isEqualTo("{\"ids\":[\"1\",\"2\"],\"first\":8}\n");
    }

    @Test
    void aPrefixMayBeDeclaredBehindItsUse() {
        assertThat(run(
                        "source d: xml { x:Notice.x:Line.y:Id: number } target o: xml { x:Ids { Id for l in d.x:Notice.x:Line => l.y:Id } }\n"
                                + "prefix x = \"urn:notice\"  prefix y = \"urn:party\""))
                .contains("<x:Ids xmlns:x=\"urn:notice\"", "<Id>1</Id>", "<Id>2</Id>");
    }

    @Test
    void onePrefixIsMissedOnceAndTheNamespaceOfTheSampleIsProposed() {
        List<Problem> problems = check("source d: xml(sample = \"notice.xml\")\n"
                        + "target o: json { lines for l in d.n:Notice.n:Line { id = l.p:Id  same = l.p:Id } x:a = 1 }")
                .problems();
        assertThat(problems)
                .extracting(
                        problem -> problem.rule().line() + ":" + problem.rule().column() + " " + problem.message())
                .containsExactly(
                        "3:35 The prefix n is not declared.",
                        "3:60 The prefix p is not declared.",
                        "3:82 The prefix x is not declared.");
        assertThat(problems)
                .extracting(Problem::help)
                .containsExactly(
                        "prefix n = \"urn:notice\" declares it, as the sample has it",
                        "prefix p = \"urn:party\" declares it, as the sample has it",
                        "prefix x = \"…\" declares it, with its namespace");
    }

    @Test
    void aTypeStandsBehindABlankUnlessItCanBeNothingElse() {
        assertThat(run("source d: xml { ..Id:number }\ntarget o: json(indent = 0) { id: text = d.Notice.Id + 1 }"))
                .isEqualTo("{\"id\":\"8\"}\n");
        assertThat(check("source d: json target o: json { id:text = d.id }").problems())
                .extracting(Problem::help)
                .containsExactly("if text is the type, write it behind a blank: id: text; "
                        + "else prefix id = \"…\" declares it, with its namespace");
        assertThat(check("source d: json target o: json { id:number(',') = d.id }")
                        .problems())
                .extracting(Problem::help)
                .containsExactly("write a type behind a blank: id: number(…)");
    }
}
