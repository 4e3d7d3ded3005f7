package dev.morphema;

import dev.morphema.format.Input;
import java.io.IOException;

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

    /** {@return a file that the mapping names; opening it may fail} */
    Input file(String path);

    /** {@return another mapping that this one names} */
    MappingOrigin use(String path);
}
