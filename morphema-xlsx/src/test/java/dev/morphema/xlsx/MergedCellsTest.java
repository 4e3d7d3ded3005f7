package dev.morphema.xlsx;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.Inputs;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Cells that are one in sight have one value, or each the same. */
class MergedCellsTest {
    private static byte[] book() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (Workbook book = new Workbook(bytes, "test", null)) {
            book.newWorksheet("Other").value(0, 0, "nothing");
            Worksheet sheet = book.newWorksheet("Calls & more");
            String[][] rows = {
                {"ship", "berth", "moves"}, {"Sula", "B1", "1"}, {null, "B2", "2"}, {"Havgap", "none", null}
            };
            for (int row = 0; row < rows.length; row++) {
                for (int column = 0; column < rows[row].length; column++) {
                    if (rows[row][column] != null) {
                        sheet.value(row, column, rows[row][column]);
                    }
                }
            }
            sheet.range(1, 0, 2, 0).merge();
            sheet.range(3, 1, 3, 2).merge();
        }
        return bytes.toByteArray();
    }

    @ParameterizedTest(name = "merged = {0}")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "first ~ [{\"s\":\"Sula\",\"b\":\"B1\",\"m\":\"1\"},{\"b\":\"B2\",\"m\":\"2\"},{\"s\":\"Havgap\",\"b\":\"none\"}]",
                "repeat ~ [{\"s\":\"Sula\",\"b\":\"B1\",\"m\":\"1\"},{\"s\":\"Sula\",\"b\":\"B2\",\"m\":\"2\"},{\"s\":\"Havgap\",\"b\":\"none\",\"m\":\"none\"}]"
            })
    void merged(String option, String expected) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Morphema.builder()
                .installedFormats(XlsxSource.class.getClassLoader())
                .build()
                .load(
                        "test.morphema",
                        "morphema 1\nsource s: xlsx(sheet = \"Calls & more\", merged = " + option
                                + ")\ntarget o: json(indent = 0) { for x in s { s = x.ship  b = x.berth  m = x.moves } }",
                        Path.of("."))
                .run(Inputs.bytes("s", book()), Outputs.stream("o", out));
        assertThat(out.toString(StandardCharsets.UTF_8).strip()).isEqualTo(expected);
    }
}
