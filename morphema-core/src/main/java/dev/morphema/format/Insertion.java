package dev.morphema.format;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.Collection;
import java.util.List;

/**
 * How a document is put into another that is there already.
 *
 * @param path the names that lead to its place from the outermost record; empty for that itself
 * @param existing what becomes of entries that are there already
 */
public record Insertion(List<String> path, Existing existing) {
    /** What becomes of an entry that is there already. */
    public enum Existing {
        /** It is a problem, and nothing is changed. */
        REFUSED,
        /** The new one takes its place. */
        REPLACED,
        /** It is a list, which gets further items; what is no list is a problem. */
        EXTENDED
    }

    public Insertion {
        path = List.copyOf(path);
    }

    /**
     * {@return the problem that an entry is there already}
     *
     * @param entry the names that lead to it
     * @param place where it stands
     */
    public ProblemException refused(List<String> entry, InputLocation place) {
        String message = existing == Existing.EXTENDED
                ? "What stands here is no list, so nothing can be added to it."
                : entry.isEmpty()
                        ? "There is something here already."
                        : "There is an entry " + entry.get(entry.size() - 1) + " already.";
        return new ProblemException(Problem.error(Code.NOT_WRITTEN, message)
                .in(entry.isEmpty() ? place : place.withField(String.join(".", entry)))
                .withHelp("--replace puts the new entry in its place; --append adds to a list; nothing was changed"));
    }

    /**
     * {@return the problem that the path leads nowhere: only its last name may be a new one}
     *
     * @param step the name that is not there
     * @param known those that are
     * @param place where the record begins that should have it
     */
    public static ProblemException unknown(String step, Collection<String> known, InputLocation place) {
        return new ProblemException(
                Problem.error(Code.NOT_WRITTEN, "There is no entry " + step + " here, to put something into.")
                        .in(place)
                        .withHelp(NearNames.proposal(step, List.copyOf(known))
                                .orElse("only the last name of a place may be a new one")));
    }

    /**
     * {@return the problem that the path leads into something that has no entries}
     *
     * @param entry the names that lead to it
     * @param place where it stands
     */
    public ProblemException noRecord(List<String> entry, InputLocation place) {
        return new ProblemException(
                Problem.error(Code.NOT_WRITTEN, "What stands here has no entries, so nothing can be put into it.")
                        .in(entry.isEmpty() ? place : place.withField(String.join(".", entry)))
                        .withHelp("--at names the place, as in --at ports.northern"));
    }
}
