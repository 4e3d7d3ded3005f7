package dev.morphema.benchmarks.plain;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonGenerator;

/** Counts in groups in groups as most would write them: maps in a map. */
public final class G3 {
    private G3() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        Map<String, Map<String, Long>> berths = new LinkedHashMap<>();
        try (CsvReader<NamedCsvRecord> rows = CsvReader.builder().ofNamedCsvRecord(folder.resolve("visits.csv"))) {
            for (NamedCsvRecord row : rows) {
                berths.computeIfAbsent(row.getField("berth"), berth -> new LinkedHashMap<>())
                        .merge(row.getField("day"), 1L, Long::sum);
            }
        }
        try (OutputStream out = Files.newOutputStream(file);
                JsonGenerator json = Json.lines(out)) {
            berths.forEach((berth, days) -> {
                Map<String, Object> record = new LinkedHashMap<>();
                record.put("berth", berth);
                record.put(
                        "visits",
                        days.values().stream().mapToLong(Long::longValue).sum());
                List<Map<String, Object>> list = days.entrySet().stream()
                        .map(day -> {
                            Map<String, Object> entry = new LinkedHashMap<>();
                            entry.put("day", day.getKey());
                            entry.put("visits", day.getValue());
                            return entry;
                        })
                        .toList();
                record.put("days", list);
                Json.writeObject(record, json);
            });
            json.writeRaw('\n');
        }
    }
}
