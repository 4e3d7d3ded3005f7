package dev.morphema.benchmarks.hand;

import com.fasterxml.aalto.stax.InputFactoryImpl;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** One message in XML to JSON, written while it is read. */
public final class M2 {
    private static final InputFactoryImpl FACTORY = new InputFactoryImpl();
    private static final byte[] PORT = Sink.bytes("{\"port\":\"");
    private static final byte[] DAY = Sink.bytes("\",\"day\":\"");
    private static final byte[] CALLS = Sink.bytes("\",\"calls\":[");
    private static final byte[] IMO = Sink.bytes("{\"imo\":\"");
    private static final byte[] SHIP = Sink.bytes("\",\"ship\":\"");
    private static final byte[] WEIGHT = Sink.bytes("\",\"weight\":");
    private static final byte[] ETA = Sink.bytes(",\"eta\":\"");
    private static final byte[] REMARK = Sink.bytes("\",\"remark\":\"");
    private static final byte[] END = Sink.bytes("\"}");
    private static final byte[] LAST = Sink.bytes("]}\n");

    static {
        FACTORY.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    }

    private M2() {}

    /** {@return the converted message} */
    public static byte[] convert(byte[] message) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(message.length);
        boolean first = true;
        try (Sink out = new Sink(bytes)) {
            XMLStreamReader xml = FACTORY.createXMLStreamReader(new ByteArrayInputStream(message));
            while (xml.hasNext()) {
                int event = xml.next();
                if (event == XMLStreamConstants.START_ELEMENT) {
                    switch (xml.getLocalName()) {
                        case "Notice" -> put(out, PORT, xml.getAttributeValue(null, "port"));
                        case "Day" -> {
                            text(xml, out, DAY);
                            out.put(CALLS);
                        }
                        case "Call" -> {
                            if (!first) {
                                out.put(',');
                            }
                            first = false;
                            put(out, IMO, xml.getAttributeValue(null, "imo"));
                        }
                        case "Ship" -> text(xml, out, SHIP);
                        case "Weight" -> text(xml, out, WEIGHT);
                        case "Eta" -> text(xml, out, ETA);
                        case "Remark" -> text(xml, out, REMARK);
                        default -> {
                            // nothing of it is wanted
                        }
                    }
                } else if (event == XMLStreamConstants.END_ELEMENT
                        && xml.getLocalName().equals("Call")) {
                    out.put(END);
                }
            }
            out.put(LAST);
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
        return bytes.toByteArray();
    }

    private static void text(XMLStreamReader xml, Sink out, byte[] before) throws XMLStreamException, IOException {
        out.put(before);
        for (int event = xml.next(); event != XMLStreamConstants.END_ELEMENT; event = xml.next()) {
            if (event == XMLStreamConstants.CHARACTERS) {
                out.json(xml.getTextCharacters(), xml.getTextStart(), xml.getTextLength());
            }
        }
    }

    private static void put(Sink out, byte[] before, String text) throws IOException {
        out.put(before);
        char[] chars = text.toCharArray();
        out.json(chars, 0, chars.length);
    }
}
