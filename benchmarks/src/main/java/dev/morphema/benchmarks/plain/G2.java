package dev.morphema.benchmarks.plain;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;

/** Groups in any order as most would write them: a map of totals, in decimals. */
public final class G2 {
    private static final class Totals {
        private long lines;
        private BigDecimal kg = BigDecimal.ZERO;
        private BigDecimal most;
    }

    private G2() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        Map<String, Totals> groups = new LinkedHashMap<>();
        try (CsvReader<NamedCsvRecord> rows = CsvReader.builder().ofNamedCsvRecord(folder.resolve("unsorted.csv"))) {
            for (NamedCsvRecord row : rows) {
                Totals totals = groups.computeIfAbsent(row.getField("bill"), bill -> new Totals());
                BigDecimal kg = new BigDecimal(row.getField("kg"));
                totals.lines++;
                totals.kg = totals.kg.add(kg);
                totals.most = totals.most == null ? kg : totals.most.max(kg);
            }
        }
        try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(file)) {
            csv.writeRecord("bill", "lines", "kg", "most");
            groups.forEach((bill, totals) -> csv.writeRecord(
                    bill, Long.toString(totals.lines), totals.kg.toPlainString(), totals.most.toPlainString()));
        }
    }
}
