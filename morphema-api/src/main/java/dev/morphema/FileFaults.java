package dev.morphema;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.NoSuchFileException;

/** Says in words why a file cannot be read or written. */
final class FileFaults {
    private FileFaults() {}

    static String reason(IOException e) {
        if (e instanceof NoSuchFileException) {
            return "there is no such file: " + e.getMessage();
        }
        if (e instanceof AccessDeniedException) {
            return "access is denied: " + e.getMessage();
        }
        return String.valueOf(e.getMessage());
    }
}
