package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Outputs go on behind what is in their files. */
class AppendTest {
    @TempDir
    private Path folder;

    private void run(Morphema morphema, String target, String file, String rows) {
        String mapping = "morphema 1\nsource s: csv\ntarget o: " + target + " { for r in s { a = r.a  b = r.b } }";
        morphema.load("test.morphema", mapping, folder)
                .run(Inputs.text("s", rows), Outputs.NONE.andAppended("o", folder.resolve(file)));
    }

    private void run(String target, String file, String rows) {
        run(Morphema.standard(), target, file, rows);
    }

    private Problem refused(String target, String file, String rows) {
        try {
            run(target, file, rows);
        } catch (ProblemException e) {
            return e.problem();
        }
        throw new AssertionError("no problem");
    }

    @ParameterizedTest(name = "{0} after {1}")
    @DisplayName("a header is written once, and a last line is ended")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "csv ~ `` ~ a,b\\n1,2\\n",
                "csv ~ a,b\\nx,y\\n ~ a,b\\nx,y\\n1,2\\n",
                "csv ~ a,b\\nx,y ~ a,b\\nx,y\\n1,2\\n",
                "csv(delimiter = \";\", line-end = crlf, bom = true) ~ a;b\\r\\nx;y ~ a;b\\r\\nx;y\\r\\n1;2\\r\\n",
                "csv(header = false) ~ x,y\\n ~ x,y\\n1,2\\n",
                "fixed(columns = [\"a 1-2\", \"b 3\"]) ~ x y\\n ~ x y\\n1 2\\n",
                "jsonl ~ {\"a\":0}\\n ~ {\"a\":0}\\n{\"a\":\"1\",\"b\":\"2\"}\\n"
            })
    void appends(String target, String before, String after) throws IOException {
        Path file = folder.resolve("out");
        Files.writeString(file, before.replace("\\n", "\n").replace("\\r", "\r"));
        run(target, "out", "a,b\n1,2\n");
        assertThat(Files.readString(file).replace("\n", "\\n").replace("\r", "\\r"))
                .isEqualTo(after);
    }

    @Test
    @DisplayName("a file that is not there is made, and one that is compressed stays so")
    void newFiles() throws IOException {
        run("csv", "new/out.csv", "a,b\n1,2\n");
        run("csv", "new/out.csv", "a,b\n3,4\n");
        assertThat(folder.resolve("new/out.csv")).hasContent("a,b\n1,2\n3,4\n");
        run("jsonl", "out.jsonl.gz", "a,b\n1,2\n");
        run("jsonl", "out.jsonl.gz", "a,b\n3,4\n");
        String back = "morphema 1 source s: jsonl target o: json(indent = 0) = [s.a]";
        Morphema.standard()
                .load("back.morphema", back, folder)
                .run(Inputs.file("s", folder.resolve("out.jsonl.gz")), Outputs.file("o", folder.resolve("back.json")));
        assertThat(folder.resolve("back.json")).hasContent("[\"1\",\"3\"]\n");
    }

    @Test
    @DisplayName("other columns, and formats without rows, are refused and nothing is changed")
    void refusals() throws IOException {
        Path file = Files.writeString(folder.resolve("out.csv"), "a,c\n1,2\n");
        Problem columns = refused("csv", "out.csv", "a,b\n1,2\n");
        assertThat(columns.message()).isEqualTo("The file has other columns than the target: a, c.");
        assertThat(columns.value()).isEqualTo("a, b");
        assertThat(refused("json", "out.csv", "a,b\n1,2\n").message())
                .isEqualTo("Documents in json cannot be appended to.");
        assertThat(file).hasContent("a,c\n1,2\n");
        try (Stream<Path> left = Files.list(folder)) {
            assertThat(left).hasSize(1);
        }
    }

    @Test
    @DisplayName("a run that fails changes nothing")
    void failingRuns() throws IOException {
        Path file = Files.writeString(folder.resolve("out.csv"), "a,b\n1,2\n");
        assertThat(refused("csv", "out.csv", "a,b\n3,4\n\"5,6\n").isError()).isTrue();
        assertThat(file).hasContent("a,b\n1,2\n");
    }

    @ParameterizedTest
    @DisplayName("two runs at once do not lose what one of them has written")
    @CsvSource({
        "true, Another run appends to this file just now.",
        "false, Another run has made this file meanwhile; nothing is appended."
    })
    void atOnce(boolean exists, String message) throws IOException {
        Path file = folder.resolve("out.jsonl");
        if (exists) {
            Files.writeString(file, "");
        }
        List<String> told = new ArrayList<>();
        Morphema within = Morphema.builder()
                .function("twice(x: text): text", arguments -> {
                    told.addAll(attempt(Morphema.standard()));
                    return arguments.get(0);
                })
                .build();
        String mapping = "morphema 1\nsource s: csv\ntarget o: jsonl { for r in s { a = twice(r.a) } }";
        try {
            within.load("test.morphema", mapping, folder)
                    .run(Inputs.text("s", "a\nouter\n"), Outputs.NONE.andAppended("o", file));
        } catch (ProblemException e) {
            told.add(e.problem().message());
        }
        assertThat(told).containsExactly(message);
        assertThat(Files.readString(file)).isEqualTo(exists ? "{\"a\":\"outer\"}\n" : "{\"a\":\"1\",\"b\":\"2\"}\n");
    }

    private List<String> attempt(Morphema morphema) {
        try {
            run(morphema, "jsonl", "out.jsonl", "a,b\n1,2\n");
            return List.of();
        } catch (ProblemException e) {
            return List.of(e.problem().message());
        }
    }
}
