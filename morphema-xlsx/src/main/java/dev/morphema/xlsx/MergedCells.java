package dev.morphema.xlsx;

import dev.morphema.value.Value;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.dhatim.fastexcel.reader.Row;
import org.jspecify.annotations.Nullable;

/**
 * The cells of a sheet that are one in sight, of which the first holds the value. The library does
 * not tell them, so they are looked for in the sheet's part of the archive, behind its rows. Not
 * thread-safe.
 */
final class MergedCells {
    private static final String WORKBOOK = "xl/workbook.xml";
    private static final String LINKS = "xl/_rels/workbook.xml.rels";
    private static final String RELATIONS = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";

    private final List<CellRange> ranges;
    /** The values of those that began so far. */
    private final Map<CellRange, Value> values = new HashMap<>();

    private MergedCells(List<CellRange> ranges) {
        this.ranges = ranges;
    }

    /** What is done with an element of a part. */
    @FunctionalInterface
    private interface Element {
        void take(XMLStreamReader element);
    }

    /** {@return the merged cells of a sheet; none if its part is not where workbooks have it} */
    static MergedCells of(ZipFile workbook, String sheet) throws IOException {
        Map<String, String> sheets = new HashMap<>();
        Map<String, String> links = new HashMap<>();
        each(
                workbook,
                WORKBOOK,
                "sheet",
                element -> sheets.put(
                        element.getAttributeValue(null, "name"), element.getAttributeValue(RELATIONS, "id")));
        each(
                workbook,
                LINKS,
                "Relationship",
                element -> links.put(element.getAttributeValue(null, "Id"), element.getAttributeValue(null, "Target")));
        String target = String.valueOf(links.get(sheets.get(sheet)));
        List<CellRange> ranges = new ArrayList<>();
        each(
                workbook,
                target.startsWith("/") ? target.substring(1) : "xl/" + target,
                "mergeCell",
                element -> add(element.getAttributeValue(null, "ref"), ranges));
        return new MergedCells(ranges);
    }

    private static void add(@Nullable String reference, List<CellRange> ranges) {
        CellRange range = reference == null ? null : CellRange.parse(reference);
        if (range != null) {
            ranges.add(range);
        }
    }

    private static void each(ZipFile workbook, String part, String name, Element element) throws IOException {
        ZipEntry entry = workbook.getEntry(part);
        if (entry == null) {
            return;
        }
        XMLInputFactory parsers = XMLInputFactory.newDefaultFactory();
        parsers.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        parsers.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (InputStream bytes = workbook.getInputStream(entry)) {
            XMLStreamReader reader = parsers.createXMLStreamReader(bytes);
            while (reader.hasNext()) {
                if (reader.next() == XMLStreamReader.START_ELEMENT
                        && reader.getLocalName().equals(name)) {
                    element.take(reader);
                }
            }
        } catch (XMLStreamException e) {
            throw new IOException("a part of the workbook is not well-formed", e);
        }
    }

    /** A row is read, in which some may begin. */
    void take(Row row, CellValue cells) {
        for (CellRange range : ranges) {
            if (range.firstRow() == row.getRowNum() - 1 && range.firstColumn() < row.getCellCount()) {
                values.put(range, cells.of(row.getCell(range.firstColumn())));
            }
        }
    }

    /** {@return the value of the cell that a cell is one with; null if it stands for itself} */
    @Nullable
    Value at(Row row, int column) {
        int index = row.getRowNum() - 1;
        for (CellRange range : ranges) {
            if (range.firstRow() <= index
                    && index <= range.lastRow()
                    && range.firstColumn() <= column
                    && column <= range.lastColumn()) {
                return values.get(range);
            }
        }
        return null;
    }
}
