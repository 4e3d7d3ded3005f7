package dev.morphema.jdbc;

import dev.morphema.format.Projection;
import dev.morphema.standard.StandardFormats;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.sql.Array;
import java.sql.Clob;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.SQLXML;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * Reads one column of a row: numbers exactly, dates and times by their type (with an offset where
 * the column has one), JSON and XML as records, arrays as lists, bytes as Base64 (RFC 4648), null
 * as null; everything else as text.
 */
@FunctionalInterface
interface ColumnReader {
    /** {@return the value in the row at hand} */
    Value value(ResultSet row) throws SQLException;

    /**
     * {@return what reads a column by its type}
     *
     * @param used what the mapping uses of it
     */
    static ColumnReader of(ResultSetMetaData metadata, int column, Projection used) throws SQLException {
        String typeName = String.valueOf(metadata.getColumnTypeName(column)).toLowerCase(Locale.ROOT);
        if (typeName.startsWith("json")) {
            return row -> document(row.getString(column), "json", used);
        }
        return switch (metadata.getColumnType(column)) {
            case Types.DATE -> row -> temporal(row.getObject(column, LocalDate.class));
            case Types.TIME -> row -> temporal(row.getObject(column, LocalTime.class));
            case Types.TIMESTAMP ->
                typeName.equals("timestamptz")
                        ? row -> temporal(row.getObject(column, OffsetDateTime.class))
                        : row -> temporal(row.getObject(column, LocalDateTime.class));
            case Types.TIMESTAMP_WITH_TIMEZONE -> row -> temporal(row.getObject(column, OffsetDateTime.class));
            case Types.BOOLEAN, Types.BIT -> row -> truth(row, column);
            case Types.NUMERIC, Types.DECIMAL -> row -> number(row.getBigDecimal(column));
            case Types.SQLXML -> row -> xml(row.getSQLXML(column), used);
            default -> row -> value(row.getObject(column));
        };
    }

    /** Some databases keep truths as numbers. */
    private static Value truth(ResultSet row, int column) throws SQLException {
        boolean truth = row.getBoolean(column);
        return row.wasNull() ? Missing.NULL : BooleanValue.of(truth);
    }

    private static Value number(@Nullable BigDecimal number) {
        return number == null ? Missing.NULL : NumberValue.of(number);
    }

    private static Value document(@Nullable String text, String format, Projection used) {
        return text == null ? Missing.NULL : StandardFormats.parsed(format, used, text);
    }

    private static Value xml(@Nullable SQLXML document, Projection used) throws SQLException {
        return document == null ? Missing.NULL : document(document.getString(), "xml", used);
    }

    private static Value temporal(@Nullable Object value) {
        if (value instanceof LocalDate date) {
            return new DateValue(date);
        } else if (value instanceof LocalTime time) {
            return new TimeValue(time);
        } else if (value instanceof LocalDateTime time) {
            return new DateTimeValue(time, null);
        } else if (value instanceof OffsetDateTime time) {
            return new DateTimeValue(time.toLocalDateTime(), time.getOffset());
        }
        return Missing.NULL;
    }

    /** What drivers give for columns of which the type alone does not tell. */
    private static Value value(@Nullable Object object) throws SQLException {
        if (object == null) {
            return Missing.NULL;
        } else if (object instanceof Boolean flag) {
            return BooleanValue.of(flag);
        } else if (object instanceof Long
                || object instanceof Integer
                || object instanceof Short
                || object instanceof Byte) {
            return NumberValue.of(((Number) object).longValue());
        } else if (object instanceof Double || object instanceof Float) {
            // The shortest number that is read as the same one.
            return NumberValue.of(new BigDecimal(object.toString()));
        } else if (object instanceof byte[] bytes) {
            return TextValue.of(Base64.getEncoder().encodeToString(bytes));
        } else if (object instanceof Clob text) {
            return TextValue.of(text.getSubString(1, (int) Math.min(Integer.MAX_VALUE, text.length())));
        } else if (object instanceof Array array) {
            return list((Object[]) array.getArray());
        }
        return TextValue.of(object.toString());
    }

    private static Value list(Object[] items) throws SQLException {
        List<Value> values = new ArrayList<>();
        for (Object item : items) {
            values.add(item instanceof Object[] inner ? list(inner) : value(item));
        }
        return ListValue.of(values);
    }
}
