package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.files.Faults;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * Outputs are whole or not there at all, whichever operation of the file system fails or is the
 * last one.
 */
class CommitFaultsTest {
    private static final Mapping MAPPING = Language.load("""
            source s: csv { weight: number }
            target one: csv { for x in s { id = x.id weight = x.weight } }
            target two: json { ids = [s.id] }
            target docs: json for x in s into "{x.id}.json" { weight = x.weight }
            """);

    private static final Mapping NEXT = Language.load("target o: json { next = true }");

    private static final Inputs INPUTS = Inputs.text("s", "id,weight\na,1\nsub/b,2\nc,3\n");

    @TempDir
    private Path temporary;

    /**
     * What a run writes below a folder, and where to: what is left in one of these shows in the
     * next run into it.
     */
    enum Outcome {
        FILE(folder -> Outputs.file("one", folder.resolve("one.csv")), ""),
        NEW_FILE(folder -> Outputs.file("one", folder.resolve("new/deep/one.csv")), "new/deep"),
        TWO_FILES(
                folder -> Outputs.file("one", folder.resolve("one.csv")).andFile("two", folder.resolve("two.json.gz")),
                ""),
        TWO_FOLDERS(
                folder -> Outputs.file("one", folder.resolve("one.csv")).andFile("two", folder.resolve("old/two.json")),
                "",
                "old"),
        TWO_FOLDERS_THE_OTHER_FIRST(
                folder -> Outputs.file("one", folder.resolve("one.csv")).andFile("two", folder.resolve("old/two.json")),
                "old",
                ""),
        DOCUMENTS(folder -> Outputs.folder("docs", folder.resolve("old")), "old"),
        NEW_DOCUMENTS(folder -> Outputs.folder("docs", folder.resolve("made")), ""),
        ALL(
                folder -> Outputs.file("one", folder.resolve("one.csv"))
                        .andFile("two", folder.resolve("old/two.json"))
                        .andFolder("docs", folder.resolve("old")),
                "old",
                "");

        private final Function<Path, Outputs> outputs;
        private final List<String> places;

        Outcome(Function<Path, Outputs> outputs, String... places) {
            this.outputs = outputs;
            this.places = List.of(places);
        }
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("after any one operation that fails, all is old or all is new, and a failure says which")
    void oneFault(Outcome outcome) throws IOException {
        Faults faults = new Faults();
        Map<String, String> old = contents(prepared("old"));
        Map<String, String> made = made(outcome);
        for (int i = 1; ; i++) {
            Path folder = prepared("fault-" + i);
            faults.failAt(i);
            Throwable thrown = catchThrowable(() -> MAPPING.run(INPUTS, outcome.outputs.apply(faults.path(folder))));
            boolean happened = faults.haveHappened();
            String operation =
                    i + ": " + faults.operations().get(faults.operations().size() - 1);
            faults.end();
            if (!happened) {
                break;
            }
            if (thrown == null) {
                assertThat(visible(folder)).as(operation).isEqualTo(made);
            } else {
                assertThat(thrown).as(operation).isInstanceOf(ProblemException.class);
                boolean isThere = thrown.getMessage().contains("perhaps not on the disk");
                assertThat(visible(folder)).as(operation).isEqualTo(isThere ? made : old);
            }
            for (String place : outcome.places) {
                runNext(faults.path(folder.resolve(place)));
            }
            assertThat(contents(folder)).as(operation).isIn(old, made);
        }
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("after a kill at any operation and one more run, all is old or all is new, and nothing is left")
    void kill(Outcome outcome) throws IOException {
        Faults faults = new Faults();
        Map<String, String> old = contents(prepared("old"));
        Map<String, String> made = made(outcome);
        boolean finished = false;
        for (int i = 1; ; i++) {
            Path folder = prepared("kill-" + i);
            faults.failFrom(i);
            catchThrowable(() -> MAPPING.run(INPUTS, outcome.outputs.apply(faults.path(folder))));
            boolean happened = faults.haveHappened();
            faults.end();
            if (!happened) {
                break;
            }
            for (String place : outcome.places) {
                runNext(faults.path(folder.resolve(place)));
                assertThat(visible(folder)).as("operation %s", i).isIn(old, made);
            }
            assertThat(contents(folder)).as("operation %s", i).isIn(old, made);
            finished |= contents(folder).equals(made);
        }
        assertThat(finished).isTrue();
    }

    private Map<String, String> made(Outcome outcome) throws IOException {
        Path folder = prepared("made");
        MAPPING.run(INPUTS, outcome.outputs.apply(folder));
        assertThat(contents(folder)).isEqualTo(visible(folder));
        return visible(folder);
    }

    private static void runNext(Path folder) throws IOException {
        Path next = folder.resolve("next.json");
        NEXT.run(Inputs.NONE, Outputs.file("o", next));
        Files.delete(next);
    }

    private Path prepared(String name) throws IOException {
        Path folder = Files.createDirectories(temporary.resolve(name));
        Files.createDirectories(folder.resolve("old"));
        Files.writeString(folder.resolve("one.csv"), "old one");
        Files.writeString(folder.resolve("old/two.json"), "old two");
        Files.writeString(folder.resolve("old/a.json"), "old a");
        Files.writeString(folder.resolve("old/other.json"), "other");
        return folder;
    }

    private static Map<String, String> contents(Path folder) throws IOException {
        return OutputFolder.contents(folder);
    }

    private static Map<String, String> visible(Path folder) throws IOException {
        Map<String, String> visible = contents(folder);
        visible.keySet().removeIf(name -> name.contains(".morphema-part"));
        return visible;
    }
}
