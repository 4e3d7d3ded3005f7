package dev.morphema.store;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.ValueNames;
import java.io.IOException;

/**
 * The memory that the groups and sorts of one run may use, and where they spill what exceeds it.
 * Not thread-safe.
 */
public final class MemoryBudget {
    /** Who holds less than this share of the budget gains nothing for the others by spilling it. */
    private static final int SMALLEST_SHARE = 8;

    private final long budget;
    private final Scratch scratch;
    private final ValueNames names = new ValueNames();
    private long held;

    /**
     * @param budget how many bytes may be held, about
     * @param scratch takes what is more than that
     */
    public MemoryBudget(long budget, Scratch scratch) {
        this.budget = budget;
        this.scratch = scratch;
    }

    /** So many bytes more are held; fewer, if below 0. */
    public void add(long bytes) {
        held += bytes;
    }

    /** {@return whether one that holds so many of the bytes is to spill them} */
    public boolean isTooMuch(long own) {
        return held > budget && own > budget / SMALLEST_SHARE;
    }

    /** {@return an empty list of rows that is kept outside of memory} */
    public SpillFile newSpillFile() {
        return new SpillFile(scratch, names);
    }

    /** {@return the bytes that each of several readers may use for what it reads ahead} */
    public int readAhead(int readers) {
        return (int) Math.max(1 << 10, Math.min(1 << 16, budget / 4 / Math.max(1, readers)));
    }

    static ProblemException unusable(IOException e) {
        return new ProblemException(
                Problem.error(
                                Code.NOT_WRITTEN,
                                "Groups or sorting need more memory than the run may use, and a temporary file for the rest cannot be used: "
                                        + e.getMessage() + ".")
                        .withHelp("give the run more memory, or make room in the folder for temporary files"),
                e);
    }
}
