package dev.morphema.benchmarks.hand;

import com.fasterxml.aalto.stax.InputFactoryImpl;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/**
 * What no program with these parsers can do without: to tokenise the input, and to write as many
 * records as the output has. Nothing goes from the one to the other: all records that are written
 * are one and the same.
 */
public final class Limit {
    /** Writes the text of a value. */
    private interface Escaping {
        void write(Sink out, char[] text) throws IOException;
    }

    private Limit() {}

    /** Reads and writes as S1 does. */
    public static void s1(Path folder, Path file) throws IOException {
        long[] rows = {0};
        new Rows() {
            @Override
            void cell(int column, char[] buffer, int offset, int length) {
                // found, and not looked at
            }

            @Override
            void end() {
                rows[0]++;
            }
        }.read(folder.resolve("gauges.csv"), ';');
        write(
                file,
                rows[0],
                (out, text) -> out.json(text, 0, text.length),
                "{\"gauge\":\"|G17|\",\"time\":\"|2026-05-18T17:17:00|\",\"level\":|4.71|,\"temperature\":\"|12.5|\",\"status\":\"|ok|\",\"remark\":\"|calm and clear|\"}");
    }

    /** Reads and writes as S2 does. */
    public static void s2(Path folder, Path file) throws IOException {
        write(
                file,
                objects(folder.resolve("cargo.jsonl"), 1),
                (out, text) -> out.csv(text, 0, text.length),
                "|SKB-123456|,|9000123|,|pallet|,|12.345|,|512.25|\n");
    }

    /** Reads and writes as S3 does. */
    public static void s3(Path folder, Path file) throws IOException {
        write(
                file,
                calls(folder.resolve("calls.xml")),
                (out, text) -> out.json(text, 0, text.length),
                "{\"no\":\"|123456|\",\"imo\":\"|9000123|\",\"ship\":\"|Nordlys 123|\",\"eta\":\"|2026-05-18T17:17:00Z|\",\"berth\":\"|B17|\",\"weight\":|12345.67|,\"unit\":\"|kg|\",\"agent\":\"|Agent & 17|\",\"remark\":\"|calm and clear|\"}\n");
    }

    /** Reads and writes as S4 does. */
    public static void s4(Path folder, Path file) throws IOException {
        write(
                file,
                objects(folder.resolve("bookings.json"), 2),
                (out, text) -> out.xml(text, 0, text.length, false),
                "<Booking imo=\"|9000123|\" berth=\"|B17|\"><Ship>|Nordlys & Sula 123|</Ship><Draught>|4.71|</Draught><Slot crane=\"|C1|\" from=\"|17:00|\">|117|</Slot><Slot crane=\"|C2|\" from=\"|17:00|\">|117|</Slot><Remark>|calm and clear|</Remark></Booking>");
    }

    /** {@return how many objects there are at a depth of nesting} */
    private static long objects(Path file, int depth) {
        long count = 0;
        int open = 0;
        try (JsonParser json = new JsonFactory().createParser(ObjectReadContext.empty(), file)) {
            for (JsonToken token = json.nextToken(); token != null; token = json.nextToken()) {
                if (token.isStructStart()) {
                    open++;
                    count += open == depth ? 1 : 0;
                } else if (token.isStructEnd()) {
                    open--;
                } else if (token == JsonToken.VALUE_STRING) {
                    json.getStringLength();
                }
            }
        }
        return count;
    }

    private static long calls(Path file) throws IOException {
        long count = 0;
        InputFactoryImpl factory = new InputFactoryImpl();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
            XMLStreamReader xml = factory.createXMLStreamReader(in);
            while (xml.hasNext()) {
                int event = xml.next();
                if (event == XMLStreamConstants.CHARACTERS) {
                    xml.getTextLength();
                } else if (event == XMLStreamConstants.START_ELEMENT
                        && xml.getLocalName().equals("Call")) {
                    count++;
                }
            }
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
        return count;
    }

    /** @param record constants and values in turn, between bars */
    private static void write(Path file, long records, Escaping values, String record) throws IOException {
        String[] pieces = record.split("\\|");
        byte[][] constants = new byte[(pieces.length + 1) / 2][];
        char[][] texts = new char[pieces.length / 2][];
        for (int i = 0; i < pieces.length; i++) {
            if (i % 2 == 0) {
                constants[i / 2] = Sink.bytes(pieces[i]);
            } else {
                texts[i / 2] = pieces[i].toCharArray();
            }
        }
        try (Sink out = new Sink(file)) {
            for (long i = 0; i < records; i++) {
                for (int j = 0; j < constants.length; j++) {
                    out.put(constants[j]);
                    if (j < texts.length) {
                        values.write(out, texts[j]);
                    }
                }
            }
        }
    }
}
