package dev.morphema.schemas;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** A form of documents, made at random, with its schemas and documents that are valid by them. */
record RandomForm(List<Field> fields) {
    private static final List<String> CODES = List.of("cargo", "ice", "pax");
    private static final int MOST_FIELDS = 5;
    private static final int DEEPEST = 3;

    /** What a field holds. */
    enum Kind {
        TEXT("string", "xs:string"),
        NUMBER("number", "xs:decimal"),
        INTEGER("integer", "xs:integer"),
        BOOLEAN("boolean", "xs:boolean"),
        DATE("string", "xs:date"),
        CODE("string", "code"),
        RECORD("object", "");

        private final String json;
        private final String xsd;

        Kind(String json, String xsd) {
            this.json = json;
            this.xsd = xsd;
        }
    }

    /**
     * A field of a record.
     *
     * @param repeated whether it is a list, or an element that repeats
     * @param form that of a record; without fields for a single value
     */
    record Field(String name, Kind kind, boolean required, boolean repeated, RandomForm form) {
        boolean isRecord() {
            return kind == Kind.RECORD;
        }
    }

    static RandomForm of(Random random) {
        return of(random, 1);
    }

    private static RandomForm of(Random random, int depth) {
        List<Field> fields = new ArrayList<>();
        int count = 1 + random.nextInt(MOST_FIELDS);
        for (int i = 0; i < count; i++) {
            Kind[] kinds = Kind.values();
            Kind kind = kinds[random.nextInt(depth < DEEPEST ? kinds.length : kinds.length - 1)];
            RandomForm form = kind == Kind.RECORD ? of(random, depth + 1) : new RandomForm(List.of());
            boolean repeated = random.nextInt(3) == 0;
            // A list is there, though it may be empty.
            fields.add(
                    new Field("f" + depth + (char) ('a' + i), kind, repeated || random.nextBoolean(), repeated, form));
        }
        return new RandomForm(fields);
    }

    String jsonSchema() {
        return "{\"$schema\": \"https://json-schema.org/draft/2020-12/schema\", "
                + objectSchema().substring(1);
    }

    private String objectSchema() {
        List<String> properties = new ArrayList<>();
        List<String> required = new ArrayList<>();
        for (Field field : fields) {
            String held = field.isRecord() ? field.form().objectSchema() : scalarSchema(field.kind());
            properties.add("\"" + field.name() + "\": "
                    + (field.repeated() ? "{\"type\": \"array\", \"items\": " + held + "}" : held));
            if (field.required()) {
                required.add("\"" + field.name() + "\"");
            }
        }
        return "{\"type\": \"object\", \"additionalProperties\": false, \"required\": [" + String.join(", ", required)
                + "], \"properties\": {" + String.join(", ", properties) + "}}";
    }

    private static String scalarSchema(Kind kind) {
        return switch (kind) {
            case CODE -> "{\"enum\": [\"" + String.join("\", \"", CODES) + "\"]}";
            case DATE -> "{\"type\": \"string\", \"format\": \"date\"}";
            default -> "{\"type\": \"" + kind.json + "\"}";
        };
    }

    String json(Random random) {
        List<String> written = new ArrayList<>();
        for (Field field : fields) {
            if (!field.required() && random.nextBoolean()) {
                continue;
            }
            List<String> values = new ArrayList<>();
            int count = field.repeated() ? random.nextInt(4) : 1;
            for (int i = 0; i < count; i++) {
                values.add(field.isRecord() ? field.form().json(random) : jsonValue(field.kind(), random));
            }
            String held = String.join(", ", values);
            written.add("\"" + field.name() + "\": " + (field.repeated() ? "[" + held + "]" : held));
        }
        return "{" + String.join(", ", written) + "}";
    }

    private static String jsonValue(Kind kind, Random random) {
        String value = value(kind, random);
        return kind == Kind.NUMBER || kind == Kind.INTEGER || kind == Kind.BOOLEAN ? value : "\"" + value + "\"";
    }

    private static String value(Kind kind, Random random) {
        return switch (kind) {
            case NUMBER -> random.nextInt(1000) - 500 + "." + (1 + random.nextInt(9));
            case INTEGER -> String.valueOf(random.nextInt(1000) - 500);
            case BOOLEAN -> String.valueOf(random.nextBoolean());
            case DATE ->
                String.format("20%02d-%02d-%02d", random.nextInt(99), 1 + random.nextInt(12), 1 + random.nextInt(28));
            case CODE -> CODES.get(random.nextInt(CODES.size()));
            default -> List.of("Nordlys", "Sula 2", "7", "x y").get(random.nextInt(4));
        };
    }

    String xsd() {
        return """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                <xs:simpleType name="code"><xs:restriction base="xs:string">
                <xs:enumeration value="%s"/></xs:restriction></xs:simpleType>
                <xs:element name="root">%s</xs:element></xs:schema>
                """.formatted(String.join("\"/><xs:enumeration value=\"", CODES), complexType());
    }

    /** Optional single values are attributes. */
    private static boolean isAttribute(Field field) {
        return !field.isRecord() && !field.repeated() && !field.required();
    }

    private String complexType() {
        StringBuilder out = new StringBuilder("<xs:complexType><xs:sequence>");
        for (Field field : fields) {
            if (!isAttribute(field)) {
                String occurs = (field.required() && !field.repeated() ? "" : " minOccurs=\"0\"")
                        + (field.repeated() ? " maxOccurs=\"unbounded\"" : "");
                out.append("<xs:element name=\"")
                        .append(field.name())
                        .append('"')
                        .append(occurs);
                out.append(
                        field.isRecord()
                                ? ">" + field.form().complexType() + "</xs:element>"
                                : " type=\"" + field.kind().xsd + "\"/>");
            }
        }
        out.append("</xs:sequence>");
        for (Field field : fields) {
            if (isAttribute(field)) {
                out.append("<xs:attribute name=\"%s\" type=\"%s\"/>".formatted(field.name(), field.kind().xsd));
            }
        }
        return out + "</xs:complexType>";
    }

    String xml(Random random) {
        return xml("root", random);
    }

    private String xml(String element, Random random) {
        StringBuilder attributes = new StringBuilder();
        StringBuilder children = new StringBuilder();
        for (Field field : fields) {
            if (!field.required() && random.nextBoolean()) {
                continue;
            }
            int count = field.repeated() ? random.nextInt(4) : 1;
            for (int i = 0; i < count; i++) {
                String value = field.isRecord() ? "" : value(field.kind(), random);
                if (isAttribute(field)) {
                    attributes
                            .append(" ")
                            .append(field.name())
                            .append("=\"")
                            .append(value)
                            .append('"');
                } else {
                    children.append(
                            field.isRecord()
                                    ? field.form().xml(field.name(), random)
                                    : "<" + field.name() + ">" + value + "</" + field.name() + ">");
                }
            }
        }
        return "<" + element + attributes + ">" + children + "</" + element + ">";
    }

    /**
     * {@return statements that write all fields again}
     *
     * @param path of the record
     */
    String copied(String path, boolean xml) {
        StringBuilder out = new StringBuilder();
        for (Field field : fields) {
            String name = (xml && isAttribute(field) ? "@" : "") + field.name();
            String from = path + "." + name;
            String each = "e" + field.name();
            if (field.repeated()) {
                out.append(name).append(" for ").append(each).append(" in ").append(from);
                out.append(field.isRecord() ? block(field, each, xml) : " => " + each + "\n");
            } else if (!field.isRecord()) {
                out.append(name).append(" = ").append(from).append('\n');
            } else if (field.required()) {
                out.append(name).append(block(field, from, xml));
            } else {
                out.append("if exists(").append(from).append(") {\n");
                out.append(name).append(block(field, from, xml)).append("}\n");
            }
        }
        return out.toString();
    }

    private static String block(Field field, String path, boolean xml) {
        return " {\n" + field.form().copied(path, xml) + "}\n";
    }

    /** {@return rules that are right by the kinds of fields, each with a name of its own} */
    String computed(String path, boolean xml) {
        List<String> rules = new ArrayList<>();
        compute(path, xml, false, rules);
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < rules.size(); i++) {
            out.append("c").append(i).append(" = ").append(rules.get(i)).append('\n');
        }
        return out.toString();
    }

    private void compute(String path, boolean xml, boolean many, List<String> rules) {
        for (Field field : fields) {
            String from = path + "." + (xml && isAttribute(field) ? "@" : "") + field.name();
            boolean several = many || field.repeated();
            switch (field.kind()) {
                case RECORD -> {
                    rules.add("count(" + from + ")");
                    field.form().compute(from, xml, several, rules);
                }
                case NUMBER, INTEGER -> {
                    rules.add("sum(" + from + ")");
                    rules.add(several ? "[v * 2 for v in " + from + " where v > 3]" : "(" + from + " ?? 0) + 1");
                }
                case CODE ->
                    rules.add(
                            several
                                    ? "count(v for v in " + from + " where v == \"ice\")"
                                    : from + " in [\"pax\", \"cargo\"]");
                case DATE ->
                    rules.add(several ? "[format(date(v), 'dd.MM.yy') for v in " + from + "]" : "date(" + from + ")");
                case BOOLEAN ->
                    rules.add(several ? "count(distinct(" + from + "))" : "if boolean(" + from + ") then 1 else 2");
                default -> rules.add(several ? "join(" + from + ", \"; \")" : "upper(" + from + ") ?? \"none\"");
            }
        }
    }
}
