package dev.morphema.benchmarks.plain;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;

/** A join as most would write it: one side in a map of objects. */
public final class J1 {
    private record Bill(String shipper, String consignee) {}

    private J1() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        Map<String, Bill> bills = new HashMap<>();
        try (CsvReader<NamedCsvRecord> rows = CsvReader.builder().ofNamedCsvRecord(folder.resolve("bills.csv"))) {
            for (NamedCsvRecord row : rows) {
                bills.put(row.getField("bill"), new Bill(row.getField("shipper"), row.getField("consignee")));
            }
        }
        try (CsvReader<NamedCsvRecord> rows = CsvReader.builder().ofNamedCsvRecord(folder.resolve("unsorted.csv"));
                CsvWriter csv =
                        CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(file)) {
            csv.writeRecord("bill", "kg", "shipper", "consignee");
            for (NamedCsvRecord row : rows) {
                Bill bill = bills.get(row.getField("bill"));
                csv.writeRecord(
                        row.getField("bill"),
                        row.getField("kg"),
                        bill == null ? "" : bill.shipper(),
                        bill == null ? "" : bill.consignee());
            }
        }
    }
}
