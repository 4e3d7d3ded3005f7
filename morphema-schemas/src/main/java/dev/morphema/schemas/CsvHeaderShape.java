package dev.morphema.schemas;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import dev.morphema.problem.InputLocation;
import dev.morphema.shape.ScalarType;
import dev.morphema.shape.SchemaReader;
import dev.morphema.shape.SchemaShape;
import dev.morphema.shape.SchemaShape.Field;
import dev.morphema.shape.SchemaShapeBuilder;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** The header of a CSV file as the schema of its columns. */
final class CsvHeaderShape {
    private static final String DELIMITERS = ",;\t|";

    private CsvHeaderShape() {}

    static SchemaShape read(SchemaPath path, SchemaReader.Files files) throws IOException {
        String header;
        try (BufferedReader lines =
                new BufferedReader(new InputStreamReader(files.open(path.file()).open(), StandardCharsets.UTF_8))) {
            String first = lines.readLine();
            header = first == null ? "" : first.startsWith("\uFEFF") ? first.substring(1) : first;
        }
        InputLocation place = InputLocation.at(path.file(), 1, 0);
        SchemaShapeBuilder rows =
                SchemaShape.builder().place(() -> place).record().textual();
        SchemaShape cell = SchemaShape.builder()
                .place(() -> place)
                .scalar(ScalarType.of(Kind.TEXT))
                .textual()
                .build();
        for (String column : columns(header)) {
            rows.field(new Field(FieldName.of(column), true, false, null, () -> cell));
        }
        return rows.build();
    }

    private static List<String> columns(String header) throws IOException {
        char delimiter = ',';
        long most = 0;
        for (char each : DELIMITERS.toCharArray()) {
            long count = header.chars().filter(c -> c == each).count();
            if (count > most) {
                delimiter = each;
                most = count;
            }
        }
        try (CsvReader<CsvRecord> reader =
                CsvReader.builder().fieldSeparator(delimiter).ofCsvRecord(header)) {
            return reader.stream().findFirst().map(CsvRecord::getFields).orElse(List.of());
        }
    }
}
