package dev.morphema.shape;

import dev.morphema.problem.InputLocation;
import dev.morphema.shape.SchemaShape.Body;
import dev.morphema.shape.SchemaShape.Field;
import dev.morphema.shape.SchemaShape.Items;
import dev.morphema.shape.SchemaShape.Others;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Makes the {@linkplain SchemaShape shape} of a schema. Not thread-safe. */
public final class SchemaShapeBuilder {
    private final Map<FieldName, Field> fields = new LinkedHashMap<>();
    private final List<ScalarType> scalars = new ArrayList<>();
    private boolean record;
    private Items items = Items.ONE;
    private Others others = Others.NONE;
    private boolean ordered;
    private boolean textual;
    private boolean nullable;
    private @Nullable String description;
    private @Nullable Supplier<@Nullable InputLocation> place;

    SchemaShapeBuilder() {}

    /** There are records here. */
    public SchemaShapeBuilder record() {
        record = true;
        return this;
    }

    /** Records here have a field; one of the same name is the same, required if one of them is. */
    public SchemaShapeBuilder field(Field field) {
        record = true;
        fields.merge(field.name(), field, SchemaShapeBuilder::both);
        return this;
    }

    private static Field both(Field one, Field other) {
        return new Field(
                one.name(),
                one.required() || other.required(),
                one.repeated() || other.repeated(),
                one.fixed() == null ? other.fixed() : one.fixed(),
                () -> all(one.shape().get(), other.shape().get()));
    }

    private static SchemaShape all(SchemaShape one, SchemaShape other) {
        return one.body() == other.body()
                ? one
                : SchemaShape.builder().all(List.of(one, other)).build();
    }

    /** Values here may be of a type. */
    public SchemaShapeBuilder scalar(ScalarType type) {
        scalars.add(type);
        return this;
    }

    /** There may be lists here of what is said else. */
    public SchemaShapeBuilder items(Items what) {
        items = what;
        return this;
    }

    /**
     * Whether there may be more fields than those that are named; if nothing is said, there are
     * none.
     */
    public SchemaShapeBuilder others(Others which) {
        others = which;
        return this;
    }

    /** The fields come in the order in which they were given. */
    public SchemaShapeBuilder ordered() {
        ordered = true;
        return this;
    }

    /** Values are read as texts, whatever their form. */
    public SchemaShapeBuilder textual() {
        textual = true;
        return this;
    }

    /** Null may stand here. */
    public SchemaShapeBuilder nullable() {
        nullable = true;
        return this;
    }

    /** What people are told of it, or null. */
    public SchemaShapeBuilder description(@Nullable String words) {
        description = words == null ? description : words;
        return this;
    }

    /** Where the schema says it, or null; asked for when a problem is told. */
    public SchemaShapeBuilder place(@Nullable Supplier<@Nullable InputLocation> where) {
        place = where == null ? place : where;
        return this;
    }

    /** What is here is of all of these shapes at once. */
    public SchemaShapeBuilder all(Collection<SchemaShape> shapes) {
        for (SchemaShape shape : shapes) {
            shape.body().fields().values().forEach(this::field);
            if (scalars.isEmpty()) {
                scalars.addAll(shape.body().scalars());
            }
            take(shape);
            items = shape.body().items() == Items.ONE ? items : shape.body().items();
            others = shape.body().others() == Others.NONE || others == Others.NONE ? Others.NONE : others;
        }
        return this;
    }

    /** What is here is of one of these shapes. */
    public SchemaShapeBuilder either(List<SchemaShape> shapes) {
        List<SchemaShape> records =
                shapes.stream().filter(SchemaShape::isRecord).toList();
        for (SchemaShape shape : shapes) {
            for (Field field : shape.body().fields().values()) {
                boolean always = records.stream().allMatch(each -> each.requires(field.name()));
                Field known = fields.get(field.name());
                Field allowed = always ? field : field.optional();
                fields.put(field.name(), known == null ? allowed : oneOf(known, allowed));
            }
            scalars.addAll(shape.body().scalars());
            take(shape);
        }
        Set<Items> all = EnumSet.noneOf(Items.class);
        shapes.forEach(shape -> all.add(shape.body().items()));
        items = all.size() == 1 ? all.iterator().next() : Items.EITHER;
        others = shapes.stream().map(shape -> shape.body().others()).reduce(others, SchemaShapeBuilder::looser);
        return this;
    }

    private static Others looser(Others one, Others other) {
        return one.compareTo(other) > 0 ? one : other;
    }

    private void take(SchemaShape shape) {
        record |= shape.body().record();
        ordered |= shape.body().ordered();
        textual |= shape.body().textual();
        nullable |= shape.body().nullable();
        description(shape.body().description());
        place = place == null ? shape.body().place() : place;
    }

    private static Field oneOf(Field one, Field other) {
        return new Field(
                one.name(),
                one.required() && other.required(),
                one.repeated() || other.repeated(),
                Objects.equals(one.fixed(), other.fixed()) ? one.fixed() : null,
                () -> eitherOf(one.shape().get(), other.shape().get()));
    }

    private static SchemaShape eitherOf(SchemaShape one, SchemaShape other) {
        return one.body() == other.body()
                ? one
                : SchemaShape.builder().either(List.of(one, other)).build();
    }

    /** {@return the shape} */
    public SchemaShape build() {
        Map<FieldName, Field> all = Collections.unmodifiableMap(new LinkedHashMap<>(fields));
        Body body = new Body(
                all,
                List.copyOf(scalars),
                record,
                items,
                others,
                ordered,
                textual,
                nullable,
                description,
                place == null ? () -> null : place);
        return new SchemaShape(body, false);
    }
}
