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

/**
 * Neighbours written out as most would write it: the rows of a ship as maps, written when the next
 * ship begins.
 */
public final class G4 {
    private static final BigDecimal RATE = new BigDecimal("0.25");

    private G4() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (CsvReader<NamedCsvRecord> rows = CsvReader.builder().ofNamedCsvRecord(folder.resolve("sorted.csv"));
                OutputStream out = Files.newOutputStream(file);
                JsonGenerator json = Json.lines(out)) {
            List<Map<String, Object>> lines = new ArrayList<>();
            String imo = null;
            for (NamedCsvRecord row : rows) {
                if (imo != null && !imo.equals(row.getField("imo"))) {
                    write(imo, lines, json);
                    lines.clear();
                }
                imo = row.getField("imo");
                BigDecimal kg = new BigDecimal(row.getField("kg"));
                Map<String, Object> line = new LinkedHashMap<>();
                line.put("bill", row.getField("bill"));
                line.put("kg", kg);
                line.put("fee", kg.multiply(RATE));
                lines.add(line);
            }
            if (imo != null) {
                write(imo, lines, json);
                json.writeRaw('\n');
            }
        }
    }

    private static void write(String imo, List<Map<String, Object>> lines, JsonGenerator json) {
        Map<String, Object> ship = new LinkedHashMap<>();
        ship.put("imo", imo);
        ship.put("lines", lines);
        ship.put("fee", sum(lines));
        Json.writeObject(ship, json);
    }

    static BigDecimal sum(List<Map<String, Object>> lines) {
        return lines.stream().map(line -> (BigDecimal) line.get("fee")).reduce(BigDecimal.ZERO, BigDecimal::add);
    }
}
