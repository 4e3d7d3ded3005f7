package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * What a document can hold depends on its format: what fits is written, what does not is told at
 * its place.
 */
class TargetFormsTest {
    private static final Inputs INPUTS = Inputs.text(
                    "d",
                    "{\"n\":5,\"t\":\"x\",\"l\":[1,2],\"r\":{\"a\":1,\"b\":{\"c\":2}},\"ll\":[[1],[2]],"
                            + "\"odd key\":1,\"recs\":[{\"a\":1},{\"b\":2}]}")
            .andText("x", "<r i='1'>t<a>1</a><b k='2'/></r>")
            .andText("c", "a,b\n1,2\n");

    /**
     * What a target writes, or all that is told of it, each with its place; the target stands on
     * line 5.
     */
    private static String outcome(String target) {
        try {
            return Language.run(
                    "source d: json(mismatch = allow)\nsource x: xml\nsource c: csv\ntarget o: " + target + "\n",
                    INPUTS);
        } catch (ProblemException e) {
            StringBuilder told = new StringBuilder();
            for (Problem problem : e.problems()) {
                int column = problem.rule() == null ? 0 : problem.rule().column();
                told.append(column).append(' ').append(problem.message()).append('\n');
            }
            return told.toString();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "csv(columns = [\"a\", \"b\"]) { for r in d.recs { copy r } } | `a,b\n1,\n,2\n`",
                "csv { for r in c { copy r only b, a } } | `b,a\n2,1\n`",
                "csv { for r in c { if r.a == \"1\" { p = 1 } else { q = 2 } } } | `p,q\n1,\n`",
                "csv { for r in c => { a = r.a  z = 2 } } | `a,z\n1,2\n`",
                "csv { for r in c => if r.a == \"1\" then { a = 1 } else { b = 2 } } | `a,b\n1,\n`",
                "csv { for r in c { @a = 1 } } | `a\n1\n`",
                "csv { if d.n == 5 { for r in c { a = 1 } } else { for r in c { b = 2 } } } | `a,b\n1,\n`",
                "csv(bom = true, header = false) { for r in c { a = 1 } } | `\uFEFF1\n`",
                "csv(delimiter = \"§\") { for r in c { a = 1  b = \"x§y\" } } | `a§b\n1§\"x§y\"\n`",
                "csv(quote = \"'\") { for r in c { a = \"it's\" } } | `a\n'it''s'\n`"
            })
    @DisplayName("the columns of CSV are those that any record has")
    void columns(String target, String expected) {
        assertThat(outcome(target)).isEqualTo(expected.translateEscapes().replace("\\uFEFF", "\uFEFF"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "csv { a = 1 } | 8 A document in csv is a list of records, not one.",
                "csv = d.l | 11 csv cannot write a document that is a single rule.",
                "csv { for r in d.recs { copy r } } | 11 The columns are not all known before the run.",
                "csv { for r in c => r.a } | 11 The columns are not all known before the run.",
                "csv(columns = [\"a\"]) { for r in d.recs { copy r } } | 57 This record has a field that is no column of the target.",
                "csv(columns = [\"a\"]) { for r in c { b = 1 } } | 11 The option columns does not name the column b, which is written.",
                "csv(columns = [\"a\"]) { for r in c => r.a } | 48 A row is a record, this is a text.",
                "csv { for r in c { a { b = 1 } } } | 30 A cell holds one value, not a record or a list.",
                "csv { for r in c { a = d.l } } | 34 A cell holds one value, this is a list.",
                "csv { for r in c { a = d.r } } | 34 A cell holds one value, this is a record.",
                "csv { for r in c { = r.a } } | 30 A row has columns and no text of its own.",
                "csv { name = 1 for r in c { a = 1 } } | 17 A list of items cannot have a field too.",
                "csv(delimiter = \";;\") { for r in c { a = 1 } } | 27 The option delimiter is a text of one character.",
                "csv(delimiter = \"\\\"\") { for r in c { a = 1 } } | 11 The delimiter and the quote are the same character.",
                "csv(quote = \",\") { for r in c { a = 1 } } | 11 The delimiter and the quote are the same character.",
                "csv(delimiter = \"\\n\") { for r in c { a = 1 } } | 11 A line end is neither a delimiter nor a quote.",
                "csv(columns = \"a\") { for r in c { a = 1 } } | 25 The option columns is a list of texts.",
                "jsonl { a = 1 } | 8 A document in jsonl is a list of records, not one.",
                "json { a = 1 for v in d.l => v } | 18 A list of items cannot have a field too.",
                "json(indent = \"x\") { a = 1 } | 25 The option indent is a whole number.",
                "json(indent = -2) { a = 1 } | 25 The option indent is a whole number.",
                "json(indent = 1.5) { a = 1 } | 25 The option indent is a whole number.",
                "json(indent = 12345678) { a = 1 } | 25 The option indent is a whole number.",
                "json(indnt = 0) { a = 1 } | 16 json takes no option indnt here.",
                "json { for r in c { copy r except a } } | 38 After the record that is copied only or without can stand, not except.",
                "yaml { a = 1 } | 11 There is no format yaml that can be written.",
                "xml { a = 1 b = 2 } | 23 A document in xml has one element at its root; this would be a second.",
                "xml { a = d.l } | 21 An XML document has one root element, this would be a second.",
                "xml { if d.n == 6 { a = 1 } } | 11 An XML document has one root element, and none was written.",
                "xml { @a = 1 } | 18 An attribute needs an element around it.",
                "xml = d.t | 11 xml cannot write a document that is a single rule.",
                "xml { for v in d.l { a = v } } | 8 A document in xml is one named element, not a list.",
                "xml { a { b = d.ll } } | 25 A list directly in a list has no element names in XML.",
                "xml { a { 'odd key' = 1 } } | 33 This cannot be the name of an element or attribute in XML.",
                "xml(encoding = \"ISO-8859-1\") { a { 'Ω' = 1 } } | 52 This name has a character that the encoding of the target lacks.",
                "xml { a { @k = d.l } } | 26 Expected one value, found a list.",
                "xml { a { @k = d.r } } | 26 Expected one value, found a record.",
                "xml { a { @k = [1, 2] } } | 22 An attribute holds one value, this is a list.",
                "xml { a { @k = x.r } } | 26 This element has child elements, so it is not one value.",
                "xml { a { copy ({ @k = d.l }) } } | 27 Expected one value, found a list.",
                "xml { a { = d.l } } | 23 Expected one value, found a list.",
                "xml { p:a { b = 1 } } | 17 The prefix p is not declared."
            })
    @DisplayName("what a format cannot hold is told at its place, before or in the run, and nothing else with it")
    void cannotBeHeld(String target, String told) {
        assertThat(outcome(target)).isEqualTo(told + "\n");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "{ a { @k = x.r.a  @i = x.r.@i  @none = d.nope  @empty = first([]) } } | `<a k=\"1\" i=\"1\"/>`",
                "{ a { copy x.r } } | `<a i=\"1\">t<a>1</a><b k=\"2\"/></a>`",
                "{ a { copy x.r.a } } | `<a>1</a>`",
                "{ a { copy x.r.a  b = 2  @k = 3 } } | `<a k=\"3\">1<b>2</b></a>`",
                "{ a { copy x.r.a without '' } } | `<a/>`",
                "{ a { copy x.r.a only k } } | `<a/>`",
                "{ a { copy x.r.b } } | `<a k=\"2\"/>`",
                "{ a { copy x.r without b, i } } | `<a>t<a>1</a></a>`",
                "{ a { e = \"\"  t? = d.nope  l = d.l } } | `<a><e></e><l>1</l><l>2</l></a>`",
                "{ a { n = null } } | `<a xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\"><n xsi:nil=\"true\"/></a>`"
            })
    @DisplayName("elements and attributes of XML")
    void elements(String content, String expected) {
        assertThat(outcome("xml(indent = 0, declaration = false) " + content)).isEqualTo(expected + "\n");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "csv(delimiter = \"\\\"\") | 11 The delimiter and the quote are the same character.",
                "csv(delimiter = \"a'\", quote = \"'\") | 11 The delimiter and the quote are the same character.",
                "csv(delimiter = \"a\\n\") | 11 A line end is neither a delimiter nor a quote.",
                "csv(delimiter = \"\") | 11 The delimiter is empty.",
                "csv(quote = \"''\") | 23 The option quote is a text of one character.",
                "csv(encoding = \"UTF-9\") | 26 The option encoding is the name of an encoding, such as \"UTF-8\"."
            })
    @DisplayName("marks of CSV that cannot be told apart are told when the mapping is checked")
    void marksOfSources(String format, String told) {
        assertThat(Language.check("source s: " + format + "\ntarget o: json { a = count(s) }"))
                .singleElement()
                .satisfies(problem -> assertThat(problem.rule().column() + " " + problem.message())
                        .isEqualTo(told));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "date = \"x\" | This text is not a date as ISO 8601 writes it.",
                "number = \"1,5\" | This text is not a number.",
                "date = text(d.t) | This text is not a date as ISO 8601 writes it."
            })
    @DisplayName("a default that is not of its parameter's type is told at its place")
    void defaultsOfParameters(String param, String message) {
        String mapping = "source d: json\nparam p: " + param + "\ntarget o: json { v = p }";
        assertThat(Language.failure(mapping, Inputs.text("d", "{\"t\":\"x\"}"))).satisfies(problem -> {
            assertThat(problem.message()).isEqualTo(message);
            assertThat(problem.rule().line()).isEqualTo(3);
        });
    }
}
