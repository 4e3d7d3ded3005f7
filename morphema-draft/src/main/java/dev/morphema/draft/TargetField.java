package dev.morphema.draft;

import dev.morphema.shape.LearnedShape;
import dev.morphema.shape.ScalarType;
import dev.morphema.shape.SchemaShape;
import dev.morphema.shape.ValueProfile;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A field that a target is to have, by its schema or by a sample with other values.
 *
 * @param name with an at sign for an attribute; empty for the document, an item or an own text
 * @param namespace of an element, or null
 * @param record whether it has fields
 * @param several whether it repeats, or is a list
 * @param required whether it must be there
 * @param form what its values read as, or null
 * @param codes the only values it may have; none where it may have others
 * @param words what people are told of it
 * @param fields those of the record, in order; with one without a name for the text of its own
 */
record TargetField(
        String name,
        @Nullable String namespace,
        boolean record,
        boolean several,
        boolean required,
        @Nullable Kind form,
        List<String> codes,
        String words,
        List<TargetField> fields) {
    private static final int DEEPEST = 7;
    private static final int MOST_OPTIONAL_DEPTH = 4;

    /** {@return what a schema wants of a document} */
    static TargetField of(SchemaShape shape) {
        return of("", null, shape, shape.isList(), true, null, 0, new HashSet<>());
    }

    private static TargetField of(
            String name,
            @Nullable String namespace,
            SchemaShape shape,
            boolean several,
            boolean required,
            @Nullable String fixed,
            int depth,
            Set<Object> around) {
        List<TargetField> fields = new ArrayList<>();
        if (around.add(shape.definition())) {
            // Elements of one type have a definition each, and the same fields.
            boolean first = around.add(shape.names());
            for (SchemaShape.Field field : shape.fields()) {
                boolean deep = depth >= (field.required() ? DEEPEST : MOST_OPTIONAL_DEPTH);
                SchemaShape held = deep ? null : shape.field(field.name());
                // What may hold itself is told once.
                boolean again = held != null
                        && held.isRecord()
                        && (around.contains(held.definition()) || !field.required() && around.contains(held.names()));
                if (held == null || again) {
                    continue;
                }
                boolean own = field.name().equals(FieldName.OWN_TEXT);
                fields.add(of(
                        own ? "" : field.name().toString(),
                        field.name().namespace(),
                        held,
                        held.isList() || held.isMany(),
                        field.required(),
                        field.fixed(),
                        depth + 1,
                        around));
            }
            around.remove(shape.definition());
            if (first) {
                around.remove(shape.names());
            }
        }
        ScalarType type = shape.scalars().isEmpty() ? null : shape.scalars().get(0);
        Set<String> codes = shape.codes();
        return new TargetField(
                name,
                namespace,
                shape.isRecord(),
                several,
                required,
                type == null ? null : type.form(),
                fixed != null ? List.of(fixed) : codes == null ? List.of() : List.copyOf(codes),
                shape.description().orElse(type == null ? "" : type.words()),
                fields);
    }

    /** {@return what a sample of a target shows} */
    static TargetField of(LearnedShape shape, boolean list) {
        return of("", null, shape, list, true);
    }

    private static TargetField of(
            String name, @Nullable String namespace, LearnedShape shape, boolean several, boolean required) {
        List<TargetField> fields = new ArrayList<>();
        for (FieldName field : shape.names()) {
            LearnedShape held = Objects.requireNonNull(shape.field(field));
            fields.add(of(
                    field.equals(FieldName.OWN_TEXT) ? "" : field.toString(),
                    field.namespace(),
                    held,
                    held.isMany() || held.isList(),
                    shape.always(field)));
        }
        List<String> types = shape.profile().map(ValueProfile::types).orElse(List.of());
        Kind form = shape.kind() == Kind.NUMBER || shape.kind() == Kind.BOOLEAN ? shape.kind() : null;
        String type = types.isEmpty() ? "" : types.get(0).replaceAll("\\(.*", "");
        Kind read =
                switch (type) {
                    case "number" -> Kind.NUMBER;
                    case "date" -> Kind.DATE;
                    case "datetime" -> Kind.DATETIME;
                    case "time" -> Kind.TIME;
                    default -> null;
                };
        String example = shape.profile()
                .map(profile -> String.join(", ", profile.examples(2)))
                .orElse("");
        return new TargetField(
                name,
                namespace,
                shape.isRecord() || !shape.names().isEmpty(),
                several,
                required,
                form == null ? read : form,
                List.of(),
                example.isEmpty() ? "" : "such as " + example,
                fields);
    }

    /** {@return whether there are single values here} */
    boolean isScalar() {
        return !record;
    }

    /** {@return what is wanted, for who has to write the rule} */
    String wanted() {
        if (!codes.isEmpty()) {
            return "one of " + String.join(", ", codes.subList(0, Math.min(codes.size(), 12)));
        }
        return words.isEmpty() ? record ? "a record" : "a value" : words;
    }
}
