package dev.morphema.benchmarks.hand;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/** JSON Lines to CSV: decimals as whole numbers of hundredths. */
public final class S2 {
    private static final Map<String, byte[]> KINDS = Map.of(
            "BX", Sink.bytes("box"),
            "DR", Sink.bytes("drum"),
            "PL", Sink.bytes("pallet"),
            "BG", Sink.bytes("bag"),
            "CT", Sink.bytes("carton"),
            "RL", Sink.bytes("roll"));

    private S2() {}

    /** Does the workload. */
    public static void run(Path folder, Path file) throws IOException {
        char[] bill = new char[256];
        char[] imo = new char[256];
        try (Sink out = new Sink(file);
                JsonParser json =
                        new JsonFactory().createParser(ObjectReadContext.empty(), folder.resolve("cargo.jsonl"))) {
            out.put(Sink.bytes("bill,imo,kind,tonnes,dues\n"));
            while (json.nextToken() != null) {
                int billLength = 0;
                int imoLength = 0;
                byte[] kind = null;
                long kg = 0;
                long rate = 0;
                for (String name = json.nextName(); name != null; name = json.nextName()) {
                    JsonToken token = json.nextToken();
                    switch (name) {
                        case "bill" -> billLength = text(json, bill);
                        case "kind" -> kind = KINDS.get(json.getString());
                        case "kg" -> kg = hundredths(json);
                        case "rate" -> rate = hundredths(json);
                        case "ship" -> {
                            for (String inner = json.nextName(); inner != null; inner = json.nextName()) {
                                json.nextToken();
                                if (inner.equals("imo")) {
                                    imoLength = text(json, imo);
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
                out.csv(bill, 0, billLength);
                out.put(',');
                out.csv(imo, 0, imoLength);
                out.put(',');
                if (kind != null) {
                    out.put(kind);
                }
                out.put(',');
                out.decimal(Decimals.rounded(kg, 100), 3);
                out.put(',');
                out.decimal(Decimals.rounded(kg * rate, 10_000), 2);
                out.put('\n');
            }
        }
    }

    private static int text(JsonParser json, char[] into) {
        System.arraycopy(json.getStringCharacters(), json.getStringOffset(), into, 0, json.getStringLength());
        return json.getStringLength();
    }

    private static long hundredths(JsonParser json) {
        return Decimals.hundredths(json.getStringCharacters(), json.getStringOffset(), json.getStringLength());
    }
}
