package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * To hold only the first turns of a sort gives what it gives to sort all turns, also of values that
 * are no records.
 */
class FirstInOrderProperties {
    private static final String SOURCE = "source d: json\n";

    /**
     * Items of a JSON array: records with and without what is sorted by, null, texts and numbers,
     * lists.
     */
    @Provide
    Gen<List<String>> items() {
        return Gens.of(
                        "{\"k\":\"a\",\"v\":3}",
                        "{\"k\":\"a\",\"v\":1}",
                        "{\"k\":\"b\",\"v\":2}",
                        "{\"k\":\"b\",\"v\":null}",
                        "{\"k\":\"a\"}",
                        "null",
                        "[]",
                        "[null,{\"v\":4}]",
                        "[{\"v\":0},7]",
                        "\"text\"",
                        "5")
                .list()
                .ofMaxSize(9);
    }

    private static String outcome(String expression, List<String> items) {
        return Language.outcome(
                SOURCE + "target o: json(indent = 0) { v? = " + expression + " }\n",
                Inputs.text("d", "{\"list\":[" + String.join(",", items) + "]}"),
                RunOptions.DEFAULT,
                FirstInOrderProperties::message);
    }

    private static String message(ProblemException e) {
        return e.problem().code().printed() + " " + e.problem().message();
    }

    @Property(tries = 600)
    void oneOfAllItems(@ForAll("items") List<String> items) {
        String loop = "(for x in d.list sort by x.v desc)";
        assertThat(outcome("first" + loop, items)).isEqualTo(outcome("nth(" + loop + ", 1)", items));
    }

    @Property(tries = 600)
    void someOfAllItems(@ForAll("items") List<String> items, @ForAll @IntRange(min = 1, max = 10) int most) {
        String loop = "[x.v for x in d.list sort by x.v, x.k desc take ";
        // A number that is calculated is not known before the run, so all is sorted.
        assertThat(outcome(loop + most + "]", items)).isEqualTo(outcome(loop + most + " + 0]", items));
    }

    @Property(tries = 600)
    void oneOfTheItemsOfAGroup(@ForAll("items") List<String> items) {
        String inEach = "[%s for x in d.list group by k = text(count(x.v)) as xs]";
        String loop = "(for y in xs sort by y.v)";
        assertThat(outcome(String.format(inEach, "first" + loop), items))
                .isEqualTo(outcome(String.format(inEach, "nth(" + loop + ", 1)"), items));
    }

    @Property(tries = 400)
    void valuesWithoutAnOrderAreToldEitherWay(
            @ForAll List<Boolean> texts, @ForAll @IntRange(min = 1, max = 10) int most) {
        List<String> items =
                texts.stream().map(text -> text ? "{\"v\":\"t\"}" : "{\"v\":1}").toList();
        String loop = "[x.v for x in d.list sort by x.v take ";
        assertThat(outcome(loop + most + "]", items)).isEqualTo(outcome(loop + most + " + 0]", items));
    }

    @Test
    void aValueWithoutAnOrderIsToldWithItsRecord() {
        String mapping = "source d: csv { n: number }\n"
                + "target o: jsonl { for r in d sort by (if r.n > 1 then r.n else r.t) take 2 => r.n }\n";
        assertThat(Language.failure(mapping, Inputs.text("d", "n,t\n1,x\n2,y\n")))
                .satisfies(problem -> {
                    assertThat(problem.message())
                            .isEqualTo("Values of unlike kinds cannot be sorted: a number and a text.");
                    assertThat(problem.input()).isNotNull();
                    assertThat(problem.input().line()).isEqualTo(3);
                });
    }
}
