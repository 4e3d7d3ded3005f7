package dev.morphema.formats;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.csv.CsvTarget;
import dev.morphema.format.Options;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.json.JsonTarget;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.FieldName;
import dev.morphema.value.TextValue;
import dev.morphema.xml.XmlTarget;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;

/** What a writer takes back, whole or in the middle, leaves no trace in the document. */
class TakenBackProperties {
    private static final FieldName A = FieldName.of("a");
    private static final FieldName B = FieldName.of("b");
    private static final FieldName ROW = FieldName.of("row");

    /**
     * A record that is written, and perhaps taken back.
     *
     * @param events how many of its events are written if it is taken back; all if it is not
     */
    private record Unit(String a, String b, boolean takenBack, int events) {}

    @Provide
    Gen<List<Unit>> units() {
        Gen<String> texts = Gens.of("", "x", "a \"b\", <c>", "søndre\nmolo", "long ".repeat(60), "longer ".repeat(700));
        return Gens.combine(texts, texts, Gens.of(true, false), Gens.integers().between(1, 5))
                .as(Unit::new)
                .list()
                .ofMaxSize(12);
    }

    private static void write(Unit unit, DocumentWriter out, boolean attributes) {
        List<Runnable> events = List.of(
                out::beginRecord,
                () -> {
                    if (attributes) {
                        out.attribute(new FieldName(null, "a", true), TextValue.of(unit.a()));
                    } else {
                        out.field(A, TextValue.of(unit.a()));
                    }
                },
                () -> out.field(B),
                () -> out.value(TextValue.of(unit.b())),
                out::endRecord);
        events.subList(0, unit.takenBack() ? unit.events() : events.size()).forEach(Runnable::run);
    }

    private static String written(TargetFormat format, Options options, boolean element, List<Unit> units)
            throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        DocumentWriter writer = format.open(out, new TargetFormat.Document(options, List.of("a", "b"), Map.of()));
        if (element) {
            writer.beginRecord();
            writer.field(FieldName.of("rows"));
            writer.beginRecord();
            writer.field(ROW);
        }
        writer.beginList();
        for (Unit unit : units) {
            boolean marked = writer.mark();
            assertThat(marked).isTrue();
            write(unit, writer, element);
            if (unit.takenBack()) {
                writer.rewind();
            }
        }
        writer.endList();
        if (element) {
            writer.endRecord();
            writer.endRecord();
        }
        writer.finish();
        return out.toString(StandardCharsets.UTF_8);
    }

    @Property(tries = 1_000)
    void leavesNoTrace(@ForAll @From("units") List<Unit> units, @ForAll boolean indented) throws IOException {
        List<Unit> kept = units.stream().filter(unit -> !unit.takenBack()).toList();
        Options indent = Options.NONE.with("indent", indented ? 2 : 0);
        for (TargetFormat format : List.of(JsonTarget.document(), JsonTarget.lines(), new CsvTarget())) {
            assertThat(written(format, indent, false, units)).isEqualTo(written(format, indent, false, kept));
        }
        assertThat(written(new XmlTarget(), indent, true, units))
                .isEqualTo(written(new XmlTarget(), indent, true, kept));
    }
}
