package dev.morphema.benchmarks.plain;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import tools.jackson.core.JsonGenerator;

/** XML records to JSON Lines as most would write it: a map for each record. */
public final class S3 {
    private S3() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (InputStream in = Files.newInputStream(folder.resolve("calls.xml"));
                OutputStream out = Files.newOutputStream(file);
                JsonGenerator json = Json.lines(out)) {
            XMLStreamReader xml = XMLInputFactory.newDefaultFactory().createXMLStreamReader(in);
            while (xml.hasNext()) {
                if (xml.next() == XMLStreamConstants.START_ELEMENT
                        && xml.getLocalName().equals("Call")) {
                    Json.writeObject(call(xml), json);
                }
            }
            json.writeRaw('\n');
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }

    private static Map<String, Object> call(XMLStreamReader xml) throws XMLStreamException {
        Map<String, String> found = new LinkedHashMap<>();
        String no = xml.getAttributeValue(null, "no");
        String imo = xml.getAttributeValue(null, "imo");
        String unit = null;
        String text = "";
        for (int event = xml.next();
                event != XMLStreamConstants.END_ELEMENT || !xml.getLocalName().equals("Call");
                event = xml.next()) {
            if (event == XMLStreamConstants.START_ELEMENT) {
                text = "";
                if (xml.getLocalName().equals("Weight")) {
                    unit = xml.getAttributeValue(null, "unit");
                }
            } else if (event == XMLStreamConstants.CHARACTERS) {
                text += xml.getText();
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                found.put(xml.getLocalName(), text);
            }
        }
        Map<String, Object> record = new LinkedHashMap<>();
        record.put("no", no);
        record.put("imo", imo);
        record.put("ship", found.get("Ship"));
        record.put("eta", found.get("Eta"));
        record.put("berth", found.get("Berth"));
        record.put("weight", new BigDecimal(found.get("Weight")));
        record.put("unit", unit);
        record.put("agent", found.get("Name"));
        record.put("remark", found.get("Remark"));
        return record;
    }
}
