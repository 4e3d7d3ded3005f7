package dev.morphema.draft;

import dev.morphema.value.Kind;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A single value of a document.
 *
 * @param kind what the format says it is: a text, a number, a boolean or null
 * @param text as it prints
 */
record Cell(Kind kind, String text) {
    /** {@return a text} */
    static Cell text(String text) {
        return new Cell(Kind.TEXT, text);
    }

    /** {@return a single value} */
    static Cell of(Value value) {
        return new Cell(value.kind(), value.toString());
    }

    /** {@return the number that this is or reads as, or null} */
    static @Nullable BigDecimal number(@Nullable Cell cell) {
        if (cell == null || cell.kind != Kind.TEXT && cell.kind != Kind.NUMBER) {
            return null;
        }
        return NumberValue.parse(cell.text).map(NumberValue::decimal).orElse(null);
    }

    /** {@return the text of a value, or null if there is none or it is blank} */
    static @Nullable String filled(@Nullable Cell cell) {
        return cell == null || cell.kind == Kind.NULL || cell.text.isBlank() ? null : cell.text;
    }

    /** {@return whether two values, perhaps none, print alike} */
    static boolean sameText(@Nullable Cell one, @Nullable Cell other) {
        return one == null || other == null ? one == other : Objects.equals(one.text, other.text);
    }
}
