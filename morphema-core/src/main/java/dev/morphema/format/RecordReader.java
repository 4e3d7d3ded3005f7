package dev.morphema.format;

import dev.morphema.problem.Problem;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.Closeable;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Reads the records of one input, one after the other. Not thread-safe.
 *
 * <p>Faults of the content are {@link dev.morphema.problem.ProblemException}s that say where they
 * are.
 */
public interface RecordReader extends Closeable {
    /**
     * {@return whether the input is a sequence of records; if not, it is one value, which {@link
     * #next} gives once}
     *
     * @throws IOException if reading fails
     */
    boolean isSequence() throws IOException;

    /**
     * {@return the next record, or null after the last}. Values that are taken from it stay what
     * they are; the record itself may be left where it was read, and is another one after the next
     * call. Who keeps it keeps it {@linkplain RecordValue#detached(Value) detached}.
     *
     * @throws IOException if reading fails
     */
    @Nullable
    Value next() throws IOException;

    /**
     * {@return whether records are left where they were read, which takes so little that it would
     * be a loss to read ahead, for which they must be detached}
     */
    default boolean leavesRecords() {
        return false;
    }

    /**
     * {@return all records that are left}
     *
     * @throws IOException if reading fails
     */
    default List<Value> remaining() throws IOException {
        List<Value> records = new ArrayList<>();
        for (Value record = next(); record != null; record = next()) {
            records.add(RecordValue.detached(record));
        }
        return records;
    }

    /**
     * {@return the whole input as one value: a list for a sequence, absent where there is nothing}
     *
     * @throws IOException if reading fails
     */
    default Value whole() throws IOException {
        boolean sequence = isSequence();
        List<Value> records = remaining();
        if (sequence) {
            return ListValue.owned(records);
        }
        return records.isEmpty() ? Missing.ABSENT : records.get(0);
    }

    /**
     * Gives the whole input as events, in place of reading its records: of a sequence those of a
     * list. Where the format allows it, no more is kept than what is open.
     *
     * @param out takes the events; what it cannot take is its own problem
     * @throws IOException if reading fails
     */
    default void events(EventWriter out) throws IOException {
        boolean sequence = isSequence();
        if (sequence) {
            out.beginList();
        }
        for (Value record = next(); record != null; record = next()) {
            Events.write(record, out);
        }
        if (sequence) {
            out.endList();
        }
    }

    /**
     * {@return how many steps of its path a reader of values at a path has found so far}: none if
     * the input has other fields, -1 if it has no record at all; of no matter once a value was
     * given
     */
    default int stepsFound() {
        return -1;
    }

    /**
     * {@return the fields that the input itself names for all its records, such as the header of a
     * table does}; empty if it does not, and before the first record was asked for.
     */
    default List<FieldName> columns() {
        return List.of();
    }

    /** {@return what was odd but no fault, known at the latest after the last record} */
    default List<Problem> warnings() {
        return List.of();
    }
}
