package dev.morphema.xlsx;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Several targets are sheets of one workbook. */
class SharedWorkbookTest {
    private static final Morphema MORPHEMA = Morphema.builder()
            .installedFormats(XlsxSource.class.getClassLoader())
            .build();
    private static final String ROWS = "ship,kg,day\nA,1.5,2026-03-04\nB,2,\nA,3,2026-03-05\n";

    @TempDir
    private Path folder;

    private Mapping mapping(String targets) {
        return MORPHEMA.load(
                "test.morphema", "morphema 1\nsource rows: csv { kg: number  day: date }\n" + targets, folder);
    }

    private String sheet(Path book, String sheet) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        MORPHEMA.load(
                        "read.morphema",
                        "morphema 1\nsource s: xlsx(sheet = \"" + sheet
                                + "\")\ntarget o: json(indent = 0) { for x in s { copy x } }",
                        folder)
                .run(Inputs.file("s", book), Outputs.stream("o", out));
        return out.toString(StandardCharsets.UTF_8).strip();
    }

    @Test
    @DisplayName("each target is a sheet of its name, and a run again writes the same")
    void sheets() throws IOException {
        Mapping mapping = mapping("""
                target Rows: xlsx { for r in rows { ship = r.ship  kg = r.kg  day = r.day } }
                target Totals: xlsx { for r in rows group by ship = r.ship as all { ship = ship  kg = sum(all.kg) } }
                target None: xlsx { for r in rows where r.kg > 9 { ship = r.ship } }
                """);
        Path book = folder.resolve("book.xlsx");
        Outputs outputs = Outputs.NONE.andShared(List.of("Totals", "Rows", "None"), book);
        mapping.run(Inputs.text("rows", ROWS), outputs);
        assertThat(sheet(book, "Rows"))
                .isEqualTo(
                        "[{\"ship\":\"A\",\"kg\":1.5,\"day\":\"2026-03-04\"},{\"ship\":\"B\",\"kg\":2},{\"ship\":\"A\",\"kg\":3,\"day\":\"2026-03-05\"}]");
        assertThat(sheet(book, "Totals")).isEqualTo("[{\"ship\":\"A\",\"kg\":4.5},{\"ship\":\"B\",\"kg\":2}]");
        assertThat(sheet(book, "None")).isEqualTo("[]");
        byte[] first = Files.readAllBytes(book);
        mapping.run(Inputs.text("rows", ROWS), outputs);
        assertThat(book).hasBinaryContent(first);
    }

    private static long temporaryFiles() throws IOException {
        try (Stream<Path> files = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return files.filter(file -> file.getFileName().toString().matches("morphema-.*\\.xlsx"))
                    .count();
        }
    }

    @Test
    @DisplayName("other formats share no file, and a run that fails leaves nothing")
    void refusals() throws IOException {
        Path place = folder.resolve("out");
        assertThatThrownBy(() -> mapping("target a: json = 1\ntarget b: json = 2")
                        .run(Inputs.text("rows", ROWS), Outputs.NONE.andShared(List.of("a", "b"), place)))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("Documents in json do not share a file.");
        long before = temporaryFiles();
        assertThatThrownBy(() ->
                        mapping("""
                                target a: xlsx { for r in rows { ship = r.ship } }
                                target b: xlsx { for r in rows { ship = fail("no") } }
                                """).run(Inputs.text("rows", ROWS), Outputs.NONE.andShared(List.of("a", "b"), place)))
                .isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> mapping("target a: xlsx { for r in rows { ship = fail(\"no\") } }")
                        .run(Inputs.text("rows", ROWS), Outputs.file("a", place)))
                .isInstanceOf(ProblemException.class);
        assertThat(temporaryFiles()).isEqualTo(before);
        try (Stream<Path> left = Files.list(folder)) {
            assertThat(left).isEmpty();
        }
    }
}
