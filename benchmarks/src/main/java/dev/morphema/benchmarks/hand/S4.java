package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/**
 * A JSON array to XML: attributes come first, so the texts of one record wait in buffers that are
 * used again.
 */
public final class S4 {
    private static final byte[] OPEN = Sink.bytes("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<Bookings>");
    private static final byte[] CLOSE = Sink.bytes("</Bookings>\n");
    private static final byte[] IMO = Sink.bytes("<Booking imo=\"");
    private static final byte[] BERTH = Sink.bytes("\" berth=\"");
    private static final byte[] SHIP = Sink.bytes("\"><Ship>");
    private static final byte[] DRAUGHT = Sink.bytes("</Ship><Draught>");
    private static final byte[] AFTER_DRAUGHT = Sink.bytes("</Draught>");
    private static final byte[] CRANE = Sink.bytes("<Slot crane=\"");
    private static final byte[] FROM = Sink.bytes("\" from=\"");
    private static final byte[] MOVES = Sink.bytes("\">");
    private static final byte[] AFTER_SLOT = Sink.bytes("</Slot>");
    private static final byte[] REMARK = Sink.bytes("<Remark>");
    private static final byte[] END = Sink.bytes("</Remark></Booking>");

    /** A text whose characters are used again. */
    private static final class Buffer {
        private char[] chars = new char[64];
        private int length;

        void take(JsonParser json) {
            length = json.getStringLength();
            if (length > chars.length) {
                chars = new char[length * 2];
            }
            System.arraycopy(json.getStringCharacters(), json.getStringOffset(), chars, 0, length);
        }
    }

    private final Buffer imo = new Buffer();
    private final Buffer berth = new Buffer();
    private final Buffer ship = new Buffer();
    private final Buffer draught = new Buffer();
    private final Buffer remark = new Buffer();
    private Buffer[] slots = new Buffer[0];
    private int slotCount;

    private S4() {}

    private Buffer nextSlotField() {
        if (slotCount == slots.length) {
            slots = Arrays.copyOf(slots, slotCount + 3);
            for (int i = slotCount; i < slots.length; i++) {
                slots[i] = new Buffer();
            }
        }
        return slots[slotCount++];
    }

    private void read(JsonParser json) {
        slotCount = 0;
        for (String name = json.nextName(); name != null; name = json.nextName()) {
            JsonToken token = json.nextToken();
            switch (name) {
                case "imo" -> imo.take(json);
                case "berth" -> berth.take(json);
                case "ship" -> ship.take(json);
                case "draught" -> draught.take(json);
                case "remark" -> remark.take(json);
                case "slots" -> {
                    while (json.nextToken() == JsonToken.START_OBJECT) {
                        for (String inner = json.nextName(); inner != null; inner = json.nextName()) {
                            json.nextToken();
                            nextSlotField().take(json);
                        }
                    }
                }
                default -> {
                    if (token.isStructStart()) {
                        json.skipChildren();
                    }
                }
            }
        }
    }

    private void write(Sink out) throws IOException {
        out.put(IMO);
        out.xml(imo.chars, 0, imo.length, true);
        out.put(BERTH);
        out.xml(berth.chars, 0, berth.length, true);
        out.put(SHIP);
        out.xml(ship.chars, 0, ship.length, false);
        out.put(DRAUGHT);
        out.xml(draught.chars, 0, draught.length, false);
        out.put(AFTER_DRAUGHT);
        for (int i = 0; i < slotCount; i += 3) {
            out.put(CRANE);
            out.xml(slots[i].chars, 0, slots[i].length, true);
            out.put(FROM);
            out.xml(slots[i + 1].chars, 0, slots[i + 1].length, true);
            out.put(MOVES);
            out.xml(slots[i + 2].chars, 0, slots[i + 2].length, false);
            out.put(AFTER_SLOT);
        }
        out.put(REMARK);
        out.xml(remark.chars, 0, remark.length, false);
        out.put(END);
    }

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        S4 work = new S4();
        try (Sink out = new Sink(file);
                JsonParser json =
                        new JsonFactory().createParser(ObjectReadContext.empty(), folder.resolve("bookings.json"))) {
            out.put(OPEN);
            json.nextToken();
            while (json.nextToken() == JsonToken.START_OBJECT) {
                work.read(json);
                work.write(out);
            }
            out.put(CLOSE);
        }
    }
}
