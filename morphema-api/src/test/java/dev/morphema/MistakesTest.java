package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Common slips are found by the check, once each, with what to write instead. */
class MistakesTest {
    @TempDir
    private Path folder;

    @BeforeEach
    void samples() throws IOException {
        Files.writeString(
                folder.resolve("s.json"),
                "{\"tags\":[1,2],\"o\":{\"p\":1},\"d\":\"\",\"t\":\"x\",\"n\":\"5\",\"ok\":\"Y\"}");
        Files.writeString(folder.resolve("c.csv"), "no,m,k\n07,9,100\n08,10,200\n");
        Files.writeString(folder.resolve("x.xml"), "<a><e/><w>1</w></a>");
    }

    private List<Problem> check(String mapping) {
        return Morphema.standard()
                .check("test.morphema", "morphema 1\n" + mapping, folder)
                .problems();
    }

    @Test
    @DisplayName("a wrong type of a field is told where it is declared, and not again by each rule")
    void wrongTypes() {
        assertThat(check("""
                        source c: csv(sample = "c.csv") { k: date }
                        target o: json { for x in c { a = x.k * 2  b = round(x.k, 1)  d = x.k > 5  e = sum([x.k]) } }
                        """))
                .extracting(MistakesTest::told)
                .containsExactly("The sample has a value here that is not of this type. -- "
                        + "expected is a text like 2026-03-05; other forms need a pattern");
    }

    private static String told(Problem problem) {
        return problem.message() + " -- " + Objects.requireNonNullElse(problem.help(), "");
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "a = count(s) = 2 | This = has no field before it. -- to compare, write ==",
                "a = s.\"Cost $\" | A field's name does not stand in double quotes. -- an odd name stands in single quotes: .'Cost $'",
                "a = s.20ft-boxes | A name cannot begin with a digit, and a number has no letters. -- write '20ft-boxes' for a field",
                "a = s/o/p | Steps of a path are joined by points; a slash divides numbers. -- write s.o.p",
                "a: s.t | A type must follow the colon, found a rule. -- a rule is joined to its field by =: a = …",
                "a = if 1 <> 2 then 1 | There is no operator <>. -- not equal is written !=",
                "a = 1 === 1 | There is no operator ===. -- write ==",
                "a = s.t ? 1 : 2 | A choice is not written with ? and :. -- write if condition then a else b",
                "a = [s.tags where 1 > 2] | The clause where belongs to a for. -- write [x for x in items where …]",
                "a = \"x {2px}\" | A name cannot begin with a digit, and a number has no letters. -- in a text in double quotes, {{ and }} stand for braces: {{2px}}",
                "a = '{s.t}' b = s.t | In a text in single quotes braces stand for themselves; {s is not replaced. -- in double quotes it is: \"{s}\"",
                "a = len(s.t) | There is no function len. -- here it is written length(x)",
                "a = toUpperCase(s.t) | There is no function toUpperCase. -- here it is written upper(x)",
                "a = to_date(s.t) | There is no function to_date. -- here it is written date(x, pattern)",
                "a = \"abc | The text that begins here is not closed on its line. -- close it with \"",
                "a = .lines lines for x in s.tags => x | The field lines is made by a block or loop, and is written, not kept. -- ask the source",
                "a = .b b = s.t | The field b is written further down, on line 3. -- put that rule before this one",
                "a = date(s.t, 'DD.MM.YYYY') | In the pattern of a date Y is the year to which a week belongs, the year of a date is y. -- it is probably 'dd.MM.yyyy'",
                "a = format(today(), 'yyyy-mm-dd') b = s.t | In the pattern of a date m is the minute, the month is M. -- it is probably 'yyyy-MM-dd'",
                "a = split(s.t, '') | The separator is empty. -- ",
                "a = substring(s.t, 0) | Positions in a text count from 1. -- ",
                "a = hash(s.t, 'foo') | There is no algorithm of this name. -- there is md5",
                "a = s.t == true | Values of unlike kinds cannot be compared: a text and a boolean. -- a text is compared with a text",
                "a for x in s.tags numbered n by [x, x] => n | A key is one value, this is a list. -- several keys stand side by side: by a, b",
                "a = \"{s.o}\" | Expected a text, found a record. -- step down",
                "a = max([\"9\", 50, s.t]) | Values of unlike kinds have no order: a text and a number. -- number(x) makes a number",
                "a = count(x for x in c where x.m > \"9\") b = s.t | A number in quotes is a text, so that \"10\" comes before \"9\". -- leave the quotes out",
                "a = min(c.m) b = s.t | This compares texts, though the sample has only numbers here. -- give the field the type number"
            })
    @DisplayName("a slip is told once, with what to write")
    void slips(String rule, String expected) {
        List<Problem> problems =
                check("source s: json(sample = \"s.json\") source c: csv(sample = \"c.csv\")\ntarget o: json { " + rule
                        + " }");
        assertThat(problems.stream()
                        .filter(p -> !p.message().startsWith("Nothing uses"))
                        .map(MistakesTest::told))
                .hasSize(1)
                .first()
                .satisfies(told -> assertThat(told).startsWith(expected));
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "a = if count(s.tags) > 1 then [s.tags] else s.tags",
                "a = min(c.no)",
                "a = min(c.k)",
                "a = count(x for x in c where x.no >= \"07\")",
                "a = s.nowhere ?? s.t ?? null",
                "a = date(s.t, \"YYYY-'W'ww-e\")",
                "a = matches(s.t, '[A-Z]{4}')",
                "a = s.n == 5"
            })
    @DisplayName("what is right is not told")
    void noSlips(String rule) {
        assertThat(check("source s: json(sample = \"s.json\") source c: csv(sample = \"c.csv\")\ntarget o: json { "
                        + rule + "  rest = [s.t, count(c)] }"))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "source s: json(sample = \"s.json\") { d: date } | error: The sample has a value here that is not of this type.",
                "source s: json(sample = \"s.json\") { ..zz: number } | warning: The sample has no field zz at any depth.",
                "source s: json(sample = \"s.json\") { t: date('DD.MM.YYYY') } | warning: In the pattern of a date Y is"
            })
    @DisplayName("declared types are held against the sample")
    void types(String source, String expected) {
        assertThat(check(source + "\ntarget o: json { a = s.t }"))
                .first()
                .satisfies(problem -> assertThat((problem.isError() ? "error: " : "warning: ") + problem.message())
                        .startsWith(expected));
    }

    @Test
    @DisplayName("a mapping that reads nothing of its sample is wrong")
    void wrongRoot() {
        for (String source : List.of("xml(sample = \"x.xml\")", "json(sample = \"s.json\")")) {
            assertThat(check("source s: " + source + "\ntarget o: json { a = s.b.w  b = s.b.w }"))
                    .singleElement()
                    .satisfies(problem -> {
                        assertThat(problem.isError()).isTrue();
                        assertThat(problem.message()).isEqualTo("The sample has no field b here.");
                    });
        }
    }

    @Test
    @DisplayName("a field that the sample lacks is told once, with all the lines where it is used")
    void usedAgain() {
        assertThat(
                        check(
                                "source x: xml(sample = \"x.xml\")\ntarget o: json {\na = x.a.q\nb = x.a.q\nc = x.a.w\nd = x.a.q.r\n}"))
                .singleElement()
                .satisfies(problem -> assertThat(problem.help()).endsWith("it is used on lines 5, 7 too"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "csv { { a = s.o } } | A cell holds one value, this is a record.",
                "csv { { a = [s.t] } } | A cell holds one value, this is a list.",
                "json for x in s.tags into \"a.json\" { k = x } | Each document needs a name of its own, this one is always the same."
            })
    @DisplayName("what a target cannot hold is told before the run")
    void targets(String target, String expected) {
        assertThat(check("source s: json(sample = \"s.json\")\ntarget o: " + target))
                .extracting(Problem::message)
                .containsExactly(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "\"2005\" in [2005]; true",
                "2005 in [\"2005\"]; true",
                "\"2005.0\" in [\"2005\"]; false",
                "\"x\" in [1]; false",
                "\"2005\" not in [2005]; false",
                "number('.234', ',', '.'); error",
                "number('12.50', ',', '.'); error",
                "number('1234.567', ',', '.'); error",
                "number('1.234.567,5', ',', '.'); 1234567.5",
                "number('-1.5E3'); -1500",
                "integer('12.0'); 12",
                "integer('1.20E1'); 12",
                "max([\"9\", json('50')]); error",
                "min([\"a\", \"b\"]); \"a\""
            })
    @DisplayName("numbers, texts and their order")
    void values(String expression, String expected) {
        String mapping = "target o: json(indent = 0) { v = " + expression + " }";
        if (expected.equals("error")) {
            assertThat(Language.failure(mapping, Inputs.NONE).code().area()).isEqualTo(dev.morphema.problem.Area.DATA);
        } else {
            assertThat(Language.run(mapping, Inputs.NONE)).isEqualTo("{\"v\":" + expected + "}\n");
        }
    }

    @Test
    @DisplayName("a block that is left out when empty is left out if only lists without items are in it")
    void emptyBlocks() {
        assertThat(Language.run(
                        "target o: xml(declaration = false) { R { Notes? { Note for s in [] { a = s } } } }",
                        Inputs.NONE))
                .isEqualTo("<R/>\n");
        assertThat(Language.run("target o: csv { { a = absent } { a = 1 } }", Inputs.NONE))
                .isEqualTo("a\n\"\"\n1\n");
    }
}
