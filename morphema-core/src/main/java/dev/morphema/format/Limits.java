package dev.morphema.format;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.EnumMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How much of each kind an input or a run may have, so that no small input can stop the program
 * that reads it. Immutable and safe for use by many threads.
 */
public final class Limits {
    /** So much that nothing comes near. */
    public static final long UNLIMITED = Long.MAX_VALUE;

    /** What holds if nothing is said. */
    public static final Limits DEFAULT = new Limits(Map.of());

    private final Map<Limit, Long> given;

    private Limits(Map<Limit, Long> given) {
        this.given = given;
    }

    /**
     * {@return these limits with another one}
     *
     * @param most how much there may be, from {@link Limit#least} to {@link #UNLIMITED}
     * @throws IllegalArgumentException if below
     */
    public Limits with(Limit limit, long most) {
        if (most < limit.least()) {
            throw new IllegalArgumentException(limit.word() + " below " + limit.least() + ": " + most);
        }
        Map<Limit, Long> more = new EnumMap<>(Limit.class);
        more.putAll(given);
        more.put(limit, most);
        return new Limits(more);
    }

    /** {@return whether none of them is another than usual, or only one} */
    public boolean areUsualBut(Limit one) {
        return given.isEmpty() || given.size() == 1 && given.containsKey(one);
    }

    /** {@return how much there may be} */
    public long most(Limit limit) {
        Long most = given.get(limit);
        return most == null ? limit.usual() : most;
    }

    /** {@return how much there may be, or the largest number of this type} */
    public int mostInt(Limit limit) {
        return (int) Math.min(most(limit), Integer.MAX_VALUE);
    }

    /**
     * {@return what tells that there is more than allowed}
     *
     * @param place where in an input, if it is known
     */
    public ProblemException exceeded(Limit limit, @Nullable InputLocation place) {
        return new ProblemException(
                Problem.error(Code.LIMIT, "There are more than " + most(limit) + " " + limit.what() + ".")
                        .in(place)
                        .withHelp("if that is meant: --limit " + limit.word() + "=NUMBER, in Java Limits.with(Limit."
                                + limit.name() + ", …)"));
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Limits limits && given.equals(limits.given);
    }

    @Override
    public int hashCode() {
        return given.hashCode();
    }

    @Override
    public String toString() {
        return given.toString();
    }
}
