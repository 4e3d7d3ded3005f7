package dev.morphema.xlsx;

import java.io.IOException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.zip.ZipFile;

/**
 * Finds out from which day a workbook counts. The library takes only the word true for true, but
 * spreadsheets write 1.
 */
final class DateSystem {
    private DateSystem() {}

    /** {@return whether the days of a workbook count from 1904 on} */
    static boolean isFrom1904(ZipFile workbook) throws IOException {
        AtomicBoolean from1904 = new AtomicBoolean();
        WorkbookParts.each(workbook, WorkbookParts.WORKBOOK, "workbookPr", element -> {
            String from = element.getAttributeValue(null, "date1904");
            from1904.set("1".equals(from) || "true".equals(from));
            return false;
        });
        return from1904.get();
    }
}
