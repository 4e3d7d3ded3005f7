package dev.morphema.testing.files;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Decides which operations of a file system fail: each that changes something or lists a folder is
 * counted, and one may fail, alone or with all that follow, which is what a program that is killed
 * there leaves behind. Not thread-safe.
 *
 * <pre>{@code
 * Faults faults = new Faults();
 * Path folder = faults.path(temporaryFolder);
 * faults.failFrom(7);
 * }</pre>
 */
public final class Faults {
    private static final int NEVER = Integer.MAX_VALUE;

    private final FaultyFileSystem files = new FaultyFileSystem(this);
    private final List<String> operations = new ArrayList<>();
    private int first = NEVER;
    private int last = NEVER;

    /** {@return the same path, on the file system whose operations may fail} */
    public Path path(Path path) {
        return files.wrapped(path);
    }

    /** Lets one operation fail, counted from 1 and from now. */
    public void failAt(int operation) {
        operations.clear();
        first = operation;
        last = operation;
    }

    /** Lets an operation, counted from 1 and from now, and all after it fail. */
    public void failFrom(int operation) {
        operations.clear();
        first = operation;
        last = NEVER;
    }

    /** Lets all operations succeed. */
    public void end() {
        operations.clear();
        first = NEVER;
        last = NEVER;
    }

    /** {@return what was done since it was last said what fails} */
    public List<String> operations() {
        return List.copyOf(operations);
    }

    /** {@return whether an operation has failed since} */
    public boolean haveHappened() {
        return operations.size() >= first;
    }

    void count(String operation, Object what) throws IOException {
        operations.add(operation + " " + what);
        if (operations.size() >= first && operations.size() <= last) {
            throw new IOException("injected fault: " + operation);
        }
    }
}
