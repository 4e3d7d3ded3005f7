package dev.morphema.format;

import dev.morphema.problem.Problem;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
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
     * {@return the next record, or null after the last}
     *
     * @throws IOException if reading fails
     */
    @Nullable
    Value next() throws IOException;

    /**
     * As {@link #next}, for one who is done with each record before the next: what the record has
     * as bytes may be left where it was read, and is something else then. Values that were taken
     * from it stay what they are.
     *
     * @throws IOException if reading fails
     */
    default @Nullable Value nextPassing() throws IOException {
        return next();
    }

    /**
     * {@return whether records that are had {@linkplain #nextPassing as they pass} or {@linkplain
     * #nextBare bare} take so little that it would be a loss to read ahead, for which they must be
     * kept}
     */
    default boolean sparesCopies() {
        return false;
    }

    /**
     * {@return the next record before it is made a value, or null if this reader, or this record,
     * is not such that that can be done}; then {@link #next} gives it.
     *
     * @throws IOException if reading fails
     */
    default @Nullable BareRecord nextBare() throws IOException {
        return null;
    }

    /**
     * {@return all records that are left}
     *
     * @throws IOException if reading fails
     */
    default List<Value> remaining() throws IOException {
        List<Value> records = new ArrayList<>();
        for (Value record = next(); record != null; record = next()) {
            records.add(record);
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
     * {@return how many steps of its path a reader of values at a path has found so far}: none if
     * the input has other fields, -1 if it has no record at all; of no matter once a value was
     * given
     */
    default int stepsFound() {
        return -1;
    }

    /** {@return what was odd but no fault, known at the latest after the last record} */
    default List<Problem> warnings() {
        return List.of();
    }
}
