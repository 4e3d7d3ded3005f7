package dev.morphema.xlsx;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.Collections;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;

/** Copies a workbook without the time at which it was made: equal runs write equal bytes. */
final class UndatedCopy {
    private static final String PROPERTIES = "docProps/core.xml";
    private static final LocalDateTime NO_TIME = LocalDateTime.of(1980, 1, 1, 0, 0);

    private UndatedCopy() {}

    static void write(Path workbook, OutputStream out) throws IOException {
        try (ZipFile archive = new ZipFile(workbook.toFile())) {
            ZipOutputStream copy = new ZipOutputStream(out);
            for (ZipEntry part : Collections.list(archive.entries())) {
                ZipEntry entry = new ZipEntry(part.getName());
                entry.setTimeLocal(NO_TIME);
                copy.putNextEntry(entry);
                if (part.getName().equals(PROPERTIES)) {
                    String text = new String(archive.getInputStream(part).readAllBytes(), StandardCharsets.UTF_8);
                    copy.write(text.replaceFirst("<dcterms:created.*?</dcterms:created>", "")
                            .getBytes(StandardCharsets.UTF_8));
                } else {
                    archive.getInputStream(part).transferTo(copy);
                }
                copy.closeEntry();
            }
            copy.finish();
        }
    }
}
