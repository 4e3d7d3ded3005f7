package dev.morphema;

import static dev.morphema.Language.failure;
import static dev.morphema.Language.run;
import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Code;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** What blocks write, in each of the formats. */
class BodiesTest {
    private static String json(String body) {
        return run("target o: json(indent = 0) { " + body + " }", Inputs.NONE);
    }

    private static String xml(String body) {
        return run(
                "prefix p = \"urn:p\"\ntarget o: xml(indent = 0, declaration = false) { " + body + " }", Inputs.NONE);
    }

    @Test
    @DisplayName("! wants a value, ? leaves out what is blank or empty")
    void presence() {
        assertThat(json("a? = \"\"  b? = null  c? = \" \"  d? = 0")).isEqualTo("{\"d\":0}\n");
        assertThat(json("a? { b = absent }  c? { d = 1 }  e { f = absent }")).isEqualTo("{\"c\":{\"d\":1},\"e\":{}}\n");
        assertThat(json("a? for x in [] => x")).isEqualTo("{}\n");
        for (String empty : new String[] {"absent", "null", "\" \""}) {
            assertThat(failure("target o: json { a! = " + empty + " }", Inputs.NONE)
                            .code())
                    .isEqualTo(Code.MISSING_VALUE);
        }
    }

    @Test
    @DisplayName("a type behind the name converts")
    void typedFields() {
        assertThat(json("a: number = \"1.50\"  b: text = 1.5  c: date('d.M.yyyy') = \"5.3.2026\""))
                .isEqualTo("{\"a\":1.50,\"b\":\"1.5\",\"c\":\"2026-03-05\"}\n");
    }

    @Test
    @DisplayName("lets, own earlier fields and conditional blocks")
    void letsAndOwnFields() {
        assertThat(json("let x = 2  a = x * 3  b = .a + 1  if .b > 6 { c = \"big\" } else { c = \"small\" }"))
                .isEqualTo("{\"a\":6,\"b\":7,\"c\":\"big\"}\n");
    }

    @Test
    @DisplayName("keywords are free as names where a mark follows them")
    void keywordsAsNames() {
        assertThat(json("for = 1  if = 2  let: number = 3  'copy' { a = 1 }  in = 4  sort = 5  null = 6"))
                .isEqualTo("{\"for\":1,\"if\":2,\"let\":3,\"copy\":{\"a\":1},\"in\":4,\"sort\":5,\"null\":6}\n");
    }

    @Test
    @DisplayName("copy takes fields over, with own rules in their places")
    void copy() {
        String let = "let r = { a = 1  b = 2  c = 3 }\n";
        String target = "target o: json(indent = 0) { %s }";
        assertThat(run(let + String.format(target, "copy r  b = r.b + 10  d = .b"), Inputs.NONE))
                .isEqualTo("{\"a\":1,\"b\":12,\"c\":3,\"d\":12}\n");
        assertThat(run(let + String.format(target, "copy r only c, a"), Inputs.NONE))
                .isEqualTo("{\"a\":1,\"c\":3}\n");
        assertThat(run(let + String.format(target, "copy r without b  e = 5"), Inputs.NONE))
                .isEqualTo("{\"a\":1,\"c\":3,\"e\":5}\n");
    }

    @Test
    @DisplayName("the same body as XML: attributes first, own text, repeated elements")
    void xmlBodies() {
        assertThat(xml("A { B = 1  @x = \"<&\\\"\"  C for n in [1, 2] { = \"n{n}\"  @i = n } }"))
                .isEqualTo("<A x=\"&lt;&amp;&quot;\"><B>1</B><C i=\"1\">n1</C><C i=\"2\">n2</C></A>\n");
        assertThat(xml("p:A { p:B { } C = null }"))
                .isEqualTo("<p:A xmlns:p=\"urn:p\" xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\"><p:B/>"
                        + "<C xsi:nil=\"true\"/></p:A>\n");
    }

    @Test
    @DisplayName("in JSON attributes become fields and own text the field text")
    void attributesInJson() {
        assertThat(json("w { = 5  @unit = \"kg\" }")).isEqualTo("{\"w\":{\"text\":5,\"unit\":\"kg\"}}\n");
    }

    @Test
    @DisplayName("XML refuses what it cannot hold, at the rule")
    void xmlRefuses() {
        assertThat(failure("target o: xml { A = \"a\\u{1}b\" }", Inputs.NONE).code())
                .isEqualTo(Code.NOT_WRITABLE);
        assertThat(failure("target o: xml { A { for x in [\"1x\"] keyed by x => 1 } }", Inputs.NONE)
                        .code())
                .isEqualTo(Code.NOT_WRITABLE);
        assertThat(failure("target o: xml { A for x in [1, 2] { } }", Inputs.NONE)
                        .message())
                .contains("one root element");
    }

    @Test
    @DisplayName("CSV: header also without rows, union of columns, quotes, empty text apart from nothing")
    void csvTargets() {
        assertThat(run("target o: csv { for x in [] { a = 1  b = 2 } }", Inputs.NONE))
                .isEqualTo("a,b\n");
        assertThat(run(
                        "target o: csv(delimiter = \";\") { { a = \"x;y\"  b = \"\"  c = absent } { d = \"l1\\nl2\" } }",
                        Inputs.NONE))
                .isEqualTo("a;b;c;d\n\"x;y\";\"\";;\n;;;\"l1\nl2\"\n");
        assertThat(failure("target o: csv { { a = [1, 2] } }", Inputs.NONE).help())
                .contains("join");
    }

    @Test
    @DisplayName("JSON Lines: one record a line, nothing for no records")
    void jsonLines() {
        assertThat(run("target o: jsonl { for x in [1, 2] { x = x } }", Inputs.NONE))
                .isEqualTo("{\"x\":1}\n{\"x\":2}\n");
        assertThat(run("target o: jsonl { for x in [] { x = x } }", Inputs.NONE))
                .isEmpty();
    }

    @Test
    @DisplayName("JSON root: object, list, single rule")
    void jsonRoots() {
        assertThat(run("target o: json(indent = 0) = [1, [2], { a = 3 }]", Inputs.NONE))
                .isEqualTo("[1,[2],{\"a\":3}]\n");
        assertThat(run("target o: json(indent = 0) = 5", Inputs.NONE)).isEqualTo("5\n");
        assertThat(run(
                        "target o: json(indent = 0) { { a = 1 } for x in [2] => x if 1 > 0 { { b = 2 } } }",
                        Inputs.NONE))
                .isEqualTo("[{\"a\":1},2,{\"b\":2}]\n");
        assertThat(run("target o: json(missing = null, indent = 0) { a = absent  b = 1 }", Inputs.NONE))
                .isEqualTo("{\"a\":null,\"b\":1}\n");
    }

    @Test
    @DisplayName("several targets read a streamed source in one pass, each with all its records")
    void severalTargets() {
        Mapping mapping = Language.load("""
                source m: csv { kg: number }
                let heavy = (for r in m where r.kg > 5)
                target a: json(indent = 0) { head = "h"  rows for r in heavy => r.kg  tail = "t" }
                target b: csv { for r in m group by r.ship as rs { ship = ship  kg = sum(rs.kg) } }
                """);
        ByteArrayOutputStream a = new ByteArrayOutputStream();
        ByteArrayOutputStream b = new ByteArrayOutputStream();
        Result result = mapping.run(
                Inputs.text("m", "ship,kg\nA,5\nB,6\nA,7\n"),
                Outputs.stream("a", a).andStream("b", b));
        assertThat(a.toString(StandardCharsets.UTF_8)).isEqualTo("{\"head\":\"h\",\"rows\":[6,7],\"tail\":\"t\"}\n");
        assertThat(b.toString(StandardCharsets.UTF_8)).isEqualTo("ship,kg\nA,12\nB,6\n");
        assertThat(result.read()).containsEntry("m", 3L);
        assertThat(result.written()).containsEntry("a", 2L).containsEntry("b", 2L);
    }

    @Test
    @DisplayName("require ends the run or warns, with the place in the input")
    void require() {
        String mapping = "source m: csv { kg: number }\ntarget o: csv { for r in m { require r.kg < 10 else %s"
                + "\"too heavy: {r.kg}\"  kg = r.kg } }";
        Inputs rows = Inputs.text("m", "kg\n5\n50\n");
        assertThat(failure(String.format(mapping, ""), rows))
                .satisfies(p -> assertThat(p.code()).isEqualTo(Code.REQUIREMENT))
                .satisfies(p -> assertThat(p.value()).isEqualTo("too heavy: 50"))
                .satisfies(p -> assertThat(p.input().line()).isEqualTo(3));
        Mapping warning = Language.load(String.format(mapping, "warn "));
        Result result = warning.run(rows, Outputs.NONE);
        assertThat(result.warnings()).hasSize(1);
        assertThat(result.warnings().get(0).input().record()).isEqualTo(2);
    }
}
