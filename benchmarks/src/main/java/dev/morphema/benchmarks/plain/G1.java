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
import java.util.function.Function;
import tools.jackson.core.JsonGenerator;

/**
 * Neighbours grouped three deep as most would write it: the rows of a day as objects, then lists of
 * them by key.
 */
public final class G1 {
    private record Row(String day, String imo, String bill, BigDecimal kg) {}

    private G1() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (CsvReader<NamedCsvRecord> rows = CsvReader.builder().ofNamedCsvRecord(folder.resolve("sorted.csv"));
                OutputStream out = Files.newOutputStream(file);
                JsonGenerator json = Json.lines(out)) {
            List<Row> day = new ArrayList<>();
            for (NamedCsvRecord cells : rows) {
                Row row = new Row(
                        cells.getField("day"),
                        cells.getField("imo"),
                        cells.getField("bill"),
                        new BigDecimal(cells.getField("kg")));
                if (!day.isEmpty() && !day.get(0).day().equals(row.day())) {
                    write(day, json);
                    day.clear();
                }
                day.add(row);
            }
            if (!day.isEmpty()) {
                write(day, json);
                json.writeRaw('\n');
            }
        }
    }

    private static void write(List<Row> rows, JsonGenerator json) {
        Map<String, Object> day = new LinkedHashMap<>();
        day.put("day", rows.get(0).day());
        day.put("ships", neighbours(rows, Row::imo).stream().map(G1::ship).toList());
        day.put("kg", sum(rows));
        Json.writeObject(day, json);
    }

    private static Map<String, Object> ship(List<Row> rows) {
        Map<String, Object> ship = new LinkedHashMap<>();
        ship.put("imo", rows.get(0).imo());
        ship.put("bills", neighbours(rows, Row::bill).stream().map(G1::bill).toList());
        ship.put("kg", sum(rows));
        return ship;
    }

    private static Map<String, Object> bill(List<Row> rows) {
        Map<String, Object> bill = new LinkedHashMap<>();
        bill.put("bill", rows.get(0).bill());
        bill.put("lines", (long) rows.size());
        bill.put("kg", sum(rows));
        return bill;
    }

    private static List<List<Row>> neighbours(List<Row> rows, Function<Row, String> key) {
        List<List<Row>> groups = new ArrayList<>();
        String last = null;
        for (Row row : rows) {
            if (!key.apply(row).equals(last)) {
                groups.add(new ArrayList<>());
                last = key.apply(row);
            }
            groups.get(groups.size() - 1).add(row);
        }
        return groups;
    }

    private static BigDecimal sum(List<Row> rows) {
        return rows.stream().map(Row::kg).reduce(BigDecimal.ZERO, BigDecimal::add);
    }
}
