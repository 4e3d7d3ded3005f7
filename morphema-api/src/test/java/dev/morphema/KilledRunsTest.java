package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A program that runs one mapping after the other is killed at any moment. {@code -Dkills=200}
 * kills it more often than the usual run.
 */
class KilledRunsTest {
    private static final int KILLS = Integer.getInteger("kills", 24);
    private static final int DOCUMENTS = 40;
    private static final int MOST_MICROS = 60_000;

    @TempDir
    private Path folder;

    @Test
    @DisplayName("after a kill and one more run all files are of the same run, and nothing is left")
    void kills() throws IOException, InterruptedException {
        Random random = new Random(20);
        int inCommit = 0;
        for (int i = 0; i < KILLS; i++) {
            Process program = started();
            waitFor(program);
            // Every second time within a commit: its journal is there.
            while (i % 2 == 0 && journals() == 0) {
                Thread.onSpinWait();
            }
            if (i % 2 == 1) {
                LockSupport.parkNanos(random.nextInt(MOST_MICROS) * 1_000L);
            }
            program.destroyForcibly().waitFor();
            inCommit += journals();
            next();
            Map<String, String> all = OutputFolder.contents(folder);
            assertThat(all).as("kill %s", i).hasSize(DOCUMENTS + 1);
            String run = all.get("all.csv").split("\n")[1];
            assertThat(all.values()).as("kill %s", i).allMatch(text -> text.contains(run));
        }
        assertThat(inCommit).isPositive();
    }

    private Process started() throws IOException {
        return new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-XX:+UseSerialGC",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Endless.class.getName(),
                        folder.toString(),
                        String.valueOf(DOCUMENTS)))
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
    }

    /** Waits until the first of its runs is complete. */
    private static void waitFor(Process program) throws IOException {
        assertThat(program.getInputStream().read()).isEqualTo('!');
    }

    private int journals() throws IOException {
        int found = 0;
        try (DirectoryStream<Path> staged = Files.newDirectoryStream(folder, "*.morphema-part")) {
            for (Path path : staged) {
                found += Files.exists(path.resolve("journal")) ? 1 : 0;
            }
        } catch (NoSuchFileException e) {
            return 0;
        }
        return found;
    }

    private void next() throws IOException {
        Path next = folder.resolve("next.json");
        Language.load("target o: json { next = true }").run(Inputs.NONE, Outputs.file("o", next));
        Files.delete(next);
    }

    /**
     * The program that is killed: all its runs write the same files, with the number of the run in
     * each.
     */
    static final class Endless {
        private static final long MOST_MILLIS = 60_000;

        private Endless() {}

        public static void main(String[] args) {
            Mapping mapping = Language.load("""
                    source s: jsonl
                    target all: csv { for x in s { run = x.run } }
                    target docs: json for x in s into "{x.id}.json" { run = x.run }
                    """);
            Path folder = Path.of(args[0]);
            long start = System.currentTimeMillis();
            // Not for ever, if those who would kill it are gone.
            for (int run = 0; System.currentTimeMillis() - start < MOST_MILLIS; run++) {
                StringBuilder input = new StringBuilder();
                for (int i = 0; i < Integer.parseInt(args[1]); i++) {
                    input.append("{\"id\": ")
                            .append(i)
                            .append(", \"run\": \"run ")
                            .append(start)
                            .append('-')
                            .append(run)
                            .append("\"}\n");
                }
                mapping.run(
                        Inputs.text("s", input.toString()),
                        Outputs.file("all", folder.resolve("all.csv")).andFolder("docs", folder));
                if (run == 0) {
                    System.out.print('!');
                    System.out.flush();
                }
            }
        }
    }
}
