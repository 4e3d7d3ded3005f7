package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import java.util.Objects;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Functions and operators at their limits, with data whose kinds nobody knows before the run. */
class FunctionFaultsTest {
    private static final Inputs DATA = Inputs.text(
            "d",
            "{\"n\":5,\"t\":\"x\",\"b\":true,\"l\":[1,2,3],\"r\":{\"a\":1,\"b\":{\"c\":2}},\"nul\":null,\"e\":\"\","
                    + "\"ls\":[{\"k\":1,\"v\":\"a\"},{\"k\":2,\"v\":\"b\"}],\"f\":2.5,\"zero\":0}");

    private static String mapping(String expression) {
        return "source d: json\ntarget o: json(indent = 0) { v = " + expression + " }";
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "number('1.234,5', ',', '.') | 1234.5",
                "number('1 234', '.', ' ') | 1234",
                "integer('5.0') | 5",
                "boolean(d.t, 'x', 'y') | true",
                "round(2.5, 0, 'half even') | 2",
                "ceiling(-2.5) | -2",
                "floor(-2.5) | -3",
                "abs(-2.50) | 2.50",
                "power(2, -2) | 0.25",
                "power(3, -1) | 0.3333333333333333333333333333333333",
                "[range(1, 3)] | [1,2,3]",
                "[range(3, 1)] | []",
                "join(d.l, d.t) | \"1x2x3\"",
                "nth(d.l, 2) | 2",
                "nth(d.l, 9) ?? \"none\" | \"none\"",
                "[reversed(d.l)] | [3,2,1]",
                "all([]) | true",
                "any([]) | false",
                "count(d.nul) | 0",
                "d.r[\"a\"] | 1",
                "d.r[d.t] ?? \"none\" | \"none\"",
                "[d..c] | [2]",
                "[d.r.*] | [1,{\"c\":2}]",
                "padLeft(d.n, 5, '0') | \"00005\"",
                "padRight(d.t, 3, '.') | \"x..\"",
                "substring('abcdef', 2, 3) | \"bcd\"",
                "substring('abcdef', 9) | \"\"",
                "substring('a😀c', 2, 1) | \"😀\"",
                "left('a😀c', 2) | \"a😀\"",
                "right('a😀c', 2) | \"😀c\"",
                "before('a-b-c', '-') | \"a\"",
                "after('a-b-c', '-') | \"b-c\"",
                "after('abc', '-') ?? \"none\" | \"none\"",
                "split('', '|') | [\"\"]",
                "replaceAll('a1b2', '[0-9]', '') | \"ab\"",
                "extract('a1b2', '([a-z])([0-9])') | \"a\"",
                "format(-0.4, '0') | \"0\"",
                "format(0.5, '0%') | \"50%\"",
                "format(1234567.891, '#,##0.0', ',', '.') | \"1.234.567,9\"",
                "entries(d.r) | [{\"key\":\"a\",\"value\":1},{\"key\":\"b\",\"value\":{\"c\":2}}]",
                "'x' in d.t | true",
                "1 in 5 | false",
                "[1, [2, 3]] | [1,[2,3]]",
                "[d.l, d.n] | [1,2,3,5]",
                "\"{d.nul}|{d.nope}\" | \"|\"",
                "[d.ls.@*] | []",
                "[xml('<a i=\"1\" k=\"2\"><b/></a>').a.@*] | [\"1\",\"2\"]"
            })
    @DisplayName("at a limit there is still a value")
    void values(String expression, String expected) {
        String out = Language.run(mapping(expression), DATA);
        assertThat(out.equals("{}\n") ? "absent" : out.substring(5, out.length() - 2))
                .isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "number(d.t) | This text is not a number. | numbers are written like -12.50",
                "number(d.t, d.t) | This text is not a number with the decimal mark \"x\". | -",
                "integer(d.f) | This is not a whole number. | round(x, 0) makes it one",
                "boolean(d.n) | This is neither true nor false. | other words for true and false: boolean('Y', 'N')",
                "boolean(d.t, 'x', d.t) | The texts for true and for false are the same. | -",
                "text(d.l) | Expected one value, found a list. | first(x) takes the first item, join(x, \", \") makes a text of all",
                "text(d.r) | Expected one value, found a record. | step down to one of its fields",
                "round(d.f, 0, d.t) | There is no rounding mode of this name. | there is ceiling, down, floor, half down, half even, half up, up",
                "round(d.f, 2000) | A number is rounded to 0 to 1000 digits after the point. | -",
                "round(d.f, 0 - d.n) | A number is rounded to 0 to 1000 digits after the point. | -",
                "power(d.zero, -1) | Zero has no power with a negative exponent. | -",
                "power(d.n, 5000) | The exponent is beyond 1000. | -",
                "power(d.n, d.f) | This is not a whole number. | round(x, 0) makes it one",
                "power(1000000, 1000) | The result has more digits than a number can have. | -",
                "range(d.n, 2000000) | A range has at most 1,000,000 numbers. | -",
                "sum(d.t) | This text is not a number. | numbers are written like -12.50",
                "sum(d.ls) | Expected one value, found a record. | step down to one of its fields",
                "max([1, d.t]) | Values of unlike kinds cannot be compared: a text and a number. | number(x) makes a number of a text, text(x) a text of a number",
                "nth(d.l, d.zero) | Positions count from 1. | -",
                "sorted(d.ls) | Neither of two values comes first here, each is a record. | compare a field of them",
                "any(d.l) | Expected a boolean, found a number. | compare it, as in x == \"Y\", or give it the type boolean",
                "d.n + d.t | This text is not a number. | to join texts, write a template: \"{a}{b}\"",
                "d.n / d.zero | This divides by zero. | if x == 0 then absent else … leaves the field out",
                "d.n % d.zero | This divides by zero. | if x == 0 then absent else … leaves the field out",
                "not d.n | A condition is true or false, this is a number. | compare it, as in x == \"Y\", or give it the type boolean",
                "if d.n then 1 else 2 | A condition is true or false, this is a number. | compare it, as in x == \"Y\", or give it the type boolean",
                "d.l + 1 | Expected one value, found a list. | first(x) takes the first item, join(x, \", \") makes a text of all",
                "d.l[1] | Brackets ask a table or a record, this is a list. | nth(list, n) takes an item by its position, counted from 1",
                "padLeft(d.t, 5, 'ab') | The fill must be one character. | -",
                "padLeft(d.t, 2000000, 'a') | A text is padded to 1,000,000 characters at most. | -",
                "substring(d.t, d.zero) | Positions in a text count from 1. | right(text, n) takes characters from the end",
                "substring(d.t, 0 - d.n) | Positions in a text count from 1. | right(text, n) takes characters from the end",
                "left(d.t, 0 - d.n) | A length cannot be negative. | -",
                "split(d.t, d.e) | The separator is empty. | -",
                "replaceAll(d.t, '(x)', '$2') | The replacement refers to a group that the pattern does not have. | $1 stands for the first group; a dollar sign is written \\\\$",
                "matches(d.t, '(' ?? d.t) | This is no regular expression: missing closing ). | -",
                "format(d.l, '0') | Expected one value, found a list. | first(x) takes the first item, join(x, \", \") makes a text of all",
                "hash(d.t, d.t) | There is no algorithm of this name. | there is md5, sha-1, sha-256 and sha-512",
                "json(\"[{d.n}\") | This is not well-formed JSON here: the input ends in the middle of a value. (line 1, column 3 of the text) | -",
                "xml(d.t) | This is not well-formed XML here: there is something other than an element at the start. (line 1, column 1 of the text) | an XML document begins with <",
                "entries(d.n) | Expected a record, found a number. | -",
                "nodes(d.r) | Expected an XML element, found a record. | fields of other records are listed by entries(x)",
                "d.b < 1 | Values of unlike kinds cannot be compared: a boolean and a number. | -",
                "d.b == d.t | Values of unlike kinds cannot be compared: a boolean and a text. | boolean(x), date(x), time(x) and datetime(x) make of a text what is meant",
                "\"{d.r}\" | Expected one value, found a record. | step down to one of its fields",
                "fail(\"bill {d.n}\") | The mapping gives up here. | -"
            })
    @DisplayName("what has no value is told with a way out")
    void faults(String expression, String message, String help) {
        Problem problem = Language.failure(mapping(expression), DATA);
        assertThat(problem.message()).isEqualTo(message);
        assertThat(Objects.requireNonNullElse(problem.help(), "-")).isEqualTo(help);
        assertThat(problem.rule()).isNotNull();
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "number('5', 'ab') | A mark in a number is one character and no digit, as in number(',', '.').",
                "format(1, '0.000,0') | This is not a number pattern; patterns look like 0.00 or #,##0.0.",
                "matches(d.t, '(') | This is no regular expression: missing closing ).",
                "replaceAll(d.t, '[0-9', '') | This is no regular expression: missing closing ].",
                "length(1, 2) | length takes 1 argument, given are 2.",
                "datetime(d.t, 'iso', 'Mars/Base') | There is no time zone of this name; zones are named like Europe/Oslo, UTC or +01:00.",
                "plus(d.t == \"x\", 'P1D') | Expected a date, time or datetime, found a boolean.",
                "[1, 2] + 1 | Expected a number, found a list.",
                "d.r[1, 2] | A field of a record has one name, these are several."
            })
    @DisplayName("a constant argument that can never do is told when the mapping is checked")
    void constants(String expression, String message) {
        assertThat(Language.check(mapping(expression)))
                .extracting(Problem::message)
                .contains(message);
    }
}
