package dev.morphema.shape;

import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * What a schema and samples tell together: the schema what there may be, the samples what the
 * values look like. Immutable while the samples are.
 */
public final class JoinedShape implements Shape {
    private final SchemaShape schema;
    private final Shape sample;

    /** Both tell of the same place. */
    public JoinedShape(SchemaShape schema, Shape sample) {
        this.schema = schema;
        this.sample = sample;
    }

    @Override
    public String origin() {
        return schema.origin();
    }

    @Override
    public Object definition() {
        return schema.definition();
    }

    @Override
    public Set<FieldName> names() {
        Set<FieldName> names = new LinkedHashSet<>(schema.names());
        // The sample knows all names with their namespaces, a schema may not.
        sample.names().stream().filter(name -> schema.meant(name).isEmpty()).forEach(names::add);
        return names;
    }

    @Override
    public @Nullable InputLocation place() {
        InputLocation said = schema.place();
        return said == null ? sample.place() : said;
    }

    @Override
    public @Nullable Shape field(FieldName name) {
        SchemaShape given = schema.field(name);
        Shape shown = sample.field(name);
        return given == null ? shown : shown == null ? given : new JoinedShape(given, shown);
    }

    @Override
    public List<? extends Shape> below(FieldName name) {
        return Stream.concat(schema.below(name).stream(), sample.below(name).stream())
                .toList();
    }

    @Override
    public void addNamesBelow(Set<String> names) {
        schema.addNamesBelow(names);
        sample.addNamesBelow(names);
    }

    @Override
    public @Nullable Problem refusedBy(Converter type) {
        Problem refused = sample.refusedBy(type);
        return refused == null ? schema.refusedBy(type) : refused;
    }

    @Override
    public boolean lacks(FieldName name) {
        return schema.lacks(name) && sample.field(name) == null;
    }

    @Override
    public boolean isClosed() {
        return schema.isClosed();
    }

    @Override
    public boolean isScalar() {
        return schema.isScalar() && !sample.isRecord();
    }

    @Override
    public boolean always(FieldName name) {
        return schema.always(name) && sample.always(name);
    }

    @Override
    public boolean isMany() {
        return schema.isMany() || sample.isMany();
    }

    @Override
    public boolean isList() {
        return schema.isList() || sample.isList();
    }

    @Override
    public boolean isRecord() {
        return schema.isRecord() || sample.isRecord();
    }

    @Override
    public boolean hasOddText() {
        return sample.hasOddText() || schema.hasOddText();
    }

    @Override
    public boolean isMisorderedAsText() {
        return schema.isMisorderedAsText() || sample.isMisorderedAsText();
    }

    @Override
    public boolean isNumeric() {
        return schema.isNumeric() || sample.isNumeric();
    }

    @Override
    public @Nullable Kind kind() {
        return schema.kind();
    }

    @Override
    public @Nullable Kind form() {
        return schema.form() == null ? sample.form() : schema.form();
    }

    @Override
    public @Nullable Set<String> codes() {
        return schema.codes();
    }
}
