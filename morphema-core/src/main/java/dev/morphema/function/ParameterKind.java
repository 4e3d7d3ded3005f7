package dev.morphema.function;

import dev.morphema.convert.Dates;
import dev.morphema.convert.Numbers;
import dev.morphema.convert.TypeConverters;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.Kind;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** What a function wants as an argument, and how a value of another kind becomes it. */
public enum ParameterKind {
    /** A text; numbers, booleans and times are taken as they are printed. */
    TEXT(Kind.TEXT),
    /** A number; a text is read as one. */
    NUMBER(Kind.NUMBER),
    /** A whole number; a text is read as one. */
    INTEGER(Kind.NUMBER),
    /** A boolean. */
    BOOLEAN(Kind.BOOLEAN),
    /** A date; a text is read as ISO 8601. */
    DATE(Kind.DATE),
    /** A datetime; a text is read as ISO 8601. */
    DATETIME(Kind.DATETIME),
    /** A date, time or datetime; never a text. */
    MOMENT(null),
    /** A record, of which no field is needed. */
    RECORD(Kind.RECORD),
    /** Any one value. */
    ANY(null),
    /** Any number of values; a list counts as its items. */
    MANY(null);

    private static final Set<Kind> MOMENTS = Set.of(Kind.DATE, Kind.TIME, Kind.DATETIME);

    private final @Nullable Kind kind;

    ParameterKind(@Nullable Kind kind) {
        this.kind = kind;
    }

    /**
     * {@return whether a value of a kind can be taken, perhaps after reading it as a number or
     * date}
     */
    public boolean takes(Kind given) {
        return switch (this) {
            case ANY, MANY -> true;
            case TEXT -> given.isScalar();
            case NUMBER, INTEGER -> given == Kind.NUMBER || given == Kind.TEXT;
            case BOOLEAN -> given == Kind.BOOLEAN;
            case DATE, DATETIME -> given == Kind.DATE || given == Kind.DATETIME || given == Kind.TEXT;
            case RECORD -> given == Kind.RECORD;
            case MOMENT -> MOMENTS.contains(given);
        };
    }

    /** {@return what is wanted, as a sentence says it} */
    public String words() {
        return switch (this) {
            case INTEGER -> "a whole number";
            case MOMENT -> "a date, time or datetime";
            case ANY -> "one value";
            case MANY -> "many values";
            default -> kind == null ? "a value" : kind.words();
        };
    }

    /**
     * {@return the value as it is wanted}
     *
     * @param value one value, neither absent nor null; an XML element gives its text
     * @throws ProblemException if it cannot be taken
     */
    public Value take(Value value) {
        if (this == ANY || this == MANY || this == RECORD && value instanceof RecordValue) {
            return value;
        }
        Value scalar = scalar(value);
        return switch (this) {
            case TEXT -> scalar instanceof TextValue ? scalar : TextValue.of(scalar.toString());
            case NUMBER -> Numbers.number(scalar);
            case INTEGER -> TypeConverters.integer(scalar);
            case DATE -> Dates.date(scalar, null);
            case DATETIME -> Dates.datetime(scalar, null, null);
            case BOOLEAN -> {
                if (scalar instanceof BooleanValue) {
                    yield scalar;
                }
                throw refused(scalar);
            }
            case RECORD -> throw refused(scalar);
            case MOMENT -> {
                if (MOMENTS.contains(scalar.kind())) {
                    yield scalar;
                }
                throw refused(scalar);
            }
            case ANY, MANY -> scalar;
        };
    }

    /**
     * {@return a value that can stand in a cell: an XML element gives its own text}
     *
     * @throws ProblemException if it is a record or a list
     */
    public static Value scalar(Value value) {
        if (value instanceof RecordValue record) {
            return Elements.text(record);
        }
        if (value instanceof ListValue || value instanceof Many) {
            throw new ProblemException(Problem.error(Code.MANY, "Expected one value, found a list.")
                    .withHelp("first(x) takes the first item, join(x, \", \") makes a text of all"));
        }
        return value;
    }

    /** As {@link #scalar}, but a list without items is absent. */
    public static Value scalarIfAny(Value value) {
        return value instanceof ListValue list && list.items().isEmpty() ? Missing.ABSENT : scalar(value);
    }

    private ProblemException refused(Value value) {
        return new ProblemException(Problem.error(
                        Code.KIND,
                        "Expected " + words() + ", found " + value.kind().words() + ".")
                .withValue(value.toString())
                .withHelp(help(value.kind())));
    }

    /** {@return what may be done where a value of another kind stands, or null} */
    public @Nullable String help(Kind given) {
        return switch (this) {
            case BOOLEAN -> "compare it, as in x == \"Y\", or give it the type boolean";
            case MOMENT -> "date(x), time(x) and datetime(x) make one of a text, with a pattern if it is not ISO 8601";
            case RECORD -> "step up to the record that this is in";
            default -> given == Kind.RECORD ? "step down to one of its fields" : null;
        };
    }
}
