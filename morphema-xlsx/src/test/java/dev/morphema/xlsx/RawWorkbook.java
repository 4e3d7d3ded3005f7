package dev.morphema.xlsx;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** A workbook made part by part, as other programs write it. */
final class RawWorkbook {
    private static final String NAMESPACE = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private static final String RELATIONS = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
    private static final String PACKAGE = "http://schemas.openxmlformats.org/package/2006/";

    private final List<String> names = new ArrayList<>();
    private final List<String> sheets = new ArrayList<>();
    private String properties = "";

    /**
     * Formats of cells: 1 a date, 2 a date and time, 3 a number with words, 4 a time, 5 a month.
     */
    private static final String STYLES = "<numFmts><numFmt numFmtId=\"164\" formatCode=\"dd/mm/yyyy\\ hh:mm\"/>"
            + "<numFmt numFmtId=\"165\" formatCode=\"#,##0.00&quot; days&quot;\"/>"
            + "<numFmt numFmtId=\"166\" formatCode=\"mmm\"/></numFmts>"
            + "<fonts><font/></fonts><fills><fill/></fills><borders><border/></borders><cellStyleXfs><xf/></cellStyleXfs>"
            + "<cellXfs><xf numFmtId=\"0\"/><xf numFmtId=\"14\"/><xf numFmtId=\"164\"/><xf numFmtId=\"165\"/><xf numFmtId=\"20\"/><xf numFmtId=\"166\"/></cellXfs>";

    /** Adds a sheet; each cell is given as XML, or as a text, or null for none. */
    RawWorkbook sheet(String name, Object[]... rows) {
        StringBuilder xml = new StringBuilder();
        for (int r = 0; r < rows.length; r++) {
            xml.append("<row r=\"").append(r + 1).append("\">");
            for (int c = 0; c < rows[r].length; c++) {
                if (rows[r][c] != null) {
                    xml.append(cell(rows[r][c]).replaceFirst("<c", "<c r=\"" + CellRange.letters(c) + (r + 1) + "\""));
                }
            }
            xml.append("</row>");
        }
        names.add(name);
        sheets.add(xml.toString());
        return this;
    }

    private static String cell(Object value) {
        String text = value.toString();
        if (text.startsWith("<c")) {
            return text;
        }
        return value instanceof Number
                ? "<c><v>" + text + "</v></c>"
                : "<c t=\"inlineStr\"><is><t xml:space=\"preserve\">" + text + "</t></is></c>";
    }

    RawWorkbook from1904() {
        properties = "<workbookPr date1904=\"1\"/>";
        return this;
    }

    byte[] bytes() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            StringBuilder types = new StringBuilder();
            StringBuilder listed = new StringBuilder();
            StringBuilder related = new StringBuilder();
            for (int i = 0; i < sheets.size(); i++) {
                String part = "worksheets/sheet" + (i + 1) + ".xml";
                types.append(override(part, "worksheet"));
                listed.append("<sheet name=\"")
                        .append(names.get(i))
                        .append("\" sheetId=\"")
                        .append(i + 1);
                listed.append(names.get(i).startsWith("Hidden") ? "\" state=\"hidden" : "");
                listed.append("\" r:id=\"rId").append(i + 1).append("\"/>");
                related.append(relation("rId" + (i + 1), "worksheet", part));
                put(
                        zip,
                        "xl/" + part,
                        "<worksheet xmlns=\"" + NAMESPACE + "\"><sheetData>" + sheets.get(i)
                                + "</sheetData></worksheet>");
            }
            put(
                    zip,
                    "[Content_Types].xml",
                    "<Types xmlns=\"" + PACKAGE
                            + "content-types\"><Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                            + "<Default Extension=\"xml\" ContentType=\"application/xml\"/>"
                            + override("workbook.xml", "sheet.main") + override("styles.xml", "styles")
                            + types + "</Types>");
            put(
                    zip,
                    "_rels/.rels",
                    "<Relationships xmlns=\"" + PACKAGE + "relationships\">"
                            + relation("rId1", "officeDocument", "xl/workbook.xml") + "</Relationships>");
            put(
                    zip,
                    "xl/workbook.xml",
                    "<workbook xmlns=\"" + NAMESPACE + "\" xmlns:r=\"" + RELATIONS + "\">" + properties + "<sheets>"
                            + listed + "</sheets></workbook>");
            put(
                    zip,
                    "xl/_rels/workbook.xml.rels",
                    "<Relationships xmlns=\"" + PACKAGE + "relationships\">" + related
                            + relation("rId90", "styles", "styles.xml") + "</Relationships>");
            put(zip, "xl/styles.xml", "<styleSheet xmlns=\"" + NAMESPACE + "\">" + STYLES + "</styleSheet>");
        }
        return bytes.toByteArray();
    }

    private static String override(String part, String type) {
        return "<Override PartName=\"/xl/" + part
                + "\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml." + type + "+xml\"/>";
    }

    private static String relation(String id, String type, String part) {
        return "<Relationship Id=\"" + id + "\" Type=\"" + RELATIONS + "/" + type + "\" Target=\"" + part + "\"/>";
    }

    private static void put(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(("<?xml version=\"1.0\" encoding=\"UTF-8\"?>" + text).getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }
}
