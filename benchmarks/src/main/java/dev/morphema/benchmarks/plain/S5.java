package dev.morphema.benchmarks.plain;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Path;

/**
 * A choice in a decimal as most would write it: a decimal for each number that is calculated with.
 */
public final class S5 {
    private static final BigDecimal THOUSAND = BigDecimal.valueOf(1000);

    private S5() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (CsvReader<NamedCsvRecord> rows = CsvReader.builder().ofNamedCsvRecord(folder.resolve("unsorted.csv"));
                CsvWriter out =
                        CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(file)) {
            out.writeRecord("bill", "weight", "kind");
            for (NamedCsvRecord row : rows) {
                String kg = row.getField("kg");
                String kind = row.getField("kind");
                out.writeRecord(row.getField("bill"), kind.equals("BX") ? thousands(kg) : kg, kind);
            }
        }
    }

    private static String thousands(String kg) {
        BigDecimal value = new BigDecimal(kg).divide(THOUSAND).stripTrailingZeros();
        return (value.scale() < 0 ? value.setScale(0) : value).toPlainString();
    }
}
