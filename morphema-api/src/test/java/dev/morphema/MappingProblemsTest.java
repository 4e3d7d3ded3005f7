package dev.morphema;

import static dev.morphema.Language.check;
import static dev.morphema.Language.places;
import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import dev.morphema.syntax.Parser;
import dev.morphema.syntax.SourceText;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Mistakes in a mapping are found before anything runs, where they are, with a proposal. */
class MappingProblemsTest {
    private static final Path DEMO = Path.of("../demo/arrival.morphema");

    @Test
    @DisplayName("a schema that nothing here can read is a warning, and the mapping runs")
    void schemaWithoutReader() {
        assertThat(check("source x: json(schema = \"x.json\")\ntarget o: json { a = x.a }"))
                .singleElement()
                .satisfies(problem -> {
                    assertThat(problem.isError()).isFalse();
                    assertThat(problem.help())
                            .isEqualTo("the module morphema-schemas does, once it is on the class path");
                });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "a = vesel; 2:22 unknown-name",
                "a = uper('x'); 2:22 unknown-function",
                "a = round(); 2:22 arguments",
                "a = round(1, 2, 'up', 4); 2:22 arguments",
                "a = 'x' * 2; 2:22 wrong-kind",
                "a = 1 + 'x'; 2:24 wrong-kind",
                "a = sum('x'); 2:26 wrong-kind",
                "a = if 1 then 2; 2:25 wrong-kind",
                "a = [1, 2] == 3 and 1; 2:38 wrong-kind",
                "a = (for x in [1] => x); 2:36 syntax",
                "a = 1 == 2 == 3; 2:29 syntax",
                "a = 1 + 2 ?? 3; 2:24 syntax",
                "a = 1,; 2:23 syntax",
                "a == 1; 2:20 syntax",
                "a := 1; 2:20 syntax",
                "a!=1; 2:19 syntax",
                "\"a\" = 1; 2:18 syntax",
                "a = \"x; 2:22 open-text",
                "a = 'x; 2:22 open-text",
                "a = \"\\q\"; 2:23 bad-escape",
                "a = \"{3}\"; 2:24 bad-template",
                "a = \"x}\"; 2:24 bad-template",
                "a = \"{x\"; 2:23 bad-template",
                "a = \"{x y\"; 2:23 bad-template",
                "a = \"{x} {y z; 2:27 bad-template",
                "a = \"b {\"c {x\"} d\"; 2:29 bad-template",
                "a = \"b {join([\"c\")} d\"; 2:35 syntax",
                "a = trim('x')); 2:31 syntax",
                "a = ['x']]; 2:27 syntax",
                "a = 5kg; 2:22 unexpected-character",
                "a = 1 & 2; 2:24 unexpected-character",
                "a = true && false; 2:27 unexpected-character",
                "a = true || false; 2:27 unexpected-character",
                "a = (1; 2:22 syntax",
                "a = [1; 2:22 syntax",
                "a for x in [1] where x = 1 => x; 2:41 syntax",
                "a for x in [1] keyed by x, 2 => x; 2:43 syntax",
                "a for x in [1] => x.b; 2:38 unknown-field",
                "let a = 1  let a = 2  b = a; 2:33 hidden-name",
                "a = 1  a = 2; 2:25 duplicate-field",
                "a: nmber = 1; 2:21 unknown-type",
                "a: date('b') = 1; 2:21 unknown-type",
                "a = format(1, 'abc'); 2:22 arguments",
                "a = x:y; 2:23 syntax",
                "a = .b; 2:22 unknown-name"
            })
    @DisplayName("one mistake in a rule is one problem, at its place")
    void oneMistake(String rule, String place) {
        // The rule stands at column 18 of line 2.
        assertThat(places("target o: json { " + rule + "\n}")).containsExactly(place);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "target o: jsn { a = 1 }; 2:11 unknown-format",
                "target o: json(indnt = 2) { a = 1 }; 2:16 unknown-option",
                "target o: json(indent = \"2\") { a = 1 }; 2:25 unknown-option",
                "target o: xml { A { } B { } }; 2:23 target-form",
                "target o: xml { }; 2:8 target-form",
                "target o: xml { for x in [1] { } }; 2:8 target-form",
                "target o: csv { a = 1 }; 2:8 target-form",
                "target o: csv { { a { b = 1 } } }; 2:19 target-form",
                "target o: json { { a = 1 } b = 2 }; 2:28 target-form",
                "source s: csv; 1:1 target-form",
                "target o: json { a = 1 } target o: json { b = 1 }; 2:33 duplicate-name",
                "let a = b let b = a target o: json { c = a }; 2:19 cycle",
                "taget o: json { a = 1 }; 2:1 syntax",
                "source s: csv { a = number } target o: json { b = 1 }; 2:19 syntax",
                "table t: csv(\"no-such-file.csv\") key a target o: json { b = 1 }; 2:14 file-not-found",
                "table t { A = 1 A = 2 } target o: json { b = t[\"A\"] }; 2:17 duplicate-key",
                "table t { A = 1 } target o: json { b = t[\"A\", 2] }; 2:40 arguments",
                "define upper(x) = x target o: json { b = 1 }; 2:8 duplicate-name",
                "define f(x) = x target o: json { b = f(1, 2) }; 2:38 arguments",
                "target o: json { p:a = 1 p:b = 2 }; 2:18 unknown-prefix",
                "target o: json { n:number(',') = 1 }; 2:18 syntax",
                "prefix xml = \"u\" target o: json { a = 1 }; 2:8 duplicate-name",
                "target o: json { for x in [1] { b = x } c = 1 d = 2 }; 2:18 target-form",
                "source s: json(sample = \"\\u{0}\") target o: json { a = s }; 2:25 file-not-found",
                "use \"no-such.morphema\" target o: json { a = 1 }; 2:5 file-not-found"
            })
    @DisplayName("a mistake in a declaration is found at its place")
    void declarations(String mapping, String place) {
        assertThat(places(mapping)).first().isEqualTo(place);
    }

    @Test
    @DisplayName("several mistakes are reported in one go, and none twice")
    void severalMistakes() {
        assertThat(places("""
                        target o: json {
                          a = upr('x')
                          b = 1 +
                          c = 2
                          d = [1, 2
                          e = lowr('x')
                        }
                        """)).containsExactly("4:9 syntax", "6:7 syntax");
        assertThat(places("target o: json {\n  a = upr('x')\n  b = lowr('x')\n  c = nme\n}\n"))
                .containsExactly("3:7 unknown-function", "4:7 unknown-function", "5:7 unknown-name");
    }

    @Test
    @DisplayName("proposals name what is near")
    void proposals() {
        assertThat(check("target o: json { a = uper('x') }").get(0).help()).isEqualTo("did you mean upper?");
        assertThat(check("let vessel = 1\ntarget o: json { a = vesel }").get(0).help())
                .isEqualTo("did you mean vessel?");
        assertThat(check("let n = 1\ntarget o: json { a = n-1 }").get(0).help()).contains("n - 1");
        assertThat(check("taget o: json { a = 1 }").get(0).help()).isEqualTo("did you mean target?");
        assertThat(check("target o: json { a = 1 + 'x' }").get(0).help()).contains("template");
    }

    @Test
    @DisplayName("a path that the sample does not have is found before the run")
    void pathsAgainstTheSample() throws IOException {
        String demo = Files.readString(DEMO);
        Checked checked = Morphema.standard()
                .check("arrival.morphema", demo.replace("items.weight_kg", "items.wieght_kg"), DEMO.getParent());
        assertThat(checked.mapping()).isEmpty();
        assertThat(checked.problems()).hasSize(1);
        assertThat(checked.problems().get(0).help()).isEqualTo("did you mean weight_kg?");
        assertThat(checked.problems().get(0).rule().text()).contains("wieght_kg");
    }

    @Test
    @DisplayName("a number wanted where the sample has decimal commas is found before the run")
    void kindsAgainstTheSample() throws IOException {
        String demo = Files.readString(DEMO);
        Checked checked = Morphema.standard()
                .check("arrival.morphema", demo.replace("  weight_kg: number(',')\n", ""), DEMO.getParent());
        assertThat(checked.problems()).isNotEmpty();
        assertThat(checked.problems().get(0).help()).contains("number(',')");
    }

    static Stream<Arguments> documentedMappings() throws IOException {
        List<Arguments> mappings = new ArrayList<>();
        mappings.add(Arguments.of("demo", Files.readString(DEMO)));
        for (String page : List.of("../README.md", "../docs/language.md")) {
            Matcher blocks = Pattern.compile("```morphema (\\S+)\\n(.*?)```", Pattern.DOTALL)
                    .matcher(Files.readString(Path.of(page)));
            while (blocks.find()) {
                if (Parser.parse(new SourceText("x", blocks.group(2)))
                        .problems()
                        .isEmpty()) {
                    mappings.add(Arguments.of(blocks.group(1), blocks.group(2)));
                }
            }
        }
        return mappings.stream();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("documentedMappings")
    @DisplayName("any single } that is taken away is reported on the line of its {, and nothing else is")
    void everyMissingBraceIsFound(String name, String mapping) {
        List<String> wrong = new ArrayList<>();
        int[] closing = IntStream.range(0, mapping.length())
                .filter(i -> isBrace(mapping, i, '}'))
                .toArray();
        for (int at : closing) {
            int opener = lineOf(mapping, openerOf(mapping, at));
            String broken = mapping.substring(0, at) + " " + mapping.substring(at + 1);
            List<Problem> problems =
                    Parser.parse(new SourceText("broken.morphema", broken)).problems();
            List<Integer> lines = problems.stream().map(p -> p.rule().line()).toList();
            if (!lines.equals(List.of(opener))) {
                wrong.add("brace of line " + opener + " reported as " + problems);
            }
        }
        assertThat(closing).isNotEmpty();
        assertThat(wrong).isEmpty();
    }

    /** Braces of templates are not those of blocks; in the demo they stand in texts. */
    private static boolean isBrace(String text, int at, char brace) {
        if (text.charAt(at) != brace) {
            return false;
        }
        String before = text.substring(text.lastIndexOf('\n', at) + 1, at);
        return before.chars().filter(c -> c == '"').count() % 2 == 0;
    }

    private static int openerOf(String text, int closing) {
        int depth = 0;
        for (int i = closing; ; i--) {
            depth += isBrace(text, i, '}') ? 1 : isBrace(text, i, '{') ? -1 : 0;
            if (depth == 0) {
                return i;
            }
        }
    }

    private static int lineOf(String text, int at) {
        return (int) text.substring(0, at).chars().filter(c -> c == '\n').count() + 1;
    }

    @Test
    @DisplayName("one } too many is reported")
    void extraBrace() {
        assertThat(places("target o: json {\n  a { b = 1 }\n  }\n}\n")).containsExactly("4:3 extra-brace");
    }

    @Test
    @DisplayName("nesting without end is refused, not a crash")
    void endlessNesting() {
        assertThat(places("target o: json { a = " + "(".repeat(5000) + "1" + ")".repeat(5000) + " }"))
                .first()
                .asString()
                .endsWith("too-deep");
        assertThat(places("target o: json " + "{ a ".repeat(5000) + "}".repeat(5000)))
                .isNotEmpty();
        assertThat(places("target o: json { a = " + "\"{".repeat(5000))).isNotEmpty();
    }

    @Test
    @DisplayName("the first line names the version")
    void version() {
        assertThat(Morphema.standard()
                        .check("x.morphema", "target o: json { a = 1 }", Path.of("."))
                        .problems()
                        .get(0)
                        .help())
                .contains("morphema 1");
    }
}
