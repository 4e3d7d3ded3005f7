package dev.morphema.benchmarks.plain;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.BufferedReader;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;

/** JSON Lines to CSV as most would write it: a tree for each line, and decimals. */
public final class S2 {
    private static final Map<String, String> KINDS =
            Map.of("BX", "box", "DR", "drum", "PL", "pallet", "BG", "bag", "CT", "carton", "RL", "roll");

    private S2() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (BufferedReader lines = Files.newBufferedReader(folder.resolve("cargo.jsonl"));
                CsvWriter csv =
                        CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(file)) {
            csv.writeRecord("bill", "imo", "kind", "tonnes", "dues");
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                Map<?, ?> row = (Map<?, ?>) Trees.parse(line);
                BigDecimal kg = (BigDecimal) row.get("kg");
                BigDecimal rate = (BigDecimal) row.get("rate");
                csv.writeRecord(
                        (String) row.get("bill"),
                        (String) ((Map<?, ?>) row.get("ship")).get("imo"),
                        KINDS.get((String) row.get("kind")),
                        kg.divide(BigDecimal.valueOf(1000))
                                .setScale(3, RoundingMode.HALF_UP)
                                .toPlainString(),
                        kg.multiply(rate)
                                .divide(BigDecimal.valueOf(100))
                                .setScale(2, RoundingMode.HALF_UP)
                                .toPlainString());
            }
        }
    }
}
