package dev.morphema.benchmarks.plain;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonGenerator;

/** Members of groups in any order as most would write it: a map of lists of maps. */
public final class G5 {
    private static final BigDecimal RATE = new BigDecimal("0.25");

    private G5() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        Map<String, List<Map<String, Object>>> bills = new LinkedHashMap<>();
        try (CsvReader<NamedCsvRecord> rows = CsvReader.builder().ofNamedCsvRecord(folder.resolve("unsorted.csv"))) {
            for (NamedCsvRecord row : rows) {
                BigDecimal kg = new BigDecimal(row.getField("kg"));
                Map<String, Object> line = new LinkedHashMap<>();
                line.put("kind", row.getField("kind"));
                line.put("kg", kg);
                line.put("fee", kg.multiply(RATE));
                bills.computeIfAbsent(row.getField("bill"), bill -> new ArrayList<>())
                        .add(line);
            }
        }
        try (OutputStream out = Files.newOutputStream(file);
                JsonGenerator json = Json.lines(out)) {
            bills.forEach((bill, lines) -> {
                Map<String, Object> object = new LinkedHashMap<>();
                object.put("bill", bill);
                object.put("lines", lines);
                object.put("fee", G4.sum(lines));
                Json.writeObject(object, json);
            });
            json.writeRaw('\n');
        }
    }
}
