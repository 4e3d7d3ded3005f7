package dev.morphema;

import dev.morphema.format.Input;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;

/** Where the text of a mapping comes from, and the files that it names. */
interface MappingOrigin {
    /** {@return what problems call the text} */
    String name();

    /**
     * {@return the text of the mapping}
     *
     * @throws IOException if it cannot be read
     */
    String text() throws IOException;

    /**
     * {@return what is equal for the same text, however it is named}
     *
     * @throws IOException if it is not there
     */
    default Object identity() throws IOException {
        return name();
    }

    /** {@return a file that the mapping names; opening it may fail} */
    Input file(String path);

    /** {@return the files that a pattern means, or the one where it is none} */
    default List<Input> files(String pattern) {
        return List.of(file(pattern));
    }

    /** {@return another mapping that this one names} */
    MappingOrigin use(String path);

    /**
     * {@return the files of this system that were read for the mapping, it and those that it uses
     * among them}
     */
    default Set<Path> filesRead() {
        return Set.of();
    }
}
