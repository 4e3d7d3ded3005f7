package dev.morphema.examples;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Every example runs and prints what it promises. */
class ExamplesTest {
    @TempDir
    private Path folder;

    private static String printed(Runnable program) {
        PrintStream before = System.out;
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            System.setOut(new PrintStream(bytes, true, StandardCharsets.UTF_8));
            program.run();
        } finally {
            System.setOut(before);
        }
        return bytes.toString(StandardCharsets.UTF_8).replace(System.lineSeparator(), "\n");
    }

    @Test
    @DisplayName("a manifest becomes a notice")
    void convertManifest() {
        Path notice = folder.resolve("notice.xml");
        String[] args = {"../demo/arrival.morphema", "../demo/samples/manifest.csv", notice.toString()};
        assertThat(printed(() -> ConvertManifest.main(args))).isEqualTo("10 rows became 3 calls\n");
        assertThat(notice).hasSameTextualContentAs(Path.of("../demo/expected/notice.xml"));
    }

    @Test
    @DisplayName("a message becomes a message")
    void answerMessages() {
        assertThat(printed(() -> AnswerMessages.main(new String[0])))
                .isEqualTo("{\"ship\":\"NORDLYS\",\"berths\":[\"B2\"],\"hours\":7.5}\n");
    }
}
