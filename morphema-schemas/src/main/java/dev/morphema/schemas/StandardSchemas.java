package dev.morphema.schemas;

import dev.morphema.shape.SchemaReader;
import dev.morphema.shape.SchemaShape;
import java.io.IOException;
import java.util.Locale;
import java.util.Optional;

/**
 * Reads the schemas that come with Morphema: XSD 1.0; JSON Schema 2020-12 and draft-07; OpenAPI 3;
 * CSVW metadata; and the header of a CSV file. Immutable and safe for use by many threads.
 */
public final class StandardSchemas implements SchemaReader {
    /** Reads schemas; {@link java.util.ServiceLoader} calls this. */
    public StandardSchemas() {}

    @Override
    public Optional<SchemaShape> read(String path, String format, Files files) throws IOException {
        SchemaPath schema = SchemaPath.parse(path);
        String name = schema.file().toLowerCase(Locale.ROOT);
        if (name.endsWith(".xsd")) {
            return format.equals("xml") ? Optional.of(XsdShapes.read(schema, files)) : Optional.empty();
        }
        if (name.endsWith(".csv")) {
            return format.equals("csv") ? Optional.of(CsvHeaderShape.read(schema, files)) : Optional.empty();
        }
        if (format.equals("xml") || !isTree(name)) {
            return Optional.empty();
        }
        SchemaDocuments documents = new SchemaDocuments(files);
        SchemaShape shape = shape(documents, schema, format);
        // Records of a sequence are described one by one, or all at once as an array of them.
        boolean each = !format.equals("json") && shape.items() == SchemaShape.Items.LIST;
        return Optional.of(each ? shape.item() : shape);
    }

    private static boolean isTree(String name) {
        return name.endsWith(".json") || name.endsWith(".yaml") || name.endsWith(".yml");
    }

    private static SchemaShape shape(SchemaDocuments documents, SchemaPath schema, String format) throws IOException {
        if (CsvwShape.isMetadata(documents.root(schema.file()))) {
            return CsvwShape.read(documents.root(schema.file()), documents);
        }
        JsonShapes shapes = new JsonShapes(documents, format.equals("csv"));
        SchemaNode node = OpenApi.isDescription(documents.root(schema.file()))
                ? new OpenApi(documents, schema).schema()
                : documents.find(schema.file(), schema.fragment());
        return shapes.shape(node);
    }
}
