package dev.morphema.xlsx;

import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipFile;
import org.dhatim.fastexcel.reader.Row;
import org.jspecify.annotations.Nullable;

/**
 * The cells of a sheet that are one in sight, of which the first holds the value. The library does
 * not tell them, so they are looked for in the sheet's part of the archive, behind its rows. Not
 * thread-safe.
 */
final class MergedCells {
    private static final String LINKS = "xl/_rels/workbook.xml.rels";
    private static final String RELATIONS = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";

    /** In the order of their first rows. */
    private final List<CellRange> ranges;

    private int next;
    /** Those that the row at hand has a part of, with their values. */
    private final Map<CellRange, Value> open = new HashMap<>();

    private MergedCells(List<CellRange> ranges) {
        this.ranges = ranges;
    }

    /** {@return the merged cells of a sheet; none if its part is not where workbooks have it} */
    static MergedCells of(ZipFile workbook, String sheet) throws IOException {
        Map<String, String> sheets = new HashMap<>();
        WorkbookParts.each(workbook, WorkbookParts.WORKBOOK, "sheet", element -> {
            sheets.put(element.getAttributeValue(null, "name"), element.getAttributeValue(RELATIONS, "id"));
            return true;
        });
        Map<String, String> links = new HashMap<>();
        WorkbookParts.each(workbook, LINKS, "Relationship", element -> {
            links.put(element.getAttributeValue(null, "Id"), element.getAttributeValue(null, "Target"));
            return true;
        });
        String target = String.valueOf(links.get(sheets.get(sheet)));
        List<CellRange> ranges = new ArrayList<>();
        String part = target.startsWith("/") ? target.substring(1) : "xl/" + target;
        WorkbookParts.each(workbook, part, "mergeCell", element -> {
            add(element.getAttributeValue(null, "ref"), ranges);
            return true;
        });
        ranges.sort(Comparator.comparingInt(CellRange::firstRow));
        return new MergedCells(ranges);
    }

    private static void add(@Nullable String reference, List<CellRange> ranges) {
        CellRange range = reference == null ? null : CellRange.parse(reference);
        if (range != null) {
            ranges.add(range);
        }
    }

    /** A row is read, in which some may begin; rows come in order. */
    void take(Row row, CellValue cells) {
        int index = row.getRowNum() - 1;
        open.keySet().removeIf(range -> range.lastRow() < index);
        while (next < ranges.size() && ranges.get(next).firstRow() <= index) {
            CellRange range = ranges.get(next++);
            boolean here = range.firstRow() == index && range.firstColumn() < row.getCellCount();
            open.put(range, here ? cells.of(row.getCell(range.firstColumn())) : Missing.ABSENT);
        }
    }

    /**
     * {@return the value of the cell that a cell of the row is one with; null if it stands for
     * itself}
     */
    @Nullable
    Value at(int column) {
        for (Map.Entry<CellRange, Value> merged : open.entrySet()) {
            CellRange range = merged.getKey();
            if (range.firstColumn() <= column && column <= range.lastColumn()) {
                return merged.getValue();
            }
        }
        return null;
    }
}
