package dev.morphema.check;

import dev.morphema.format.FormatRegistry;
import dev.morphema.format.Input;
import dev.morphema.function.FunctionTable;
import dev.morphema.shape.SchemaReader;
import dev.morphema.syntax.SourceText;
import java.util.List;
import java.util.function.Supplier;

/**
 * What a mapping can rely on.
 *
 * @param formats by name
 * @param functions by name
 * @param files the files that mappings name
 * @param schemas what reads the schemas among them, asked for once there is one; the first that
 *     knows it
 *     is taken
 */
public record Environment(
        FormatRegistry formats, FunctionTable functions, Files files, Supplier<List<SchemaReader>> schemas) {
    /** What no mapping with a schema can rely on. */
    public Environment(FormatRegistry formats, FunctionTable functions, Files files) {
        this(formats, functions, files, List::of);
    }

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
