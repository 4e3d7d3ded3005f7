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

/** {@code morphema format}, on files and on standard input. */
class FormatCommandTest {
    private static final String ODD = "morphema 1\ntarget o: json {\na=1 # one\n  long = 2\n}\n";
    private static final String GOOD = "morphema 1\ntarget o: json {\n  a    = 1  # one\n  long = 2\n}\n";

    @TempDir
    private Path folder;

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();

    private int run(String in, String... words) {
        out.reset();
        err.reset();
        return Main.run(words, new ByteArrayInputStream(in.getBytes(StandardCharsets.UTF_8)), out, err);
    }

    @Test
    @DisplayName("lays files out, and leaves those alone that are good or wrong")
    void files() throws IOException {
        Path odd = Files.writeString(folder.resolve("odd.morphema"), ODD);
        Path good = Files.writeString(folder.resolve("good.morphema"), GOOD);
        assertThat(run("", "format", "--check", folder + "/*.morphema")).isEqualTo(ExitCode.DATA);
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo(odd + "\n");
        assertThat(odd).hasContent(ODD);
        assertThat(run("", "format", odd.toString(), good.toString())).isZero();
        assertThat(err.toString(StandardCharsets.UTF_8)).isEqualTo("formatted " + odd + "\n");
        assertThat(odd).hasContent(GOOD);
        assertThat(run("", "format", "--check", odd.toString(), good.toString()))
                .isZero();
        Path wrong = Files.writeString(folder.resolve("wrong.morphema"), "morphema 1\ntarget o: json { a = \n");
        assertThat(run("", "format", wrong.toString())).isEqualTo(ExitCode.MAPPING);
        assertThat(wrong).hasContent("morphema 1\ntarget o: json { a = \n");
        assertThat(run("", "format", folder + "/none.morphema")).isEqualTo(ExitCode.FILE);
    }

    @Test
    @DisplayName("lays standard input out on standard output")
    void standardInput() {
        assertThat(run(ODD, "format", "-")).isZero();
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo(GOOD);
    }
}
