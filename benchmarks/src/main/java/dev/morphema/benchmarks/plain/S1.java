package dev.morphema.benchmarks.plain;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.Map;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.json.JsonFactory;

/** CSV to JSON as most would write it: an object for each record, one for each value. */
public final class S1 {
    private static final DateTimeFormatter IN = DateTimeFormatter.ofPattern("dd.MM.yyyy HH:mm");
    private static final DateTimeFormatter OUT = DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm:ss");

    private S1() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (CsvReader<NamedCsvRecord> rows =
                        CsvReader.builder().fieldSeparator(';').ofNamedCsvRecord(folder.resolve("gauges.csv"));
                OutputStream out = Files.newOutputStream(file);
                JsonGenerator json = new JsonFactory().createGenerator(ObjectWriteContext.empty(), out)) {
            json.writeStartArray();
            for (NamedCsvRecord row : rows) {
                Map<String, Object> record = new LinkedHashMap<>();
                record.put("gauge", row.getField("gauge"));
                record.put("time", OUT.format(LocalDateTime.parse(row.getField("time"), IN)));
                record.put("level", new BigDecimal(row.getField("level").replace(',', '.')));
                record.put("temperature", row.getField("temperature"));
                record.put("status", row.getField("status"));
                record.put("remark", row.getField("remark"));
                Json.writeObject(record, json);
            }
            json.writeEndArray();
            json.writeRaw('\n');
        }
    }
}
