package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/**
 * What a message becomes does not depend on those before it, from which is known how messages
 * mostly stand: each gives what it gives alone, faults too.
 */
class MessagesProperties {
    private static final String JSON = """
            source call: json { lines.kg: number }
            target out: json(indent = 0) {
              ship = call.ship
              lines for l in call.lines { kg = l.kg  goods = upper(l.goods)  note = l.note }
              total = sum(call.lines.kg)
            }
            """;

    private static final String XML = """
            prefix a = "urn:a"
            source notice: xml
            target out: json(indent = 0) {
              port = notice.Notice.@port
              calls for c in notice.Notice.a:Call { imo = c.@imo  ship = c.a:Ship  note = c.Note }
            }
            """;

    private static final String RECORDS = """
            source notice: xml
            target out: jsonl { for c in notice.Notice.Call { imo = c.@imo  ship = c.Ship  note = c.Note } }
            """;

    @Provide
    Gen<String> json() {
        Gen<String> kg = Gens.of("1", "2.50", "-0", "\"3\"", "null", "{}", "1e2", "\"x\"");
        Gen<String> text = Gens.of("\"salt\"", "\"\"", "\"s\\u00f8r\"", "\"sør\"", "7", "[\"a\",\"b\"]");
        Gen<String> line = Gens.combine(kg, text, text, Gens.of(0, 0, 0, 1, 2, 3))
                .as((k, goods, note, order) -> switch (order) {
                    case 0 -> "{\"kg\":" + k + ",\"goods\":" + goods + ",\"note\":" + note + "}";
                    case 1 -> "{ \"goods\": " + goods + ",\n\"kg\":" + k + "}";
                    case 2 -> "{\"other\":" + note + ",\"kg\":" + k + ",\"goods\":" + goods + "}";
                    default -> "{\"kg\":" + k + ",\"kg\":" + k + "}";
                });
        Gen<String> end = Gens.of("]}", "]}", "]}", "]}\n", "]", "}");
        return Gens.combine(text, line.list().ofMaxSize(4), end)
                .as((ship, lines, last) -> "{\"ship\":" + ship + ",\"lines\":[" + String.join(",", lines) + last);
    }

    @Provide
    Gen<String> xml() {
        Gen<String> declared = Gens.of(
                "xmlns='urn:a'",
                "xmlns='urn:b'",
                "",
                "xmlns:a='urn:a'",
                "xmlns='urn:b' xmlns:a='urn:a'",
                "xmlns:a='urn:b' xmlns='urn:a'");
        Gen<String> text = Gens.of("Nordlys", "", "a &amp; b", "sør", "<b/>", "&none;");
        Gen<String> call = Gens.combine(Gens.of("", "a:"), text, text, Gens.of(0, 0, 0, 1, 2))
                .as((prefix, ship, note, order) -> {
                    String first = "<" + prefix + "Ship>" + ship + "</" + prefix + "Ship>";
                    String second = "<Note>" + note + "</Note>";
                    return "<" + prefix + "Call imo='1'>"
                            + (order == 0 ? first + second : order == 1 ? second + first : "\n") + "</" + prefix
                            + "Call>\n";
                });
        return Gens.combine(declared, call.list().ofMaxSize(4), Gens.of("", "", "", "<open>"))
                .as((namespaces, calls, end) ->
                        "<Notice port='X' " + namespaces + ">" + String.join("", calls) + end + "</Notice>");
    }

    private static String outcome(Messages messages, String message) {
        Messages.Answer answer = messages.attempt(message.getBytes(StandardCharsets.UTF_8));
        return answer.message()
                        .map(bytes -> new String(bytes, StandardCharsets.UTF_8))
                        .orElse("")
                + answer.problems();
    }

    private static void eachGivesWhatItGivesAlone(String mapping, String source, List<String> messages)
            throws Exception {
        List<String> alone = new ArrayList<>();
        for (String message : messages) {
            alone.add(outcome(Language.load(mapping).messages(source, "out"), message));
        }
        Messages together = Language.load(mapping).messages(source, "out");
        for (int round = 0; round < 2; round++) {
            for (int i = 0; i < messages.size(); i++) {
                assertThat(outcome(together, messages.get(i))).isEqualTo(alone.get(i));
            }
        }
        ExecutorService threads = Executors.newFixedThreadPool(3);
        try {
            List<Future<String>> answers = new ArrayList<>();
            for (String message : messages) {
                answers.add(threads.submit(() -> outcome(together, message)));
            }
            for (int i = 0; i < messages.size(); i++) {
                assertThat(answers.get(i).get()).isEqualTo(alone.get(i));
            }
        } finally {
            threads.shutdownNow();
        }
    }

    @Property(tries = 200)
    void ofJson(@ForAll("jsonMessages") List<String> messages) throws Exception {
        eachGivesWhatItGivesAlone(JSON, "call", messages);
    }

    @Property(tries = 200)
    void ofXml(@ForAll("xmlMessages") List<String> messages) throws Exception {
        eachGivesWhatItGivesAlone(XML, "notice", messages);
        eachGivesWhatItGivesAlone(RECORDS, "notice", messages);
    }

    @Provide
    Gen<List<String>> jsonMessages() {
        return json().list().ofMinSize(1).ofMaxSize(6);
    }

    @Provide
    Gen<List<String>> xmlMessages() {
        return xml().list().ofMinSize(1).ofMaxSize(6);
    }
}
