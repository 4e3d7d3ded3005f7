package dev.morphema.benchmarks;

import java.io.IOException;
import java.nio.file.Path;

/** One way to do a workload. */
@FunctionalInterface
interface Contender {
    /**
     * Does the work once.
     *
     * @param folder with the inputs
     * @param out the file to be written
     */
    void run(Path folder, Path out) throws IOException;
}
