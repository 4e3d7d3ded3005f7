package dev.morphema.jdbc;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import java.sql.Types;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.List;

/**
 * Makes values fit columns while the rule that made them is at hand: a text becomes what it reads
 * as (numbers in digits, dates and times by ISO 8601) where the column is of such a type.
 */
final class Cells implements RowWriter.Columns {
    private final List<Table.Column> columns;

    Cells(List<Table.Column> columns) {
        this.columns = columns;
    }

    @Override
    public Value fitting(int column, Value value) {
        Table.Column of = columns.get(column);
        if (value.isMissing()) {
            return value;
        }
        try {
            return switch (of.type()) {
                case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT -> whole(value, of);
                case Types.NUMERIC, Types.DECIMAL, Types.DOUBLE, Types.FLOAT, Types.REAL -> number(value, of);
                case Types.DATE ->
                    value instanceof TextValue ? new DateValue(LocalDate.parse(value.toString())) : value;
                case Types.TIME ->
                    value instanceof TextValue ? new TimeValue(LocalTime.parse(value.toString())) : value;
                case Types.TIMESTAMP, Types.TIMESTAMP_WITH_TIMEZONE ->
                    value instanceof TextValue ? time(value.toString()) : value;
                case Types.BOOLEAN, Types.BIT -> value instanceof TextValue ? truth(value, of) : value;
                case Types.CHAR, Types.VARCHAR, Types.LONGVARCHAR, Types.NCHAR, Types.NVARCHAR, Types.CLOB ->
                    TextValue.of(value.toString());
                default -> value;
            };
        } catch (DateTimeException e) {
            throw unfit(value, of);
        }
    }

    private static Value number(Value value, Table.Column column) {
        return value instanceof TextValue
                ? NumberValue.parse(value.toString()).orElseThrow(() -> unfit(value, column))
                : value;
    }

    /** Some databases would round without a word. */
    private static Value whole(Value value, Table.Column column) {
        Value number = number(value, column);
        if (number instanceof NumberValue n && !n.hasNoFraction()) {
            throw unfit(value, column);
        }
        return number;
    }

    private static Value truth(Value value, Table.Column column) {
        return switch (value.toString()) {
            case "true" -> BooleanValue.TRUE;
            case "false" -> BooleanValue.FALSE;
            default -> throw unfit(value, column);
        };
    }

    private static Value time(String text) {
        boolean zoned = text.endsWith("Z") || text.indexOf('+') > 0 || text.lastIndexOf('-') > text.indexOf('T');
        if (!zoned) {
            return new DateTimeValue(LocalDateTime.parse(text), null);
        }
        OffsetDateTime time = OffsetDateTime.parse(text);
        return new DateTimeValue(time.toLocalDateTime(), time.getOffset());
    }

    private static String help(int type) {
        return switch (type) {
            case Types.DATE, Types.TIME, Types.TIMESTAMP, Types.TIMESTAMP_WITH_TIMEZONE ->
                "a type in the source reads other dates and times: date('dd.MM.yyyy')";
            case Types.BOOLEAN, Types.BIT -> "a type in the source reads other words: boolean('Y', 'N')";
            default -> "a type in the source reads other numbers: number(',')";
        };
    }

    private static ProblemException unfit(Value value, Table.Column column) {
        return new ProblemException(Problem.error(
                        Code.WRONG_KIND,
                        "The column " + column.name() + " is of the type " + column.typeName()
                                + ", and takes no such value.")
                .withValue(value.toString())
                .withHelp(help(column.type())));
    }
}
