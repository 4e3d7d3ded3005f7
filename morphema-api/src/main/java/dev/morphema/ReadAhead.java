package dev.morphema;

import dev.morphema.format.RecordReader;
import dev.morphema.problem.Problem;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import dev.morphema.value.ValueSize;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Future;
import org.jspecify.annotations.Nullable;

/**
 * Reads records in a thread of its own, a little ahead of the one that takes them. What it gives is
 * what the reader gives, a failure after the records before it. Itself not thread-safe.
 */
final class ReadAhead implements RecordReader {
    /** Records are handed over so many at once, or fewer if they are large. */
    private static final int BATCH = 1 << 10;

    private static final int BATCH_BYTES = 1 << 18;

    /** To measure a record takes time, so each of so many stands for all of them. */
    private static final int MEASURED = 8;

    private static final int BATCHES = 3;

    /** Makes the reader; called in the thread that reads. */
    @FunctionalInterface
    interface Opening {
        RecordReader open() throws IOException;
    }

    /**
     * Some records.
     *
     * @param warnings of the reader, with the last batch
     * @param failure what ended the reading, or null
     */
    private record Batch(
            List<Value> records,
            boolean last,
            List<Problem> warnings,
            @Nullable Throwable failure) {}

    private final BlockingQueue<Batch> batches = new ArrayBlockingQueue<>(BATCHES);
    private final Future<?> reading;
    /** Set before the last batch is handed over. */
    private volatile int stepsFound = -1;

    private @Nullable Batch batch;
    private int taken;

    /**
     * Begins to read.
     *
     * @param opening makes a reader of a sequence
     * @param threads where to read
     */
    ReadAhead(Opening opening, ExecutorService threads) {
        this.reading = threads.submit(() -> read(opening));
    }

    /** In the thread that reads. */
    private void read(Opening opening) {
        List<Value> records = new ArrayList<>(BATCH);
        List<Problem> warnings = List.of();
        Throwable failure = null;
        try {
            try (RecordReader reader = opening.open()) {
                long bytes = 0;
                for (Value record = reader.next(); record != null; record = reader.next()) {
                    bytes += records.size() % MEASURED == 0 ? MEASURED * ValueSize.of(record) : 0;
                    records.add(RecordValue.detached(record));
                    if (records.size() == BATCH || bytes > BATCH_BYTES) {
                        batches.put(new Batch(records, false, List.of(), null));
                        records = new ArrayList<>(BATCH);
                        bytes = 0;
                    }
                }
                warnings = reader.warnings();
                stepsFound = reader.stepsFound();
            } catch (IOException | RuntimeException | Error e) {
                failure = e;
            }
            batches.put(new Batch(records, true, warnings, failure));
        } catch (InterruptedException e) {
            // nobody wants more
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public boolean isSequence() {
        return true;
    }

    @Override
    public @Nullable Value next() throws IOException {
        while (batch == null || taken == batch.records().size()) {
            if (batch != null && batch.last()) {
                fail(batch.failure());
                return null;
            }
            batch = nextBatch();
            taken = 0;
        }
        return batch.records().get(taken++);
    }

    private Batch nextBatch() throws IOException {
        try {
            return batches.take();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("the run was interrupted", e);
        }
    }

    private static void fail(@Nullable Throwable failure) throws IOException {
        if (failure instanceof IOException e) {
            throw e;
        }
        if (failure instanceof RuntimeException e) {
            throw e;
        }
        if (failure instanceof Error e) {
            throw e;
        }
    }

    @Override
    public int stepsFound() {
        return stepsFound;
    }

    @Override
    public List<Problem> warnings() {
        return batch == null ? List.of() : batch.warnings();
    }

    @Override
    public void close() {
        reading.cancel(true);
    }
}
