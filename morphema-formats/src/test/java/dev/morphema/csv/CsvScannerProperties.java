package dev.morphema.csv;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.formats.Pieces;
import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The scanner of bytes reads what the library reads, and refuses what the library refuses. */
class CsvScannerProperties {
    private static final Options SCANNED = new Options(Map.of("delimiter", ";"));
    /** No lines are left out, but to be able to do so the library reads the document. */
    private static final Options BY_LIBRARY = SCANNED.with("skip", 1);

    @Provide
    Gen<String> documents() {
        return Gens.of(
                        "a",
                        "b1",
                        "a longer text",
                        "\0",
                        "'&",
                        ";",
                        ";",
                        "\n",
                        "\n",
                        "\r\n",
                        "\r",
                        "\"",
                        "\"",
                        "\"\"",
                        " ",
                        "ü",
                        "€😀",
                        ",")
                .list()
                .ofMaxSize(40)
                .map(pieces -> "a;b;c\n" + String.join("", pieces));
    }

    /** Rows in which the same cells come again, with and without quotes. */
    @Provide
    Gen<String> rowsAgain() {
        Gen<String> cells = Gens.of(
                "a",
                "\"a\"",
                "a;b",
                "\"a;b\"",
                "\"\"\"a\"",
                "\"a\nb\"",
                "",
                "\"\"",
                "a much longer text",
                "süß",
                "\"süß\"");
        Gen<String> rows = cells.list().ofMinSize(1).ofMaxSize(3).map(row -> String.join(";", row));
        return rows.list().ofMaxSize(8).map(all -> "a;b;c\n" + String.join("\n", all));
    }

    @Property(tries = 1_500)
    void whatComesAgainIsReadTheSame(@ForAll("rowsAgain") String document) throws IOException {
        bothReadTheSame(document);
    }

    /** How records are had: kept, or as they pass. */
    private interface Next {
        @Nullable
        Value of(RecordReader reader) throws IOException;
    }

    /** Has records for good, and goes on before they are looked at. */
    private static final class Detached implements Next {
        private @Nullable Value ahead;
        private boolean begun;

        @Override
        public @Nullable Value of(RecordReader reader) throws IOException {
            Value record = begun ? ahead : detached(reader.next());
            begun = true;
            ahead = record == null ? null : detached(reader.next());
            return record;
        }

        private static @Nullable Value detached(@Nullable Value record) {
            return record == null ? null : RecordValue.detached(record);
        }
    }

    /** Has plain fields from their bytes, and compares these with their values. */
    private static final class Bytes implements Next {
        @Override
        public @Nullable Value of(RecordReader reader) throws IOException {
            RecordValue record = (RecordValue) reader.next();
            for (int slot = 0; record != null && slot < record.layout().size(); slot++) {
                FieldBytes fields = record.fieldBytes();
                if (fields != null && record.isPlain(slot)) {
                    int from = fields.from(slot);
                    String field = new String(fields.array(), from, fields.to(slot) - from, StandardCharsets.US_ASCII);
                    assertThat(field).isEqualTo(record.get(slot).toString());
                }
            }
            return record;
        }
    }

    private static String read(
            byte[] document, Options options, Projection projection, int skipped, int most, Next next)
            throws IOException {
        StringBuilder out = new StringBuilder();
        try (RecordReader reader = new CsvSource().open(new Pieces(document, false, most), projection, options)) {
            for (Value record = next.of(reader); record != null; record = next.of(reader)) {
                RecordValue row = (RecordValue) record;
                out.append(row.origin().record())
                        .append('@')
                        .append(row.origin().line() - skipped);
                for (int i = 0; i < row.layout().size(); i++) {
                    out.append('|').append(row.layout().name(i)).append('=').append(row.get(i));
                }
                out.append('\n');
            }
        } catch (ProblemException e) {
            out.append(e.problem().code())
                    .append(' ')
                    .append(e.problem().input().line() - skipped);
        }
        return out.toString();
    }

    @Property(tries = 2_500)
    void bothReadTheSame(@ForAll("documents") String document) throws IOException {
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        byte[] withLine = ("skipped\n" + document).getBytes(StandardCharsets.UTF_8);
        Projection some = new Projection(false, Map.of(FieldName.of("b"), Projection.everything()), null, Map.of());
        Projection two = new Projection(
                false,
                Map.of(FieldName.of("a"), Projection.everything(), FieldName.of("c"), Projection.everything()),
                null,
                Map.of());
        Projection passing = new Projection(
                false, Map.of(FieldName.of("b"), Projection.everything().passing()), null, Map.of());
        for (Projection projection : new Projection[] {Projection.everything(), some, two, passing}) {
            String byLibrary = read(withLine, BY_LIBRARY, projection, 1, withLine.length, RecordReader::next);
            for (int most : Pieces.SIZES) {
                assertThat(read(bytes, SCANNED, projection, 0, most, RecordReader::next))
                        .isEqualTo(byLibrary);
                assertThat(read(bytes, SCANNED, projection.asBytes(), 0, most, new Bytes()))
                        .isEqualTo(byLibrary);
                if (!byLibrary.contains("BAD")) {
                    // Read ahead, a fault is told before the record in front of it.
                    assertThat(read(bytes, SCANNED, projection.asBytes(), 0, most, new Detached()))
                            .isEqualTo(byLibrary);
                }
            }
        }
    }
}
