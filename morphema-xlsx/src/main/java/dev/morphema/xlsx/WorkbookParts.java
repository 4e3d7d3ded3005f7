package dev.morphema.xlsx;

import java.io.IOException;
import java.io.InputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** Looks into the parts of a workbook's archive for what the library does not tell. */
final class WorkbookParts {
    /** The part that lists the sheets. */
    static final String WORKBOOK = "xl/workbook.xml";

    private WorkbookParts() {}

    /** What is done with an element of a part. */
    @FunctionalInterface
    interface Element {
        /** Takes an element; says whether further ones are wanted. */
        boolean take(XMLStreamReader element);
    }

    /** Gives the elements of a name to somebody, in order; none if there is no such part. */
    static void each(ZipFile workbook, String part, String name, Element element) throws IOException {
        ZipEntry entry = workbook.getEntry(part);
        if (entry == null) {
            return;
        }
        XMLInputFactory parsers = XMLInputFactory.newDefaultFactory();
        parsers.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        parsers.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (InputStream bytes = workbook.getInputStream(entry)) {
            XMLStreamReader reader = parsers.createXMLStreamReader(bytes);
            boolean more = true;
            while (more && reader.hasNext()) {
                boolean found = reader.next() == XMLStreamReader.START_ELEMENT
                        && reader.getLocalName().equals(name);
                more = !found || element.take(reader);
            }
        } catch (XMLStreamException e) {
            throw new IOException("a part of the workbook is not well-formed", e);
        }
    }
}
