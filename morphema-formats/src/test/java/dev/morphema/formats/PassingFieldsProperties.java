package dev.morphema.formats;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.convert.TypeConverters;
import dev.morphema.csv.CsvSource;
import dev.morphema.csv.CsvTarget;
import dev.morphema.format.EventWriter;
import dev.morphema.format.FieldGroup;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.json.JsonSource;
import dev.morphema.json.JsonTarget;
import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import dev.morphema.xml.XmlSource;
import dev.morphema.xml.XmlTarget;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** What goes through as bytes is written as its values are, as fields and as attributes. */
class PassingFieldsProperties {
    private static final List<FieldName> NAMES =
            List.of("t", "n", "d", "i").stream().map(FieldName::of).toList();
    private static final List<FieldName> ATTRIBUTES =
            List.of("t", "n", "d", "i").stream().map(FieldName::attribute).toList();

    /** A target with its options; documents of CSV have just the columns. */
    private record Target(TargetFormat format, Map<String, Object> options) {
        DocumentWriter open(ByteArrayOutputStream out) throws IOException {
            List<String> columns = format instanceof CsvTarget
                    ? NAMES.stream().map(FieldName::local).toList()
                    : List.of();
            return format.open(out, new Document(new Options(options), columns, Map.of()));
        }
    }

    private static final List<Target> TARGETS = List.of(
            new Target(JsonTarget.document(), Map.of()),
            new Target(JsonTarget.document(), Map.of("indent", 0)),
            new Target(JsonTarget.lines(), Map.of()),
            new Target(new XmlTarget(), Map.of()),
            new Target(new XmlTarget(), Map.of("indent", 0)),
            new Target(new XmlTarget(), Map.of("encoding", "US-ASCII")),
            new Target(new CsvTarget(), Map.of()),
            new Target(new CsvTarget(), Map.of("delimiter", ":", "quote", "'")),
            new Target(new CsvTarget(), Map.of("delimiter", "-", "encoding", "UTF-16")));

    @Provide
    Gen<List<String>> rows() {
        Gen<String> texts = Gens.oneOf(
                Gens.of("plain", "#", "it's <&>, \"quoted\"", "süß €😀", "a\nb\tc\rd", "\u0001", "x".repeat(5_000), ""),
                Gens.strings().withChars("ab<>&\"',;:-#\\ü\u007F ").ofMaxLength(24));
        Gen<String> numbers = Gens.of(
                "0",
                "-0",
                "007",
                "12,50",
                "-3,25",
                "1",
                ",5",
                "12,",
                "1234567890123456789",
                "none",
                "",
                "-0,0",
                "0,10");
        Gen<String> dates = Gens.of(
                "05.03.2026 14:30",
                "31.02.2026 10:00",
                "29.02.2024 23:59",
                "30.02.2024 00:00",
                "31.04.2026 24:00",
                "5.3.2026 1:1",
                "05.03.0026 14:30",
                "");
        return Gens.combine(texts, numbers, dates, Gens.of("1", "2.0", "2.5", "x", "-7"))
                .as(List::of);
    }

    private static Projection projection(boolean typed, boolean passing) {
        Map<String, Projection> types = new LinkedHashMap<>();
        types.put("t", Projection.everything());
        types.put("n", type("number", ","));
        types.put("d", type("datetime", "dd.MM.yyyy HH:mm"));
        types.put("i", type("integer"));
        Map<FieldName, Projection> fields = new LinkedHashMap<>();
        types.forEach((name, type) -> {
            Projection field = typed ? type : Projection.everything();
            fields.put(FieldName.of(name), passing ? field.passing() : field);
        });
        return new Projection(false, fields, null, Map.of());
    }

    private static Projection type(String name, String... arguments) {
        return new Projection(true, Map.of(), TypeConverters.converter(name, List.of(arguments)), Map.of());
    }

    private static RecordValue read(SourceFormat format, String document, Projection projection) throws IOException {
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        try (RecordReader reader = format.open(new Pieces(bytes, true, bytes.length), projection, Options.NONE)) {
            return (RecordValue) reader.next();
        }
    }

    /** The last of some records alike, when it is known how they stand. */
    private static RecordValue lastOfXml(List<String> cells, Projection projection) throws IOException {
        StringBuilder record = new StringBuilder("\n<r>");
        for (int i = 0; i < cells.size(); i++) {
            String name = NAMES.get(i).local();
            String text =
                    cells.get(i).replace("&", "&amp;").replace("<", "&lt;").replace('\u0001', '?');
            record.append("<" + name + ">" + text + "</" + name + ">");
        }
        byte[] bytes = ("<d>" + record.append("</r>").toString().repeat(3) + "</d>").getBytes(StandardCharsets.UTF_8);
        Projection list = new Projection(false, Map.of(FieldName.of("r"), projection), null, Map.of());
        Projection root = new Projection(false, Map.of(FieldName.of("d"), list), null, Map.of());
        RecordValue last = null;
        try (RecordReader reader = new XmlSource()
                .openAt(
                        new Pieces(bytes, true, bytes.length),
                        List.of(FieldName.of("d"), FieldName.of("r")),
                        root,
                        Options.NONE)) {
            for (Value next = reader.next(); next != null; next = reader.next()) {
                last = (RecordValue) next;
            }
        }
        return Objects.requireNonNull(last);
    }

    private static String csv(List<String> cells) {
        List<String> quoted = new ArrayList<>();
        cells.forEach(cell -> quoted.add('"' + cell.replace("\"", "\"\"") + '"'));
        return "t,n,d,i\n" + String.join(",", quoted) + "\n";
    }

    private static String json(List<String> cells) {
        StringBuilder out = new StringBuilder("{\"t\":\"");
        cells.get(0).chars().forEach(c -> {
            if (c < ' ' || c == '"' || c == '\\') {
                out.append(String.format("\\u%04x", c));
            } else {
                out.append((char) c);
            }
        });
        boolean number = cells.get(3).matches("-?[0-9.]+");
        return out.append("\",\"n\":")
                .append(number ? cells.get(3) : "null")
                .append(",\"d\":\"")
                .append(cells.get(2))
                .append("\"}")
                .toString();
    }

    /** How fields are written. */
    private enum Kept {
        VALUES,
        BYTES
    }

    private static void write(EventWriter out, RecordValue record, List<FieldName> names, Kept way) {
        int[] slots = NAMES.stream().mapToInt(record.layout()::slot).toArray();
        FieldGroup group = new FieldGroup(names);
        for (int i = 0; i < slots.length; i++) {
            i = way == Kept.BYTES ? out.fields(group, record, slots, i) : i;
            if (i == slots.length) {
                return;
            }
            FieldName name = names.get(i);
            Value value = record.get(slots[i]);
            if (value.isScalar() && !value.isMissing()) {
                if (name.attribute()) {
                    out.attribute(name, value);
                } else {
                    out.field(name, value);
                }
            }
        }
    }

    private static String written(Target target, RecordValue record, Kept way) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            DocumentWriter writer = target.open(out);
            boolean markup = target.format() instanceof XmlTarget;
            if (markup) {
                writer.beginRecord();
                writer.field(FieldName.of("root"));
            } else {
                writer.beginList();
            }
            writer.beginRecord();
            if (markup) {
                write(writer, record, ATTRIBUTES, way);
            }
            write(writer, record, NAMES, way);
            writer.endRecord();
            if (markup) {
                writer.endRecord();
            } else {
                writer.endList();
            }
            writer.finish();
        } catch (ProblemException e) {
            return e.problem().code() + " " + e.problem().message();
        }
        return out.toString(StandardCharsets.UTF_8);
    }

    /** Reads a record. */
    private interface Reading {
        RecordValue of(Projection projection) throws IOException;
    }

    private static void isWrittenAlike(Reading reading, boolean typed) throws IOException {
        for (Target target : TARGETS) {
            String byValues = written(target, reading.of(projection(typed, false)), Kept.VALUES);
            for (Kept way : Kept.values()) {
                RecordValue record = reading.of(projection(typed, true));
                assertThat(written(target, record, way)).isEqualTo(byValues);
            }
        }
    }

    @Property(tries = 750)
    void cellsAreWrittenAsTheirValuesAre(@ForAll("rows") List<String> row, @ForAll boolean typed) throws IOException {
        isWrittenAlike(projection -> read(new CsvSource(), csv(row), projection), typed);
    }

    @Property(tries = 750)
    void cellsThatPassAreWrittenAsTheirValuesAre(@ForAll("rows") List<String> row, @ForAll boolean typed)
            throws IOException {
        byte[] bytes = csv(row).getBytes(StandardCharsets.UTF_8);
        isWrittenAlike(
                projection -> {
                    try (RecordReader reader =
                            new CsvSource().open(new Pieces(bytes, true, bytes.length), projection, Options.NONE)) {
                        return (RecordValue) reader.next();
                    }
                },
                typed);
    }

    @Property(tries = 750)
    void textsAndNumbersOfJsonAreWrittenAsTheirValuesAre(@ForAll("rows") List<String> row) throws IOException {
        isWrittenAlike(projection -> read(JsonSource.lines(), json(row), projection), false);
    }

    @Property(tries = 750)
    void elementsAreWrittenAsTheirValuesAre(@ForAll("rows") List<String> row, @ForAll boolean typed)
            throws IOException {
        isWrittenAlike(projection -> lastOfXml(row, projection), typed);
    }
}
