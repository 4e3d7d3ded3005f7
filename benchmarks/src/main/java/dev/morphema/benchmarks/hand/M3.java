package dev.morphema.benchmarks.hand;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonParser;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/**
 * One message in JSON whose lines are grouped, summed and written out: a list of lines for each
 * kind of goods.
 */
public final class M3 {
    private static final JsonFactory FACTORY = new JsonFactory();
    private static final byte[] IMO = Sink.bytes("{\"imo\":\"");
    private static final byte[] ALL = Sink.bytes("\",\"goods\":[");
    private static final byte[] GOODS = Sink.bytes("{\"goods\":\"");
    private static final byte[] KG = Sink.bytes("\",\"kg\":");
    private static final byte[] LINES = Sink.bytes(",\"lines\":[");
    private static final byte[] BILL = Sink.bytes("{\"bill\":\"");
    private static final byte[] END = Sink.bytes("]}");
    private static final byte[] LAST = Sink.bytes("]}\n");

    private record Line(String bill, long kg) {}

    private M3() {}

    /** {@return the converted message} */
    public static byte[] convert(byte[] message) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(message.length);
        String imo = "";
        Map<String, List<Line>> goods = new LinkedHashMap<>();
        try (JsonParser json = FACTORY.createParser(ObjectReadContext.empty(), message)) {
            json.nextToken();
            for (String name = json.nextName(); name != null; name = json.nextName()) {
                json.nextToken();
                switch (name) {
                    case "imo" -> imo = json.getString();
                    case "lines" -> lines(json, goods);
                    default -> json.skipChildren();
                }
            }
        }
        try (Sink out = new Sink(bytes)) {
            put(out, IMO, imo);
            out.put(ALL);
            boolean first = true;
            for (Map.Entry<String, List<Line>> group : goods.entrySet()) {
                if (!first) {
                    out.put(',');
                }
                first = false;
                write(out, group.getKey(), group.getValue());
            }
            out.put(LAST);
        }
        return bytes.toByteArray();
    }

    private static void lines(JsonParser json, Map<String, List<Line>> goods) {
        while (json.nextToken().isStructStart()) {
            String bill = "";
            String ofGoods = "";
            long kg = 0;
            for (String name = json.nextName(); name != null; name = json.nextName()) {
                json.nextToken();
                switch (name) {
                    case "bill" -> bill = json.getString();
                    case "goods" -> ofGoods = json.getString();
                    case "kg" ->
                        kg = Decimals.hundredths(
                                json.getStringCharacters(), json.getStringOffset(), json.getStringLength());
                    default -> json.skipChildren();
                }
            }
            goods.computeIfAbsent(ofGoods, of -> new ArrayList<>()).add(new Line(bill, kg));
        }
    }

    private static void write(Sink out, String goods, List<Line> lines) throws IOException {
        put(out, GOODS, goods);
        out.put(KG);
        out.decimal(lines.stream().mapToLong(Line::kg).sum(), 2);
        out.put(LINES);
        for (int i = 0; i < lines.size(); i++) {
            if (i > 0) {
                out.put(',');
            }
            put(out, BILL, lines.get(i).bill());
            out.put(KG);
            out.decimal(lines.get(i).kg(), 2);
            out.put('}');
        }
        out.put(END);
    }

    private static void put(Sink out, byte[] before, String text) throws IOException {
        out.put(before);
        char[] chars = text.toCharArray();
        out.json(chars, 0, chars.length);
    }
}
