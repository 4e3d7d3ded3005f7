package dev.morphema.yaml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.Inputs;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** YAML is read as JSON is, and what is written reads back. */
class YamlTest {
    private static byte[] run(String mapping, String source, byte[] input) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Morphema.standard()
                .load("test.morphema", "morphema 1\n" + mapping, Path.of("."))
                .run(Inputs.bytes(source, input), Outputs.stream("o", out));
        return out.toByteArray();
    }

    private static String toJson(String yaml) {
        return toJson(yaml.getBytes(StandardCharsets.UTF_8));
    }

    private static String toJson(byte[] yaml) {
        return new String(run("source s: yaml\ntarget o: json(indent = 0) = [s]", "s", yaml), StandardCharsets.UTF_8)
                .strip();
    }

    /** {@return a document of JSON as it is written in YAML} */
    static String written(String json) {
        return new String(toYaml(json, ""), StandardCharsets.UTF_8);
    }

    private static byte[] toYaml(String json, String options) {
        return run("source s: json\ntarget o: yaml" + options + " = s", "s", json.getBytes(StandardCharsets.UTF_8));
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("values are those of the core schema of YAML 1.2")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "a: 1 ~ [{\"a\":1}]",
                "a: 10.50 ~ [{\"a\":10.50}]",
                "a: -1e3 ~ [{\"a\":-1000}]",
                "a: +7 ~ [{\"a\":7}]",
                "a: 0x1F ~ [{\"a\":31}]",
                "a: 0o17 ~ [{\"a\":15}]",
                "a: .inf ~ [{\"a\":\".inf\"}]",
                "a: \"1\" ~ [{\"a\":\"1\"}]",
                "a: !!str 1 ~ [{\"a\":\"1\"}]",
                "a: True ~ [{\"a\":true}]",
                "a: yes ~ [{\"a\":\"yes\"}]",
                "a: ~ [{\"a\":null}]",
                "a: 2026-03-04 ~ [{\"a\":\"2026-03-04\"}]",
                "1: x ~ [{\"1\":\"x\"}]",
                "- 1\\n- {b: [2, x]} ~ [1,{\"b\":[2,\"x\"]}]",
                "a: 1\\n---\\nb: 2\\n---\\n- 3 ~ [{\"a\":1},{\"b\":2},[3]]",
                "a: &x {b: 1}\\nc: *x ~ [{\"a\":{\"b\":1},\"c\":{\"b\":1}}]",
                "a: |\\n  two\\n  lines\\nb: >\\n  one\\n  line ~ [{\"a\":\"two\\nlines\\n\",\"b\":\"one line\"}]",
                "text only ~ [\"text only\"]",
                "[] ~ []"
            })
    void values(String yaml, String json) {
        assertThat(toJson(yaml.replace("\\n", "\n"))).isEqualTo(json);
    }

    @Test
    @DisplayName("a byte order mark decides the encoding")
    void encodings() {
        assertThat(toJson("\uFEFFa: süß €😀".getBytes(StandardCharsets.UTF_16LE)))
                .isEqualTo("[{\"a\":\"süß €😀\"}]");
        assertThat(toJson("\uFEFFa: süß".getBytes(StandardCharsets.UTF_8))).isEqualTo("[{\"a\":\"süß\"}]");
    }

    private static Problem refused(byte[] yaml) {
        try {
            throw new AssertionError(toJson(yaml));
        } catch (ProblemException e) {
            return e.problem();
        }
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what is not well-formed is told with its place and what to do")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "a: 1\\nb: c: d ~ 2:5 ~ a text with a colon",
                "a:\\n\\t- x ~ 2:1 ~ YAML is indented by blanks",
                "a: *x ~ 1:4 ~ an anchor &name stands before its alias",
                "a: 1\\na: 2 ~ 2:1 ~ each name stands once in a record",
                "a: \"x ~ 1:6 ~ a quote or bracket is not closed",
                "? [a]\\n: 1 ~ 1:3 ~ names of fields are texts",
                "a: 1\\n b: 2 ~ 2:3 ~ a text with a colon"
            })
    void faults(String yaml, String place, String help) {
        Problem problem = refused(yaml.replace("\\n", "\n").replace("\\t", "\t").getBytes(StandardCharsets.UTF_8));
        assertThat(problem.code()).isEqualTo(Code.BAD_YAML);
        assertThat(problem.input().line() + ":" + problem.input().column()).isEqualTo(place);
        assertThat(problem.help()).startsWith(help);
    }

    @Test
    @DisplayName("odd bytes, empty inputs and records that hold themselves are told")
    void oddInputs() {
        assertThat(refused(new byte[] {'a', ':', ' ', (byte) 0xFF}).code()).isEqualTo(Code.BAD_ENCODING);
        assertThat(refused(new byte[0]).message()).startsWith("The input is empty");
        assertThat(refused(new byte[] {'a', 1}).value()).isEqualTo("U+0001");
        assertThat(refused("a: &a\n  b: *a".getBytes(StandardCharsets.UTF_8)).message())
                .isEqualTo("This holds itself by an alias.");
    }

    @Test
    @DisplayName("aliases cannot make a small document a huge one, nor depth end in a crash")
    void bombs() {
        StringBuilder bomb = new StringBuilder("a0: &a0 [x,x,x,x,x,x,x,x,x,x]\n");
        for (int i = 1; i < 12; i++) {
            bomb.append("a").append(i).append(": &a").append(i).append(" [");
            bomb.append(("*a" + (i - 1) + ",").repeat(10)).append("x]\n");
        }
        assertThat(refused(bomb.toString().getBytes(StandardCharsets.UTF_8)).code())
                .isEqualTo(Code.LIMIT);
        assertThat(refused("[".repeat(100_000).getBytes(StandardCharsets.UTF_8)).code())
                .isIn(Code.LIMIT, Code.BAD_YAML);
    }

    @Test
    @DisplayName("a large document without aliases is no bomb")
    void large() {
        String row = "- {name: \"" + "x".repeat(1_000) + "\"}\n";
        byte[] yaml = row.repeat(20_000).getBytes(StandardCharsets.UTF_8);
        assertThat(run("source s: yaml\ntarget o: json = count(s)", "s", yaml))
                .asString()
                .isEqualTo("20000\n");
    }

    @ParameterizedTest
    @DisplayName("texts that read as something else, here or in YAML 1.1, stand in quotes")
    @ValueSource(
            strings = {
                "yes",
                "No",
                "on",
                "null",
                "~",
                "",
                "true",
                "1",
                "1.5",
                "012",
                "12:30",
                "1_000",
                "0x1F",
                "2026-03-04",
                ".5",
                "-",
                "- a",
                "a: b",
                "a #b",
                "*x",
                "&x",
                "!x",
                "%x",
                "@x",
                "`x",
                "[x",
                "{x",
                "'x",
                "x'",
                ">",
                "|",
                " x",
                "x ",
                "\\t",
                "=",
                "<<",
                "?",
                "? x"
            })
    void quoted(String text) {
        String json = "{\"a\":\"" + text.replace("\\t", "\\t") + "\"}";
        byte[] yaml = toYaml(json, "");
        assertThat(toJson(yaml)).isEqualTo("[" + json + "]");
        if (text.matches("(?i)yes|no|on|12:30|1_000|012")) {
            assertThat(yaml).asString().isEqualTo("a: \"" + text + "\"\n");
        }
    }

    @Provide
    Gen<String> texts() {
        return Gens.oneOf(
                Gens.strings().withChars("ab :#-?,[]{}'\"\\|>&*!%@`\n\t 01.~=").ofMaxLength(12),
                Gens.strings().ofMaxLength(20));
    }

    @Property
    @DisplayName("whatever is written reads back")
    void readsBack(@ForAll("texts") String text, @ForAll("texts") String other) {
        String json = "[{\"k\":" + quote(text) + ",\"l\":[" + quote(other) + ",{}]}]";
        String expected = new String(
                run("source s: json\ntarget o: json(indent = 0) = s", "s", json.getBytes(StandardCharsets.UTF_8)),
                StandardCharsets.UTF_8);
        assertThat(toJson(toYaml(json, ""))).isEqualTo(expected.strip());
    }

    static String quote(String text) {
        StringBuilder quoted = new StringBuilder("\"");
        for (char c : text.toCharArray()) {
            boolean plain = c >= ' ' && c < 127 && c != '"' && c != '\\';
            quoted.append(
                    plain ? String.valueOf(c) : Character.isSurrogate(c) ? "?" : String.format("\\u%04x", (int) c));
        }
        return quoted.append('"').toString();
    }

    @Test
    @DisplayName("lists can be written as documents, missing values as null")
    void documents() {
        String json = "[{\"a\":1},{\"b\":[]},{}]";
        assertThat(toYaml(json, "(documents = each)")).asString().isEqualTo("---\na: 1\n---\nb: []\n--- {}\n");
        assertThat(toJson(toYaml(json, "(documents = each)"))).isEqualTo(json);
        assertThat(run(
                        "source s: json\ntarget o: yaml(missing = null) { a = s.x  y = s.y }",
                        "s",
                        "{\"y\":1}".getBytes(StandardCharsets.UTF_8)))
                .asString()
                .isEqualTo("a: null\ny: 1\n");
    }

    @Test
    @DisplayName("only what a mapping uses is made, and its types are applied")
    void projected() {
        String yaml = "calls:\n- {ship: Sula, kg: '1,5', more: &m {deep: [1]}}\n- {ship: Havgap, kg: '2', again: *m}\n";
        assertThat(run(
                        "source s: yaml { calls.kg: number(',') }\ntarget o: json(indent = 0) { for c in s.calls { kg = c.kg  d = c.again.deep } }",
                        "s",
                        yaml.getBytes(StandardCharsets.UTF_8)))
                .asString()
                .isEqualTo("[{\"kg\":1.5},{\"kg\":2,\"d\":[1]}]\n");
        assertThatThrownBy(() -> run(
                        "source s: yaml { calls.kg: number }\ntarget o: json { for c in s.calls { kg = c.kg } }",
                        "s",
                        yaml.getBytes(StandardCharsets.UTF_8)))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().input().line()).isEqualTo(2));
    }
}
