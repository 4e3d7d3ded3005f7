package dev.morphema.check;

import dev.morphema.format.FormatRegistry;
import dev.morphema.format.Input;
import dev.morphema.function.FunctionTable;
import dev.morphema.syntax.SourceText;
import java.util.List;

/**
 * What a mapping can rely on.
 *
 * @param formats by name
 * @param functions by name
 * @param files the files that mappings name
 */
public record Environment(FormatRegistry formats, FunctionTable functions, Files files) {
    /** Finds the files that a mapping names: samples, tables, common parts. */
    @FunctionalInterface
    public interface Files {
        /**
         * {@return the file; opening it may fail}
         *
         * @param from the text that names it, to which a relative path is relative
         * @param path as the mapping writes it
         */
        Input find(SourceText from, String path);

        /**
         * {@return the files that a pattern means; without pattern just the one}
         *
         * @throws dev.morphema.problem.ProblemException if a pattern means no file
         */
        default List<Input> all(SourceText from, String pattern) {
            return List.of(find(from, pattern));
        }
    }
}
