package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What each statement of a block writes, as events, without any format. */
class StatementTest {
    /** A record with a text, a number, a list, an inner record, and what is null or blank. */
    private static final String DATA = "let d = { t = \"x\"  n = 5  list = [1, 2]  inner { a = 1  b { c = 2 } }\n"
            + "  nothing = null  blank = \" \"  none = [] }\n";

    private static String written(String body) {
        return new Rehearsal(DATA + "target o: events { " + body + " }").written();
    }

    private static String of(String body) {
        String written = written(body);
        assertThat(written).startsWith("o: {").endsWith("} done");
        return written.substring("o: {".length(), written.length() - "} done".length());
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "a = d.t  b = 'y' | a= x b= y",
                "a = absent  b = 1 | b= 1",
                "a = d.nothing | a= NULL",
                "a = d.list | a= [1 2]",
                "a = [d.list, d.n, absent] | a= [1 2 5]",
                "a = [[1], [2, 3]] | a= [[1] [2 3]]",
                "a = d.inner | a= {a= 1 b= {c= 2}}",
                "a { b = 1  c { } } | a= {b= 1 c= {}}",
                "a { for x in [1, 2] keyed by \"k{x}\" => x } | a= {k1= 1 k2= 2}",
                "@a = d.n  b = 2 | @a=5 b= 2",
                "b = 2  @a = d.n | b= 2 @a=5",
                "a { = d.t  @b = 1 } | a= {'x' @b=1}",
                "a [ { b = 1 } for x in d.list { c = x } if d.n > 3 { { d = 1 } } ] | a= [{b= 1} {c= 1} {c= 2} {d= 1}]",
                "a for x in d.list => x * 2 | a= [2 4]",
                "a for x in d.none => x | a= []",
                "a for x in d.list where x > 1 { b = x } | a= [{b= 2}]",
                "if d.n == 5 { a = 1 } else { b = 2 } | a= 1",
                "if d.n == 6 { a = 1 } else { b = 2 } | b= 2",
                "if d.n == 6 { a = 1 } else if d.n == 5 { b = 2 } | b= 2",
                "if d.n == 6 { a = 1 } | ``",
                "let x = d.n + 1  a = x  b = x | a= 6 b= 6",
                "a = d.n  b = .a + 1  c = .b + 1 | a= 5 b= 6 c= 7",
                "a: text = d.n + 1  b: integer = \"7\" | a= 6 b= 7",
                "a? = d.blank  b? = d.none  c? = d.t  d? { }  e? = d.nothing | c= x",
                "a! = d.t  b! { c = 1 } | a= x b= {c= 1}",
                "require d.n == 5 else \"no\"  a = 1 | a= 1",
                "copy d.inner | a= 1 b= {c= 2}",
                "copy d.inner only b | b= {c= 2}",
                "copy d.inner without b  z = 1 | a= 1 z= 1",
                "copy d.inner  a = 9 | a= 9 b= {c= 2}",
                "a = 9  copy d.inner | a= 9 b= {c= 2}",
                "copy d.inner  b { c = 3 } | a= 1 b= {c= 3}",
                "copy d.nothing  a = 1 | a= 1",
                "'odd name' = 1  'for' = 2 | odd name= 1 for= 2"
            })
    void writes(String body, String events) {
        assertThat(of(body)).isEqualTo(events);
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = " | ",
            quoteCharacter = '`',
            value = {
                "a! = d.blank | The field a must have a value, and has none here.",
                "a! = if d.n > 9 then 1 | The field a must have a value, and has none here.",
                "a! = d.none | The field a must have a value, and has none here.",
                "a! { b? = d.blank } | The field a must have a value, and has none here.",
                "require d.n == 6 else \"it is {d.n}\" | A requirement of the mapping is not met.",
                "copy d.n | copy takes the fields of a record, this is a number.",
                "copy d.list | copy takes the fields of a record, this is a list.",
                "a: date = d.t | This text is not a date as ISO 8601 writes it.",
                "a for x in d.list keyed by 1 => x | This key is repeated in the same object.",
                "a for x in d.list keyed by absent => x | The key of this entry is absent.",
                "a = d.n / 0 | This divides by zero.",
                "a = d.t + 1 | The sign + adds numbers, here it stands beside a text that is not a number.",
                "a = d.inner + 1 | Expected a number, found a record.",
                "a = \"{d.list}\" | Expected a text, found a list."
            })
    void fails(String body, String message) {
        ProblemException failure = catchThrowableOfType(ProblemException.class, () -> written(body));
        assertThat(failure).isNotNull();
        assertThat(failure.problem().message()).isEqualTo(message);
        assertThat(failure.problem().rule()).isNotNull();
        assertThat(failure.problem().rule().text()).isNotBlank();
    }

    @Test
    void aRequirementThatOnlyWarnsIsToldOnceAndTheRunGoesOn() {
        Rehearsal rehearsal = new Rehearsal(
                        "source rows: memory\ntarget o: events { list for r in rows { require r.k != \"b\" else warn \"odd: {r.k}\"  k = r.k } }")
                .rows("rows", "k", "a", "b", "c");
        assertThat(rehearsal.written()).isEqualTo("o: {list= [{k= a} {k= b} {k= c}]} done");
        assertThat(rehearsal.warnings()).extracting(Problem::value).containsExactly("odd: b");
        assertThat(rehearsal.warnings().get(0).input().record()).isEqualTo(2);
    }

    @Test
    void definesMakeValuesAndFields() {
        assertThat(new Rehearsal("define twice(x) = x * 2\ndefine named(name, x) { 'it' = name  size = twice(x) }\n"
                                + "define down(n) = if n > 0 then [n, down(n - 1)] else []\n"
                                + "target o: events { a = twice(4)  b = named(\"n\", 3)  c = down(3) }")
                        .written())
                .isEqualTo("o: {a= 8 b= {it= n size= 6} c= [3 2 1]} done");
    }

    @Test
    void aDefineThatNeverEndsIsAProblem() {
        ProblemException failure = catchThrowableOfType(
                ProblemException.class,
                () -> new Rehearsal("define on(n) = on(n + 1)\ntarget o: events { a = on(1) }").run());
        assertThat(failure.problem().message()).contains("deep");
        assertThat(failure.problem().rule()).isNotNull();
    }

    @Test
    void aDocumentMayBeAListOrOneValue() {
        assertThat(new Rehearsal("target o: events { for x in [1, 2] => x  { a = 1 } }").written())
                .isEqualTo("o: [1 2 {a= 1}] done");
        assertThat(new Rehearsal("target o: events = sum([1, 2])").written()).isEqualTo("o: 3 done");
    }
}
