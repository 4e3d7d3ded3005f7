package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/**
 * Damaged bytes give a result or a located problem, and the same one from a file, a stream and a
 * message.
 */
class SpoiledInputsProperties {
    private static final byte[][] ODD = {
        {0},
        {'"'},
        {'\''},
        {'<'},
        {'>'},
        {'&'},
        {';'},
        {','},
        {':'},
        {'{'},
        {']'},
        {'\n'},
        {'\r'},
        {' '},
        {'-'},
        {'.'},
        {'\\'},
        {'e'},
        {'9'},
        {(byte) 0xC0, (byte) 0xAF},
        {(byte) 0xED, (byte) 0xA0, (byte) 0x80},
        {(byte) 0xEF, (byte) 0xBB, (byte) 0xBF},
        {(byte) 0xFF},
        {(byte) 0xC3, (byte) 0xB8},
        "&#xD800;".getBytes(StandardCharsets.US_ASCII),
        "\\ud800".getBytes(StandardCharsets.US_ASCII),
        "<!--".getBytes(StandardCharsets.US_ASCII),
        "xmlns:a=''".getBytes(StandardCharsets.US_ASCII),
    };

    @TempDir
    private Path folder;

    private Path file;

    @BeforeEach
    void file() {
        file = folder.resolve("spoiled");
    }

    /** One damage: what is done to which byte, and how. */
    private record Damage(int kind, int at, int other) {
        byte[] to(byte[] bytes) {
            if (bytes.length == 0) {
                return bytes;
            }
            int from = at % bytes.length;
            int until = Math.min(bytes.length, from + 1 + other % 5);
            byte[] odd = ODD[other % ODD.length];
            return switch (kind) {
                case 0 -> joined(bytes, from, new byte[0], until);
                case 1 -> joined(bytes, from, odd, from);
                case 2 -> joined(bytes, from, odd, from + 1);
                case 3 -> joined(bytes, from, Arrays.copyOfRange(bytes, other % bytes.length, bytes.length), from);
                case 4 -> joined(bytes, from, new byte[] {(byte) (bytes[from] ^ 1 << other % 8)}, from + 1);
                default -> Arrays.copyOf(bytes, from);
            };
        }

        private static byte[] joined(byte[] bytes, int end, byte[] middle, int begin) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            out.write(bytes, 0, end);
            out.writeBytes(middle);
            out.write(bytes, begin, bytes.length - begin);
            return out.toByteArray();
        }
    }

    @Provide
    Gen<List<Damage>> damages() {
        Gen<Integer> any = Gens.integers().between(0, 100_000);
        return Gens.combine(Gens.integers().between(0, 5), any, any)
                .as(Damage::new)
                .list()
                .ofMinSize(1)
                .ofMaxSize(3);
    }

    /**
     * A mapping of a source s to a target o; what it has learned of one message must not matter for
     * the next.
     */
    private record Delivery(Mapping mapping, Messages messages) {
        static Delivery of(String mapping) {
            Mapping loaded = Language.load(mapping);
            return new Delivery(loaded, loaded.messages("s", "o"));
        }
    }

    private void sameEachWay(Delivery way, String whole, List<Damage> damages) throws IOException {
        byte[] bytes = whole.getBytes(StandardCharsets.UTF_8);
        for (Damage damage : damages) {
            bytes = damage.to(bytes);
        }
        Files.write(file, bytes);
        String ofFile = outcome(way.mapping(), Inputs.file("s", file)).replace(file.toString(), "s");
        String ofStream = outcome(way.mapping(), Inputs.stream("s", new ByteArrayInputStream(bytes)));
        String ofBytes = outcome(way.mapping(), Inputs.bytes("s", bytes));
        assertThat(ofStream).as("a stream").isEqualTo(ofFile);
        assertThat(ofBytes).as("bytes").isEqualTo(ofFile);
        Messages.Answer answer = way.messages().attempt(bytes);
        String ofMessage = answer.message()
                        .map(message -> new String(message, StandardCharsets.UTF_8))
                        .orElse("")
                + told(answer.problems());
        assertThat(ofMessage).as("a message").isEqualTo(ofFile);
    }

    private static String outcome(Mapping mapping, Inputs inputs) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            Result result = mapping.run(inputs, Outputs.stream("o", out), RunOptions.DEFAULT);
            return out.toString(StandardCharsets.UTF_8) + told(result.warnings());
        } catch (ProblemException e) {
            Problem problem = e.problem();
            assertThat(problem.message()).endsWith(".").doesNotContain("Exception");
            assertThat(problem.input()).as("the place of %s", problem).isNotNull();
            return told(List.of(problem));
        }
    }

    private static String told(List<Problem> problems) {
        return problems.stream().map(Problem::toString).collect(Collectors.joining("\n"));
    }

    private static final String CSV = "ship;bill;kg;note\r\nNordlys;SKB-1;12,5;\"a \"\"b\"\"\nc\"\r\n"
            + "Sula;SKB-2;3;sør\r\n\"Dryad\";;0,25;\r\n";
    private static final Delivery ROWS = Delivery.of("source s: csv(delimiter = ';') { kg: number(',') }\n"
            + "target o: json { for r in s { ship = r.ship  kg = r.kg  note = r.note } }");
    private static final Delivery GROUPED = Delivery.of("source s: csv(delimiter = ';')\n"
            + "target o: csv { for r in s group by ship = r.ship as rs { ship = ship  n = count(rs) } }");

    @Property(tries = 2_000)
    void csv(@ForAll("damages") List<Damage> damages) throws IOException {
        sameEachWay(damages.size() % 2 == 0 ? GROUPED : ROWS, CSV, damages);
    }

    private static final String CALL = "{\"ship\": \"Nordlys\", \"lines\": [{\"kg\": 12.50, \"note\": \"s\\u00f8r\"},"
            + " {\"kg\": -3e2, \"note\": null, \"more\": [true, {\"a\": \"b\\n\"}]}], \"imo\": \"9000011\"}\n";
    private static final Delivery CALLS =
            Delivery.of("source s: json\n" + "target o: csv { for l in s.lines { kg = l.kg  note = l.note } }");
    private static final Delivery WHOLE = Delivery.of("source s: json(mismatch = allow)\n"
            + "target o: xml { Call { Ship = s.ship  Imo = s.imo  Line for l in s.lines => l.kg } }");

    @Property(tries = 2_000)
    void json(@ForAll("damages") List<Damage> damages) throws IOException {
        sameEachWay(damages.size() % 2 == 0 ? WHOLE : CALLS, CALL, damages);
    }

    private static final String LINES = "{\"ship\":\"Nordlys\",\"kg\":12.50,\"note\":\"s\\u00f8r\"}\n"
            + "{\"ship\":\"Sula\",\"kg\":3,\"note\":null,\"more\":{\"a\":[1,2]}}\n{\"note\":\"\",\"ship\":\"Dryad\",\"kg\":-1e1}\n";
    private static final Delivery EACH = Delivery.of(
            "source s: jsonl(mismatch = allow)\ntarget o: csv { for r in s { ship = r.ship  kg = r.kg  note = r.note } }");
    private static final Delivery TOTALS = Delivery.of("source s: jsonl { kg: number }\n"
            + "target o: json { for r in s group by ship = r.ship as rs { ship = ship  kg = sum(rs.kg) } }");

    @Property(tries = 2_000)
    void jsonLines(@ForAll("damages") List<Damage> damages) throws IOException {
        sameEachWay(damages.size() % 2 == 0 ? TOTALS : EACH, LINES, damages);
    }

    private static final String NOTICE = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
            + "<Notice xmlns=\"urn:a\" xmlns:b='urn:b' port=\"SKB\"><!-- two -->\n"
            + "  <Call imo=\"9000011\"><b:Ship>Nordlys &amp; sør</b:Ship><Kg>12.5</Kg></Call>\n"
            + "  <Call imo=\"9000023\"><b:Ship><![CDATA[<Sula>]]></b:Ship><Kg>3</Kg><Note>a <i>b</i> c</Note></Call>\n"
            + "</Notice>\n";
    private static final Delivery EACH_CALL = Delivery.of("prefix a = 'urn:a'\nprefix b = 'urn:b'\n"
            + "source s: xml(mismatch = allow)\n"
            + "target o: csv { for c in s.a:Notice.a:Call { imo = c.@imo  ship = c.b:Ship  kg = c.a:Kg } }");
    private static final Delivery COPIED = Delivery.of(
            "prefix a = 'urn:a'\nprefix b = 'urn:b'\nsource s: xml\n"
                    + "target o: json { port = s.Notice.@port  notes = [text(n) for n in s.Notice..Note]  call = count(s.Notice.Call) }");

    @Property(tries = 2_000)
    void xml(@ForAll("damages") List<Damage> damages) throws IOException {
        sameEachWay(damages.size() % 2 == 0 ? COPIED : EACH_CALL, NOTICE, damages);
    }
}
