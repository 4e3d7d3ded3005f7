package dev.morphema.csv;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.formats.ByteSink;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Rows written straight into bytes are, byte by byte, those that the library writes. */
class CsvRowsProperties {
    @Provide
    Gen<List<List<Value>>> rows() {
        Gen<Value> texts = Gens.strings()
                .withChars("ab,;\"'#\r\n \t\u00FC\u20AC1.")
                .ofMaxLength(6)
                .map(TextValue::of);
        Gen<Value> numbers = Gens.bigDecimals().map(NumberValue::of);
        return Gens.oneOf(texts, numbers, Gens.of(Missing.ABSENT, Missing.NULL))
                .list()
                .ofSize(3)
                .list()
                .ofMaxSize(4);
    }

    @Property(tries = 2_000)
    void bothWriteTheSame(@ForAll("rows") List<List<Value>> rows, @ForAll boolean crlf, @ForAll boolean semicolon)
            throws IOException {
        char delimiter = semicolon ? ';' : ',';
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ByteArrayOutputStream library = new ByteArrayOutputStream();
        CsvRows ours = new ByteRows(bytes, delimiter, '"', ByteSink.bytes(crlf ? "\r\n" : "\n"));
        CsvRows theirs = new LibraryRows(library, StandardCharsets.UTF_8, delimiter, '"', crlf);
        for (List<Value> row : rows) {
            ours.write(row.toArray(Value[]::new));
            theirs.write(row.toArray(Value[]::new));
        }
        ours.flush();
        theirs.flush();
        assertThat(bytes.toString(StandardCharsets.UTF_8)).isEqualTo(library.toString(StandardCharsets.UTF_8));
    }

    @Property
    void numbersPrintAsTheirText(@ForAll BigDecimal number) {
        NumberValue value = NumberValue.of(number);
        byte[] buffer = new byte[64];
        int end = value.printed(buffer, 0);
        if (end >= 0) {
            assertThat(new String(buffer, 0, end, StandardCharsets.US_ASCII)).isEqualTo(value.toString());
        }
    }
}
