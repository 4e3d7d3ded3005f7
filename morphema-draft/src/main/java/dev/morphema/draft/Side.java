package dev.morphema.draft;

import dev.morphema.Looked;
import dev.morphema.Morphema;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaShape;
import dev.morphema.value.FieldName;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What is given of one side of a mapping: a sample, or a schema.
 *
 * @param name the file, for a schema perhaps with a part of it behind {@code #}
 * @param sample what is known of the sample; null for a schema
 * @param schema what the schema allows; null for a sample
 * @param format the name of the format
 * @param items its records, or the one document; of a schema made-up ones
 */
record Side(String name, @Nullable Looked sample, @Nullable SchemaShape schema, String format, List<Item> items) {
    /** So many records tell what there is to tell; all are looked at for the form. */
    private static final int MOST_RECORDS = 2_000;

    private static final int HEAD = 1 << 16;
    private static final Pattern SCHEMA_WORDS = Pattern.compile(
            "\"\\$schema\"|\"\\$defs\"|\"definitions\"|\"openapi\"|^openapi:|\"tableSchema\"|\"properties\"\\s*:\\s*\\{",
            Pattern.MULTILINE);

    /**
     * {@return what a file tells}
     *
     * @throws ProblemException if it cannot be read
     */
    static Side read(String name) {
        String file = file(name);
        String format = schemaFormat(name, file);
        if (format != null) {
            SchemaShape shape = Morphema.standard()
                    .schema(name, format)
                    .orElseThrow(
                            () -> new ProblemException(Problem.error(Code.BAD_SCHEMA, "Nothing here reads this schema.")
                                    .withValue(name)));
            return new Side(name, null, shape, format, Examples.of(shape));
        }
        Looked looked = Morphema.standard().look(List.of(Path.of(file)), Long.MAX_VALUE);
        List<Item> items = new ArrayList<>();
        for (Value record : looked.records(MOST_RECORDS)) {
            items.addAll(Item.of(record));
        }
        return new Side(name, looked, null, looked.format(), items);
    }

    private static String file(String name) {
        int hash = name.indexOf('#');
        return hash > 0 && Files.notExists(Path.of(name)) ? name.substring(0, hash) : name;
    }

    /** {@return the format that a schema is for; null if the file is none} */
    private static @Nullable String schemaFormat(String name, String file) {
        String lower = file.toLowerCase(Locale.ROOT);
        if (lower.endsWith(".xsd")) {
            return "xml";
        }
        boolean tree = lower.endsWith(".json") || lower.endsWith(".yaml") || lower.endsWith(".yml");
        if (!tree || Files.notExists(Path.of(file))) {
            return null;
        }
        try (var in = Files.newInputStream(Path.of(file))) {
            String head = new String(in.readNBytes(HEAD), StandardCharsets.UTF_8);
            boolean schema = !name.equals(file)
                    || !lower.endsWith(".json")
                    || SCHEMA_WORDS.matcher(head).find();
            return !schema ? null : head.contains("\"tableSchema\"") ? "csv" : "json";
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** {@return what a name in a mapping can be made of} */
    String stem() {
        return Path.of(file(name)).getFileName().toString().replaceAll("\\..*", "");
    }

    /** {@return the file} */
    Path path() {
        return Path.of(file(name));
    }

    /** {@return the part of the file that is meant, with its hash; empty if all of it is} */
    String fragment() {
        return name.substring(file(name).length());
    }

    /** {@return whether it is a list of records, and no single one} */
    boolean isList() {
        return sample != null ? sample.isSequence() : format.equals("csv") || schema != null && schema.isList();
    }

    /** {@return the format as a mapping writes it, with more options} */
    String written(List<String> more) {
        String source = sample == null ? format : sample.source();
        if (more.isEmpty()) {
            return source;
        }
        String options = String.join(", ", more);
        return source.endsWith(")")
                ? source.substring(0, source.length() - 1) + ", " + options + ")"
                : source + "(" + options + ")";
    }

    /** {@return the namespace of the root of a document in XML, or null} */
    @Nullable
    String namespace() {
        if (!format.equals("xml")) {
            return null;
        }
        if (schema != null) {
            return schema.names().stream().findFirst().map(FieldName::namespace).orElse(null);
        }
        Item root = items.isEmpty() ? null : items.get(0);
        return root == null
                ? null
                : root.fields().keySet().stream()
                        .findFirst()
                        .map(root::namespace)
                        .orElse(null);
    }

    /** {@return the form of a document, as far as it is known} */
    TargetField form() {
        return schema != null
                ? TargetField.of(schema)
                : TargetField.of(Objects.requireNonNull(sample).shape(), isList());
    }
}
