package dev.morphema.benchmarks.hand;

import com.fasterxml.aalto.stax.InputFactoryImpl;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** XML records to JSON Lines: the texts of one record in buffers that are used again. */
public final class S3 {
    private static final byte[][] NAMES = {
        Sink.bytes("{\"no\":\""),
        Sink.bytes("\",\"imo\":\""),
        Sink.bytes("\",\"ship\":\""),
        Sink.bytes("\",\"eta\":\""),
        Sink.bytes("\",\"berth\":\""),
        Sink.bytes("\",\"weight\":"),
        Sink.bytes(",\"unit\":\""),
        Sink.bytes("\",\"agent\":\""),
        Sink.bytes("\",\"remark\":\"")
    };
    private static final byte[] END = Sink.bytes("\"}\n");

    private final char[][] texts = new char[NAMES.length][64];
    private final int[] lengths = new int[NAMES.length];

    private S3() {}

    private void put(int field, String text) {
        if (text.length() > texts[field].length) {
            texts[field] = new char[text.length() * 2];
        }
        text.getChars(0, text.length(), texts[field], 0);
        lengths[field] = text.length();
    }

    private void read(XMLStreamReader xml, int field) throws XMLStreamException {
        int length = 0;
        for (int event = xml.next(); event != XMLStreamConstants.END_ELEMENT; event = xml.next()) {
            if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA) {
                int more = xml.getTextLength();
                if (length + more > texts[field].length) {
                    texts[field] = Arrays.copyOf(texts[field], (length + more) * 2);
                }
                System.arraycopy(xml.getTextCharacters(), xml.getTextStart(), texts[field], length, more);
                length += more;
            }
        }
        lengths[field] = length;
    }

    private void convert(XMLStreamReader xml, Sink out) throws XMLStreamException, IOException {
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                switch (xml.getLocalName()) {
                    case "Call" -> {
                        put(0, xml.getAttributeValue(null, "no"));
                        put(1, xml.getAttributeValue(null, "imo"));
                    }
                    case "Ship" -> read(xml, 2);
                    case "Eta" -> read(xml, 3);
                    case "Berth" -> read(xml, 4);
                    case "Weight" -> {
                        put(6, xml.getAttributeValue(null, "unit"));
                        read(xml, 5);
                    }
                    case "Name" -> read(xml, 7);
                    case "Remark" -> read(xml, 8);
                    default -> {
                        // an element around others
                    }
                }
            } else if (event == XMLStreamConstants.END_ELEMENT
                    && xml.getLocalName().equals("Call")) {
                for (int i = 0; i < NAMES.length; i++) {
                    out.put(NAMES[i]);
                    out.json(texts[i], 0, lengths[i]);
                }
                out.put(END);
            }
        }
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        InputFactoryImpl factory = new InputFactoryImpl();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        try (Sink out = new Sink(file);
                InputStream in = new BufferedInputStream(Files.newInputStream(folder.resolve("calls.xml")), 1 << 16)) {
            new S3().convert(factory.createXMLStreamReader(in), out);
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }
}
