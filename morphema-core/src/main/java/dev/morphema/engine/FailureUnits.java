package dev.morphema.engine;

import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * The units of a run: all that one record leads to, or one group, comes about as a whole or not at
 * all. What is written of a unit that fails is taken back; what others are to remember of it, such
 * as groups and tables, they take up only when it is complete. Where nothing is rejected there are
 * no units, and a failure fails the run. One for each run; not thread-safe.
 */
final class FailureUnits {
    private final @Nullable Rejects rejects;
    /** Of the documents that are being written, those that can go back. */
    private final List<DocumentWriter> writers = new ArrayList<>();

    private @Nullable Unit open;
    /** How many tables and totals are being made, which write nothing. */
    private int apart;

    /** A unit that is not complete. */
    private static final class Unit {
        private final List<Runnable> takeUps = new ArrayList<>();
        private final List<Runnable> undos = new ArrayList<>();

        void complete() {
            takeUps.forEach(Runnable::run);
        }

        void undo() {
            for (int i = undos.size() - 1; i >= 0; i--) {
                undos.get(i).run();
            }
        }
    }

    FailureUnits(@Nullable Rejects rejects) {
        this.rejects = rejects;
    }

    /** {@return whether records may be rejected} */
    boolean areThere() {
        return rejects != null;
    }

    /**
     * {@return whether what begins now goes on beyond a unit}, so that it must take up what it is
     * given of one only {@linkplain #takeUp when that is complete}.
     */
    boolean areWithin() {
        return rejects != null && open == null;
    }

    /**
     * Does what a record or a group leads to, as one unit unless it is part of another; says
     * whether more are wanted.
     *
     * @param record null for a group
     */
    boolean run(@Nullable Value record, BooleanSupplier turn) {
        return rejects == null || open != null ? turn.getAsBoolean() : asUnit(rejects, record, turn);
    }

    private boolean asUnit(Rejects by, @Nullable Value record, BooleanSupplier turn) {
        Unit unit = new Unit();
        mark();
        try {
            open = unit;
            boolean more = turn.getAsBoolean();
            open = null;
            if (!by.rejects(record, null)) {
                unit.complete();
                return more;
            }
        } catch (ProblemException e) {
            open = null;
            if (!by.rejects(record, e)) {
                throw e;
            }
        }
        unit.undo();
        rewind();
        return true;
    }

    private void mark() {
        if (apart == 0) {
            writers.forEach(DocumentWriter::mark);
        }
    }

    private void rewind() {
        if (apart == 0) {
            writers.forEach(DocumentWriter::rewind);
        }
    }

    /** Makes a table or a total, of records that have units of their own. */
    <T> T apart(Supplier<T> making) {
        Unit around = open;
        open = null;
        apart++;
        try {
            return making.get();
        } finally {
            apart--;
            open = around;
        }
    }

    /** Does something when the unit at hand is complete; now if there is none. */
    void takeUp(Runnable doing) {
        if (open == null) {
            doing.run();
        } else {
            open.takeUps.add(doing);
        }
    }

    /** Undoes something that was done just now if the unit at hand fails. */
    void onFailure(Runnable undoing) {
        if (open != null) {
            open.undos.add(undoing);
        }
    }

    /** Begins to write a document; says whether what is written of it can be taken back. */
    boolean begin(DocumentWriter writer) {
        if (rejects == null || !writer.mark()) {
            return false;
        }
        writers.add(writer);
        return true;
    }

    /** {@return whether what is written to a document at once can not be taken back} */
    boolean mustWait(Object writer) {
        return open != null && apart == 0 && writer instanceof DocumentWriter document && !writers.contains(document);
    }

    /** A document is complete. */
    void end(DocumentWriter writer) {
        writers.remove(writer);
    }
}
