package dev.morphema.draft;

import dev.morphema.shape.ScalarType;
import dev.morphema.shape.SchemaShape;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Makes up documents that are as a schema says, to see what can be made of them. */
final class Examples {
    /** A text of which nothing is known. */
    static final String ANY_TEXT = "…";

    private static final int DEEPEST = 7;
    /** One for each code of a list, as far as there are so many. */
    private static final int MOST = 12;

    private final int number;
    private final Set<Object> around = new HashSet<>();

    private Examples(int number) {
        this.number = number;
    }

    static List<Item> of(SchemaShape shape) {
        List<Item> items = new ArrayList<>();
        boolean list = shape.isList() || !shape.isTextual();
        for (int i = 0; i < (list ? MOST : 1); i++) {
            items.add(new Examples(i).item(shape, 0));
        }
        return items;
    }

    private Item item(SchemaShape shape, int depth) {
        Item.Builder item = Item.builder(cell(shape));
        if (depth < DEEPEST && around.add(shape.definition())) {
            for (SchemaShape.Field field : shape.fields()) {
                SchemaShape held = shape.field(field.name());
                if (held == null || field.name().equals(FieldName.OWN_TEXT) || around.contains(held.definition())) {
                    continue;
                }
                boolean several = held.isList() || held.isMany();
                for (int i = 0; i < (several ? MOST : 1); i++) {
                    Examples each = several ? new Examples(i) : this;
                    if (several) {
                        each.around.addAll(around);
                    }
                    item.add(field.name(), each.item(held, depth + 1), several);
                }
            }
            around.remove(shape.definition());
        }
        return item.build();
    }

    private @Nullable Cell cell(SchemaShape shape) {
        if (shape.scalars().isEmpty()) {
            return null;
        }
        ScalarType type = shape.scalars().get(0);
        if (!type.codes().isEmpty()) {
            return new Cell(type.kind(), type.codes().get(number % type.codes().size()));
        }
        String text =
                switch (type.form()) {
                    case NUMBER -> type.whole() ? "12" : "12.5";
                    case BOOLEAN -> number % 2 == 0 ? "true" : "false";
                    case DATE -> "2026-01-31";
                    case TIME -> "13:05:00";
                    case DATETIME -> "2026-01-31T13:05:00";
                    default -> ANY_TEXT;
                };
        return new Cell(type.kind() == Kind.TEXT ? Kind.TEXT : type.kind(), text);
    }
}
