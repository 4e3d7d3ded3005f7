package dev.morphema.engine;

import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** Gives writers of the targets. */
public interface Writers {
    /**
     * A document of a target that has many.
     *
     * @param name as the mapping gives it, which may be anything
     * @param place where the record stood that it is made for, or null if that is not known
     */
    record Document(String name, @Nullable InputLocation place) {}

    /** {@return whether a target is wanted} */
    boolean wants(int target);

    /**
     * {@return a writer of a target, or of a document of a target that has many}
     *
     * @param document null if the target has one document
     * @throws IOException if it cannot be opened
     * @throws ProblemException if a document cannot have that name
     */
    DocumentWriter open(int target, @Nullable Document document) throws IOException;
}
