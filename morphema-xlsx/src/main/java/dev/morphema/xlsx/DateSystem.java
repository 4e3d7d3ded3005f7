package dev.morphema.xlsx;

import java.io.IOException;
import java.io.InputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * Finds out from which day a workbook counts. The library takes only the word true for true, but
 * spreadsheets write 1.
 */
final class DateSystem {
    private static final String WORKBOOK = "xl/workbook.xml";

    private DateSystem() {}

    /** {@return whether the days of a workbook count from 1904 on} */
    static boolean isFrom1904(ZipFile workbook) throws IOException {
        ZipEntry entry = workbook.getEntry(WORKBOOK);
        if (entry == null) {
            return false;
        }
        try (InputStream bytes = workbook.getInputStream(entry)) {
            return isFrom1904(bytes);
        }
    }

    private static boolean isFrom1904(InputStream bytes) throws IOException {
        XMLInputFactory parsers = XMLInputFactory.newDefaultFactory();
        parsers.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        parsers.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try {
            XMLStreamReader reader = parsers.createXMLStreamReader(bytes);
            while (reader.hasNext()) {
                if (reader.next() == XMLStreamReader.START_ELEMENT
                        && reader.getLocalName().equals("workbookPr")) {
                    String from = reader.getAttributeValue(null, "date1904");
                    return "1".equals(from) || "true".equals(from);
                }
            }
            return false;
        } catch (XMLStreamException e) {
            throw new IOException("the list of sheets is not well-formed", e);
        }
    }
}
