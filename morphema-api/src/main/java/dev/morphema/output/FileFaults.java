package dev.morphema.output;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;

/** Says in words why a file cannot be read or written. */
public final class FileFaults {
    private static final String ON_ITS_OWN = "the place is mounted by itself, apart from its folder: ";

    /** What Linux says of a file that is mounted. */
    private static final String BUSY = "Device or resource busy";

    private FileFaults() {}

    /** {@return the reason, as a part of a sentence} */
    public static String reason(IOException e) {
        if (e instanceof NoSuchFileException) {
            return "there is no such file: " + e.getMessage();
        }
        if (e instanceof AccessDeniedException) {
            return "access is denied: " + e.getMessage();
        }
        if (e instanceof AtomicMoveNotSupportedException moved) {
            return ON_ITS_OWN + moved.getOtherFile();
        }
        if (e instanceof FileSystemException fault && fault.getReason() != null) {
            String file = fault.getOtherFile() == null ? fault.getFile() : fault.getOtherFile();
            return (BUSY.equals(fault.getReason()) ? ON_ITS_OWN : fault.getReason() + ": ") + file;
        }
        return String.valueOf(e.getMessage());
    }
}
