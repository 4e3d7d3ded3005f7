package dev.morphema.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is found out about a mapping before any run, from its text and from samples. */
class CheckTest {
    private static final String MANY = "Expected one value, found many. -- take one by first(…), "
            + "make a text of all by join(…, \", \"), a list by [ … ], or go through them by for";
    private static final String NO_NUMBER = "Expected a number, found a text that is not a number. -- "
            + "the sample has texts here that are no numbers; a decimal comma needs the type number(',') in the source";

    private final Samples samples = new Samples()
            .file(
                    "order",
                    map(
                            "id",
                            "7",
                            "firm",
                            map("name", "Nord", "@lang", "no"),
                            "line",
                            new Object[] {map("sku", "A", "kg", "1,5"), map("sku", "B", "kg", "2")},
                            "tags",
                            List.of("x", "y"),
                            "n",
                            5,
                            "u:a|note",
                            "one",
                            "u:b|note",
                            "two",
                            "words",
                            "many"))
            .file("rows", map("bill", "B1", "kg", "10.5", "kind", "PL"), map("bill", "B2", "kg", "3", "kind", "BX"));

    private static Map<String, Object> map(Object... pairs) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put((String) pairs[i], pairs[i + 1]);
        }
        return map;
    }

    /** {@return the problems of a rule over the sample of one record, on the fourth line} */
    private List<String> problemsOf(String rule) {
        return samples.problems("source d: tree(sample = \"order\")\ntarget o: events {\n" + rule + "\n}");
    }

    private static List<String> columns(Checker.Result checked) {
        return checked.mapping().targets().get(0).columns();
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "a = d.idd | 7 The sample has no field idd here. -- did you mean id?",
                "a = d.firm.nam | 12 warning The sample has no field nam here. -- did you mean name?",
                "a = d.firm.@lnag | 13 warning The sample has no field @lnag here. -- did you mean @lang?",
                "a = d.firm.lang | 12 warning The sample has no field lang here. -- did you mean @lang?",
                "a = d.id.x | 10 warning The sample has a single value here, and no field x in it.",
                "a = d.id-1 | 7 The sample has no field id-1 here. -- a minus wants blanks around it: id - 1",
                "a = [d..skuu] | 9 warning The sample has no field skuu at any depth here. -- did you mean sku?",
                "a for l in d.line => l.sk | 24 warning The sample has no field sk here. -- did you mean sku?",
                "a for l in d.line group by k = l.skuu as g => k | 34 warning The sample has no field skuu here. -- did you mean sku?",
                "a for l in d.line sort by l.kgg => l.sku | 29 warning The sample has no field kgg here. -- did you mean kg?",
                "copy d.firm only nam | 18 warning The record that is copied has no field nam. -- did you mean name?",
                "copy d.firm without lag, lang | 21 warning The record that is copied has no field lag. -- did you mean @lang?",
                "a = e.x | 5 Nothing named e is known here. -- there is d",
                "a = d.tags[1] | 5 This is a list; brackets ask a table, or a record for a field. -- nth(list, n) takes an item by its position, counted from 1",
                "a = d.words == 7 | 5 A number is compared with a text that is not a number. -- put both in quotes to compare texts",
                "a = d.words + 1 | 13 The sign + adds numbers, here it stands beside a text that is not a number. -- texts are joined in a template: \"{a} {b}\"; a decimal comma needs the type number(',') in the source",
                "if d.n { a = 1 } | 4 A condition is true or false, this is a number. -- compare it, as in x > 0",
                "@a = d.tags | 2 An attribute holds one value, this is a list. -- join(…, \" \") makes a text of it",
                "b = 1 a = .c | 11 This block has no field c with a rule of its own further up. -- there is b",
                "a = sum(d.n, 2) | 5 sum takes 1 argument, given are 2. -- sum(items: many): number",
                "a = nth(d.tags) | 5 nth takes 2 arguments, given is 1. -- nth(items: many, position: integer): any"
            })
    void aRuleIsHeldAgainstTheSample(String rule, String problem) {
        assertThat(problemsOf(rule)).containsExactly("4:" + problem);
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "a = d.line.sku | 5",
                "a = d.line | 5",
                "a = \"{d.line.sku}\" | 7",
                "a = upper(d.line.sku) | 11",
                "@a = d.line.sku | 6",
                "copy d.line | 6",
                "a = d.* | 5"
            })
    void manyWhereOneIsWantedIsToldWithAllWaysOut(String rule, int column) {
        assertThat(problemsOf(rule)).containsExactly("4:" + column + " " + MANY);
    }

    @Test
    void aTextThatIsNoNumberIsToldWhereANumberIsWanted() {
        String source = "source d: tree(sample = \"order\")%s\n";
        String sum = "target o: events {\ns = sum(d.line.kg)\n}";
        assertThat(samples.problems(source.formatted("") + sum)).containsExactly("4:9 " + NO_NUMBER);
        assertThat(samples.problems(source.formatted(" { line.kg: number(',') }") + sum))
                .isEmpty();
        assertThat(samples.problems(source.formatted(" { ..kg: number(',') }") + sum))
                .isEmpty();
    }

    @Test
    void aTypeIsTriedOnTheSample() {
        assertThat(
                        samples.problems(
                                "source d: tree(sample = \"order\") {\nline.kg: number\n}\ntarget o: events { s = d.line.kg[0] }"))
                .contains(
                        "3:10 The sample has a value here that is not of this type. -- for a decimal comma give the field the type number(',')");
        assertThat(
                        samples.problems(
                                "source d: tree(sample = \"order\") {\n..name: date('dd.MM.yyyy')\n}\ntarget o: events { s = d.firm.name }"))
                .containsExactly("3:9 The sample has a value here that is not of this type."
                        + " -- This text is not a date of the pattern dd.MM.yyyy.");
        assertThat(samples.problems(
                        "source f: flat(sample = \"rows\") { kg: number }\ntarget o: events { s = sum(f.kg) }"))
                .isEmpty();
    }

    @Test
    void theOwnTextOfAnElementIsTriedToo() {
        samples.file("weights", map("kg", new Object[] {map("", "1,5", "@u", "t"), map("", "2", "@u", "kg")}));
        assertThat(samples.problems(
                        "source d: tree(sample = \"weights\") {\nkg: number\n}\ntarget o: events { s = sum(d.kg) }"))
                .containsExactly("3:5 The sample has a value here that is not of this type."
                        + " -- for a decimal comma give the field the type number(',')");
        assertThat(samples.problems("source d: tree(sample = \"weights\")\ntarget o: events {\na = [d.kg.v]\n}"))
                .containsExactly("4:11 warning The sample has no field v here. -- there is @u");
    }

    @Test
    void attributesAndTextsThatAreCopiedAreColumns() {
        samples.file("weights", map("kg", new Object[] {map("", "1,5", "@u", "t"), map("", "2", "@u", "kg")}));
        String source = "source d: tree(sample = \"weights\")\n";
        assertThat(columns(samples.check(source + "target o: rows { for k in d.kg { copy k } }")))
                .containsExactly("text", "u");
        assertThat(columns(samples.check(source + "target o: rows { for k in d.kg { copy k without u  z = 1 } }")))
                .containsExactly("text", "z");
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "sum(x.kgg) | a = f(d.line) | 2:21 warning The sample has no field kgg here. -- did you mean kg? this is for the call on line 5",
                "g(x) define g(y) = y.nam | a = f(d.firm) | 2:36 warning The sample has no field nam here. -- did you mean name? this is for the call on line 5",
                "x.name | a = f(d.firm) b = [f(d.line)] | 2:17 warning The sample has no field name here. -- there is kg, sku; this is for the call on line 5",
                "x.name + 1 | a = f(d.firm) | 2:22 The sign + adds numbers, here it stands beside a text that is not a number. -- "
                        + "texts are joined in a template: \"{a} {b}\"; a decimal comma needs the type number(',') in the source; this is for the call on line 5",
                "[{ p = x }] | a = first(f(d.n)).q | 5:19 There is no field q here. -- there is p",
                "x.name ?? 'none' | a = f(d.n) | ",
                "if x < 1 then 0 else f(x - 1) | a = f(d.n) | ",
                "x.kg | a for l in d.line => f(l) b for l in d.line group by k = l.sku as ls => sum(f(ls)) | "
            })
    void definesAreLookedThroughWithTheArgumentsOfEachCall(String define, String rule, @Nullable String problem) {
        assertThat(samples.problems(
                        "define f(x) = " + define + "\nsource d: tree(sample = \"order\") { line.kg: number(',') }\n"
                                + "target o: events {\n" + rule + "\n}"))
                .isEqualTo(problem == null ? List.of() : List.of(problem));
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "a for l in d.line.* => l.kg | 26 warning The sample has a single value here, and no field kg in it.",
                "a for x in d.* => x.namee | 21 warning The sample has no field namee here. -- did you mean name?",
                "a = d['firm'].namee | 15 warning The sample has no field namee here. -- did you mean name?",
                "a for l in d..line => l.skuu | 25 warning The sample has no field skuu here. -- did you mean sku?",
                "a for e in entries(d) => e.vale | 28 There is no field vale here. -- did you mean value?",
                "a for e in entries(d) => e.value.skuu | 34 warning The sample has no field skuu here. -- did you mean sku?",
                "a for v in values(d) => v.skuu | 27 warning The sample has no field skuu here. -- did you mean sku?"
            })
    void stepsOfAnyNameLeadToWhatTheSampleShows(String rule, String problem) {
        assertThat(problemsOf(rule)).containsExactly("4:" + problem);
    }

    @Test
    void anElementInSeveralNamespacesIsToldAsSuch() {
        assertThat(problemsOf("a = [d.note]"))
                .containsExactly(
                        "4:8 warning The sample has elements note in several namespaces here, and this means all."
                                + " -- a prefix means one of them; the namespaces are u:a, u:b");
        assertThat(samples.problems(
                        "prefix b = \"u:b\"\nsource d: tree(sample = \"order\")\ntarget o: events { a = d.b:note }"))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "for r in f { a = r.bil } | 4:20 The sample has no field bil here. -- did you mean bill?",
                "for r in f { a = r.kg.x } | 4:23 The sample has a single value here, and no field x in it.",
                "for r in f { a { b = 1 } } | 4:14 A cell holds one value, not a record or a list. -- give it a rule: a = …",
                "for r in f { = r.bill } | 4:14 A row has columns and no text of its own. -- give the column a name: name = …",
                "for r in f { copy r only bill, kgg } | 4:32 warning The record that is copied has no field kgg. -- did you mean kg?",
                "for r in f => r.bill | 3:11 The columns are not all known before the run. -- name them: rows(columns = [\"a\", \"b\"]), or give the source that is copied a sample",
                "a = 1 | 3:8 A document in rows is a list of records, not one. -- write for x in … { … }, or { … } for a single record",
                "a = 1 for r in f { b = 1 } | 4:1 A list of items cannot have a field too. -- put the field into a for or into braces of its own"
            })
    void rowsAreHeldAgainstWhatTheyCanBe(String body, String problem) {
        assertThat(samples.problems(
                        "source f: flat(sample = \"rows\") { kg: number }\ntarget o: rows {\n" + body + "\n}"))
                .containsExactly(problem);
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "for r in f { copy r } | bill, kg, kind",
                "for r in f => r | bill, kg, kind",
                "for r in f { copy r without kg  z = 1 } | bill, kind, z",
                "for r in f { copy r only kind, bill } | kind, bill",
                "for r in f { if r.kind == 'PL' { x = 1 } else { y = 2 } } | x, y",
                "{ a = 1 } for r in f { b = r.bill } | a, b",
                "if 1 == 1 { for r in f { p = 1 } } else { { q = 1 } } | p, q",
                "for r in f => if r.kg > 5 then { a = 1 } else { b = 2 } | a, b",
                "for r in f { @a = 1 } | a"
            })
    void theColumnsAreAllThatMayBeWritten(String body, String columns) {
        Checker.Result checked =
                samples.check("source f: flat(sample = \"rows\") { kg: number }\ntarget o: rows { " + body + " }");
        assertThat(checked.problems()).isEmpty();
        assertThat(String.join(", ", columns(checked))).isEqualTo(columns);
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            value = {
                "source d: tree(sample = \"nope\") target o: events { a = d.x } | 2:25 warning The sample cannot be read, so paths are not checked against it.",
                "source d: tree(sampel = \"order\") target o: events { a = d.x } | 2:16 tree takes no option sampel here. -- did you mean sample?",
                "source d: tre target o: events { a = d.x } | 2:11 There is no format tre that can be read. -- did you mean tree?",
                "source d: tree(sample = \"order\") { id.x: number } target o: events { a = d.firm } | 2:39 warning The sample has no field x here.",
                "source d: tree { a.b: numbr } target o: events { x = d.a } | 2:23 There is no type numbr. -- did you mean number?",
                "source f: flat(sample = \"rows\") { kgg: number } target o: events { x = [f.kg] } | 2:35 The sample has no field kgg. -- did you mean kg?",
                "target o: element { a = 1 b = 2 } | 2:27 A document in element has one element at its root; this would be a second. -- write one element around the rest: Name { … }",
                "target o: element = 5 | 2:11 element cannot write a document that is a single rule. -- write one element around the rest: Name { … }",
                "target o: rows(columns = [\"a\"]) { { a = 1 b = 2 } } | 2:11 The option columns does not name the column b, which is written.",
                "target o: rows(columns = \"a\") { { a = 1 } } | 2:26 The option columns is a list of texts.",
                "table t: flat(\"rows\") key bill target o: events { a = t[\"B1\"].kgg } | 2:63 There is no field kgg here. -- did you mean kg?",
                "table t: flat(\"rows\") key bill target o: events { a = t[\"B1\", 2].kg } | 2:55 This table is looked up by 1 key, given are 2.",
                "table t: flat(\"rows\") key bil target o: events { a = t[\"B1\"].kg } | 2:27 The table has no column bil. -- did you mean bill?",
                "table t: flat(\"none\") key bill target o: events { a = t[\"B1\"].kg } | 2:15 The file of this table cannot be read. -- paths are relative to the folder of the mapping",
                "param p: number = \"x\" target o: events { a = p } | 2:19 This text is not a number. -- numbers are written like -12.50",
                "let a = b let b = a target o: events { c = a } | 2:19 What a is depends on itself. -- a let cannot use itself, nor through another let",
                "let x = 1 target o: events { a = 1 } | 2:5 warning Nothing uses x. -- take it away if it is not needed",
                "define f(x) = x + 1 target o: events { a = f(1, 2) } | 2:44 f is defined with 1 argument, given are 2.",
                "define f(x, x) = x target o: events { a = f(1, 2) } | 2:13 The name x would hide another of the same name. -- choose another name here",
                "define sum(x) = x target o: events { a = 1 } | 2:8 There is a function sum already. -- choose another name",
                "source d: tree target d: events { a = d } | 2:23 The name d is declared already, on line 2."
            })
    void declarationsAreHeldAgainstWhatThereIs(String mapping, String problem) {
        assertThat(samples.problems(mapping)).containsExactly(problem);
    }
}
