package dev.morphema.check;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.syntax.Expr;
import dev.morphema.value.Kind;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is known at each place of a text, whole or broken: a bar stands for the place. */
class TypingTest {
    private static final String MAPPING = """
            source d: tree(sample = "order") { kg: number }
            let all = d.line
            define twice(n) = n * 2
            target o: events {
              let bill = d.id
              ids = bill
              lines for l in d.line where l.kg > 1 numbered no {
                let half = l.kg / 2
                sku = l.sku
                if no > 1 { let later = half  x = later }
                parts for p in all => p.sku
              }
              sum = sum(d.line.kg)
            }
            """;

    private final Samples samples = new Samples().file("order", Map.of("id", "7", "line", new Object[] {
        Map.of("sku", "A", "kg", "1.5"), Map.of("sku", "B", "kg", "2"),
    }));

    private static int offset(String marked) {
        return marked.indexOf('|');
    }

    private Samples.Understood understood(String marked) {
        return samples.understand(marked.replace("|", ""));
    }

    private List<String> names(String marked) {
        Samples.Understood at = understood(marked);
        return List.copyOf(at.checked()
                .typing()
                .namesAt(at.tree().source(), Samples.HEAD.length() + offset(marked))
                .keySet());
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("the names that a rule at a place may use")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "ids = |bill ~ bill d all",
                "let bill = |d.id ~ d all",
                "where |l.kg > 1 ~ l bill d all",
                "in |d.line where ~ bill d all",
                "sku = |l.sku ~ half no l bill d all",
                "let half = |l.kg ~ no l bill d all",
                "x = |later ~ later half no l bill d all",
                "=> |p.sku ~ p half no l bill d all",
                "sum = sum(|d.line ~ bill d all",
                "= |n * 2 ~ n d all",
                "let all = |d.line ~ d all"
            })
    void names(String place, String expected) {
        String plain = place.replace("|", "");
        assertThat(MAPPING).contains(plain);
        assertThat(names(MAPPING.replace(plain, place))).containsExactly(expected.split(" "));
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("a text that is not finished is understood as far as it goes")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "target o: events { lines for l in d.line { sku = l.| ~ l d",
                "target o: events { lines for l in d.line { sku = l.sku  kg = | } ~ l d",
                "target o: events { lines for l in d.line { sku = l.sku \" } ] | ~ l d",
                "target o: events { lines for l in d.line where l.| ~ l d",
                "target o: events { lines for l in d.line where | { sku = l.sku } } ~ l d",
                "target o: events { lines for l in d.line sort by { sku = | } } ~ l d",
                "target o: events { lines for l in d.line let k = l.kg take | { sku = l.sku } } ~ k l d",
                "target o: events { lines for l in d. { sku = l.| } } ~ l d",
                "target o: events { lines for l in d.line wher l.kg > 1 { sku = l.| } } ~ l d"
            })
    void broken(String marked, String expected) {
        assertThat(names("source d: tree(sample = \"order\")\n" + marked)).containsExactly(expected.split(" "));
    }

    @Test
    @DisplayName("an expression at a place is found, with where it comes from")
    void nodes() {
        String marked = MAPPING.replace("sku = l.sku", "sku = l.s|ku");
        Samples.Understood at = understood(marked);
        Optional<Expr> node = at.tree().nodeAt(Samples.HEAD.length() + offset(marked));
        assertThat(node).map(expr -> expr.span().text()).contains("l.sku");
        Type type = at.checked().typing().of(node.orElseThrow());
        assertThat(type.places()).hasToString("[d.line.sku]");
        assertThat(type.kind()).isEqualTo(Kind.TEXT);
    }

    @Test
    @DisplayName("a mapping that is cut or spoiled anywhere is checked all the same")
    void cutAnywhere() {
        for (int cut = 0; cut < MAPPING.length(); cut++) {
            String before = MAPPING.substring(0, cut);
            assertThat(names(before + "|")).isNotNull();
            for (String slip : List.of("{", "}", "\"", "(", " for ", " . ")) {
                assertThat(names(before + slip + "|" + MAPPING.substring(cut))).isNotNull();
            }
        }
    }
}
