package dev.morphema.benchmarks.hand;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Locale;
import tools.jackson.core.JsonParser;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/**
 * One message in JSON: what is written first comes last, so the lines are written to a buffer of
 * their own.
 */
public final class M1 {
    private static final JsonFactory FACTORY = new JsonFactory();
    private static final byte[] VESSEL = Sink.bytes("{\"vessel\":\"");
    private static final byte[] IMO = Sink.bytes("\",\"imo\":\"");
    private static final byte[] CARGO = Sink.bytes("\",\"cargo\":[");
    private static final byte[] BILL = Sink.bytes("{\"bill\":\"");
    private static final byte[] TONNES = Sink.bytes("\",\"tonnes\":");
    private static final byte[] GOODS = Sink.bytes(",\"goods\":\"");
    private static final byte[] END = Sink.bytes("\"}");
    private static final byte[] TOTAL = Sink.bytes("],\"total\":");
    private static final byte[] LAST = Sink.bytes("}\n");

    private M1() {}

    /** {@return the converted message} */
    public static byte[] convert(byte[] message) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(message.length);
        String imo = "";
        String ship = "";
        long total = 0;
        try (JsonParser json = FACTORY.createParser(ObjectReadContext.empty(), message);
                Sink out = new Sink(bytes)) {
            json.nextToken();
            for (String name = json.nextName(); name != null; name = json.nextName()) {
                json.nextToken();
                switch (name) {
                    case "imo" -> imo = json.getString();
                    case "ship" -> ship = json.getString();
                    case "lines" -> {
                        put(out, VESSEL, ship);
                        put(out, IMO, imo);
                        out.put(CARGO);
                        total = lines(json, out);
                    }
                    default -> json.skipChildren();
                }
            }
            out.put(TOTAL);
            out.decimal(total, 2);
            out.put(LAST);
        }
        return bytes.toByteArray();
    }

    private static long lines(JsonParser json, Sink out) throws IOException {
        long total = 0;
        boolean first = true;
        while (json.nextToken().isStructStart()) {
            String bill = "";
            String goods = "";
            long kg = 0;
            for (String name = json.nextName(); name != null; name = json.nextName()) {
                json.nextToken();
                switch (name) {
                    case "bill" -> bill = json.getString();
                    case "goods" -> goods = json.getString();
                    case "kg" ->
                        kg = Decimals.hundredths(
                                json.getStringCharacters(), json.getStringOffset(), json.getStringLength());
                    default -> json.skipChildren();
                }
            }
            if (!first) {
                out.put(',');
            }
            first = false;
            total += kg;
            put(out, BILL, bill);
            out.put(TONNES);
            shortest(out, kg, 5);
            put(out, GOODS, goods.toUpperCase(Locale.ROOT));
            out.put(END);
        }
        return total;
    }

    private static void shortest(Sink out, long unscaled, int scale) throws IOException {
        long digits = unscaled;
        int left = scale;
        while (left > 0 && digits % 10 == 0) {
            digits /= 10;
            left--;
        }
        out.decimal(digits, left);
    }

    private static void put(Sink out, byte[] before, String text) throws IOException {
        out.put(before);
        char[] chars = text.toCharArray();
        out.json(chars, 0, chars.length);
    }
}
