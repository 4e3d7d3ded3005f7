package dev.morphema.xlsx;

import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Collections;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;

/**
 * A workbook that is open, from a copy of its own: its parts are read in another order than they
 * stand. The copy goes away when it is closed. Not thread-safe.
 */
final class WorkbookFile implements Closeable {
    private static final long SMALL = 64L << 20;

    private final String name;
    private final Path copy;
    private final ReadableWorkbook workbook;
    private final boolean from1904;

    private WorkbookFile(String name, Path copy, ReadableWorkbook workbook, boolean from1904) {
        this.name = name;
        this.copy = copy;
        this.workbook = workbook;
        this.from1904 = from1904;
    }

    static WorkbookFile open(Input input, Limits limits) throws IOException {
        Path copy = Files.createTempFile("morphema-", ".xlsx");
        try {
            try (InputStream bytes = input.open()) {
                Files.copy(bytes, copy, StandardCopyOption.REPLACE_EXISTING);
            }
            requireWorkbook(input.name(), copy);
            boolean from1904;
            try (ZipFile archive = new ZipFile(copy.toFile())) {
                limit(input.name(), archive, Files.size(copy), limits);
                from1904 = DateSystem.isFrom1904(archive);
            }
            ReadableWorkbook workbook = new ReadableWorkbook(copy.toFile(), new ReadingOptions(true, true));
            return new WorkbookFile(input.name(), copy, workbook, from1904);
        } catch (ZipException | ExcelReaderException e) {
            Files.deleteIfExists(copy);
            throw broken(input.name(), e);
        } catch (IOException | RuntimeException e) {
            Files.deleteIfExists(copy);
            throw e;
        }
    }

    /** Tells what it is instead. */
    private static void requireWorkbook(String name, Path copy) throws IOException {
        byte[] head;
        try (InputStream bytes = Files.newInputStream(copy)) {
            head = bytes.readNBytes(1 << 12);
        }
        if (head.length > 1 && head[0] == 'P' && head[1] == 'K') {
            return;
        }
        String text = new String(head, StandardCharsets.ISO_8859_1);
        if (text.startsWith("\u00D0\u00CF\u0011\u00E0")) {
            boolean encrypted = containsWide(copy, "EncryptedPackage");
            throw refused(
                    name,
                    encrypted
                            ? "The workbook is protected by a password."
                            : "This is a workbook in the older binary form, which is not read.",
                    encrypted ? "save it without a password" : "save it as .xlsx");
        }
        throw refused(
                name, "This is no workbook.", head.length == 0 ? "the file is empty" : looks(text.stripLeading()));
    }

    private static String looks(String start) {
        if (start.startsWith("<")) {
            return "the input looks like XML, whose format is xml";
        } else if (start.startsWith("{") || start.startsWith("[")) {
            return "the input looks like JSON, whose format is json";
        }
        return "the input looks like text, perhaps CSV, whose format is csv";
    }

    /** Names in such files are in UTF-16. */
    private static boolean containsWide(Path file, String word) throws IOException {
        String bytes = new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1);
        return bytes.contains(new String(word.getBytes(StandardCharsets.UTF_16LE), StandardCharsets.ISO_8859_1));
    }

    /** A workbook is a compressed archive, which could become much more than it is. */
    private static void limit(String name, ZipFile archive, long compressed, Limits limits) {
        long size = 0;
        for (ZipEntry part : Collections.list(archive.entries())) {
            size += Math.max(0, part.getSize());
        }
        if (size > SMALL && size / Math.max(1, compressed) > limits.most(Limit.GROWTH)) {
            throw limits.exceeded(Limit.GROWTH, InputLocation.at(name, 0, 0));
        }
        if (size > limits.most(Limit.BYTES)) {
            throw limits.exceeded(Limit.BYTES, InputLocation.at(name, 0, 0));
        }
    }

    private static ProblemException refused(String name, String message, String help) {
        return new ProblemException(Problem.error(Code.BAD_WORKBOOK, message)
                .in(InputLocation.at(name, 0, 0))
                .withHelp(help));
    }

    static ProblemException broken(String name, Exception cause) {
        return new ProblemException(
                Problem.error(Code.BAD_WORKBOOK, "The workbook is damaged, and cannot be read to its end.")
                        .in(InputLocation.at(name, 0, 0))
                        .withHelp("was it copied whole?"),
                cause);
    }

    String name() {
        return name;
    }

    /** {@return whether days count from 1904 on} */
    boolean isFrom1904() {
        return from1904;
    }

    /** {@return the cells of a sheet that are one in sight} */
    MergedCells merged(String sheet) throws IOException {
        try (ZipFile archive = new ZipFile(copy.toFile())) {
            return MergedCells.of(archive, sheet);
        }
    }

    ReadableWorkbook workbook() {
        return workbook;
    }

    @Override
    public void close() throws IOException {
        try {
            workbook.close();
        } finally {
            Files.deleteIfExists(copy);
        }
    }
}
