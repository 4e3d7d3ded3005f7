package dev.morphema.benchmarks.plain;

import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/** A JSON array to XML as most would write it: a tree for each record. */
public final class S4 {
    private S4() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        try (JsonParser json =
                        new JsonFactory().createParser(ObjectReadContext.empty(), folder.resolve("bookings.json"));
                BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
            XMLStreamWriter xml = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(out);
            xml.writeStartElement("Bookings");
            json.nextToken();
            while (json.nextToken() == JsonToken.START_OBJECT) {
                write((Map<?, ?>) Trees.value(json), xml);
            }
            xml.writeEndElement();
            xml.flush();
            out.write("\n");
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }

    private static void write(Map<?, ?> booking, XMLStreamWriter xml) throws XMLStreamException {
        xml.writeStartElement("Booking");
        xml.writeAttribute("imo", booking.get("imo").toString());
        xml.writeAttribute("berth", booking.get("berth").toString());
        element("Ship", booking.get("ship"), xml);
        element("Draught", booking.get("draught"), xml);
        for (Object item : (List<?>) booking.get("slots")) {
            Map<?, ?> slot = (Map<?, ?>) item;
            xml.writeStartElement("Slot");
            xml.writeAttribute("crane", slot.get("crane").toString());
            xml.writeAttribute("from", slot.get("from").toString());
            xml.writeCharacters(slot.get("moves").toString());
            xml.writeEndElement();
        }
        element("Remark", booking.get("remark"), xml);
        xml.writeEndElement();
    }

    private static void element(String name, Object text, XMLStreamWriter xml) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(text.toString());
        xml.writeEndElement();
    }
}
