package dev.morphema.jdbc;

import dev.morphema.value.BooleanValue;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import org.jspecify.annotations.Nullable;

/** Hands values to statements. Only those of {@link #object} go into one. */
final class Binding {
    private Binding() {}

    /** Sets a parameter of a query; one that is absent is null. */
    static void bind(PreparedStatement statement, int index, @Nullable Value value) throws SQLException {
        set(statement, index, value == null ? null : object(value), Types.NULL);
    }

    /** {@return a scalar as JDBC takes it, null for a missing one} */
    static @Nullable Object object(Value value) {
        if (value.isMissing()) {
            return null;
        } else if (value instanceof NumberValue number) {
            return number.decimal();
        } else if (value instanceof BooleanValue flag) {
            return flag.isTrue();
        } else if (value instanceof DateValue date) {
            return date.date();
        } else if (value instanceof TimeValue time) {
            return time.time();
        } else if (value instanceof DateTimeValue time) {
            return time.offset() == null ? time.local() : time.local().atOffset(time.offset());
        }
        return value.toString();
    }

    /**
     * Sets a parameter.
     *
     * @param type that of the column, for null
     */
    static void set(PreparedStatement statement, int index, @Nullable Object object, int type) throws SQLException {
        if (object == null) {
            statement.setNull(index, type);
        } else if (object instanceof BigDecimal number) {
            statement.setBigDecimal(index, number);
        } else if (object instanceof Boolean flag) {
            statement.setBoolean(index, flag);
        } else if (object instanceof LocalDate
                || object instanceof LocalTime
                || object instanceof LocalDateTime
                || object instanceof OffsetDateTime) {
            statement.setObject(index, object);
        } else if (type == Types.OTHER || type == Types.SQLXML) {
            statement.setObject(index, object, Types.OTHER);
        } else {
            statement.setString(index, object.toString());
        }
    }
}
