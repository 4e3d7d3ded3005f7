package dev.morphema.function;

import static dev.morphema.function.Calls.call;
import static dev.morphema.function.Calls.items;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Property;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.ListValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import org.junit.jupiter.api.Test;

/**
 * Functions of records whose field names are data, of codes, and of nothing; and functions that
 * users add.
 */
class RecordFunctionsTest {
    /** {@return a record of three fields, the third of which is called last} */
    private static Value record(FieldName first, FieldName second, Value ofSecond) {
        return RecordValue.of(
                Layout.of(List.of(first, second, FieldName.of("last"))),
                new Value[] {Calls.value(2), ofSecond, Calls.value("x")},
                new Origin("test", 1, 1));
    }

    @Test
    void fieldsThatAreThereAreData() {
        Value berths = record(FieldName.of("B1"), FieldName.of("B2"), Missing.ABSENT);
        assertThat(items(call("keys", berths))).containsExactly("B1", "last");
        assertThat(items(call("values", berths))).containsExactly("2", "x");
        List<Value> entries = ((ListValue) call("entries", berths)).items();
        assertThat(entries).hasSize(2);
        assertThat(((RecordValue) entries.get(0)).get(FieldName.of("key"))).hasToString("B1");
        assertThat(((RecordValue) entries.get(0)).get(FieldName.of("value"))).hasToString("2");
    }

    @Test
    void attributesAndTextsOfElementsAreFieldsToo() {
        Value element = record(FieldName.attribute("unit"), FieldName.OWN_TEXT, Calls.value("7.5"));
        assertThat(items(call("keys", element))).containsExactly("@unit", "text", "last");
        assertThat(items(call("values", element))).containsExactly("2", "7.5", "x");
    }

    @Test
    void onlyRecordsHaveFields() {
        assertThatThrownBy(() -> call("keys", "x")).hasMessageContaining("Expected a record, found a text");
        assertThatThrownBy(() -> call("entries", List.of(1))).hasMessageContaining("found a list");
        assertThat(call("keys", Missing.ABSENT)).isEqualTo(Missing.ABSENT);
        assertThat(call("values", Missing.NULL)).isEqualTo(Missing.NULL);
    }

    @Property(tries = 200)
    void digestsAreThoseOfJava(@ForAll String text) throws Exception {
        for (String algorithm : List.of("md5", "sha-1", "sha-256", "sha-512")) {
            byte[] digest = MessageDigest.getInstance(algorithm.toUpperCase(Locale.ROOT))
                    .digest(text.getBytes(StandardCharsets.UTF_8));
            assertThat(call("hash", text, algorithm)).hasToString(HexFormat.of().formatHex(digest));
        }
        assertThat(call("hash", text)).isEqualTo(call("hash", text, "sha-256"));
    }

    @Test
    void uuidsAreRandomOnesAsTheStandardHasThem() {
        UUID one = UUID.fromString(call("uuid").toString());
        assertThat(one.version()).isEqualTo(4);
        assertThat(one.variant()).isEqualTo(2);
        assertThat(call("uuid")).isNotEqualTo(call("uuid"));
    }

    @Test
    void blankIsWhatHasNothingToRead() {
        for (Object blank : List.of("", " \t", Missing.ABSENT, Missing.NULL)) {
            assertThat(call("blank", blank)).hasToString("true");
            assertThat(call("filled", blank)).isEqualTo(Missing.ABSENT);
        }
        for (Object filled : List.of(0, false, "x", "\u00A0", List.of())) {
            assertThat(call("blank", filled)).hasToString("false");
            assertThat(call("filled", filled)).isEqualTo(Calls.value(filled));
        }
    }

    @Test
    void whatTheMappingGivesUpWithIsTheValueOfTheProblem() {
        assertThatThrownBy(() -> call("fail", "no berth {left}"))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().value()).isEqualTo("no berth {left}"))
                .hasMessageContaining("The mapping gives up here.");
        assertThat(call("todo", "ask")).isEqualTo(Missing.ABSENT);
    }

    @Test
    void functionsOfOnesOwnStandBesideTheOthers() {
        FunctionTable table = FunctionTable.standard()
                .with(
                        "double(x: number): number",
                        Stability.PURE,
                        (a, run) -> ((NumberValue) a[0]).plus((NumberValue) a[0]))
                .with("nothing(x?: any): any", Stability.PURE, (a, run) -> Missing.ABSENT, Trait.TAKES_MISSING);
        assertThat(table.names()).contains("double", "nothing", "upper");
        assertThat(FunctionTable.standard().find("double")).isEmpty();
        Function own = table.find("double").orElseThrow();
        assertThat(own.signature().least()).isEqualTo(1);
        assertThat(own.signature().parameter(0).kind()).isEqualTo(ParameterKind.NUMBER);
        assertThat(own.signature().text()).isEqualTo("double(x: number): number");
    }

    @Test
    void aSignatureThatIsNoneIsRefused() {
        FunctionTable table = FunctionTable.standard();
        for (String wrong : List.of(
                "x",
                "x(a)",
                "x(a: text)",
                "x(a: txt): text",
                "x(a: text): txt",
                "x(a...: text, b: text): text",
                "x(a?: text, b: text): text",
                "1x(a: text): text",
                "x(a: many): text")) {
            assertThatThrownBy(() -> table.with(wrong, Stability.PURE, (a, run) -> a[0]))
                    .as(wrong)
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining(wrong.substring(0, 1));
        }
        assertThatThrownBy(() -> table.with("upper(a: text): text", Stability.PURE, (a, run) -> a[0]))
                .hasMessage("There is a function upper already.");
    }
}
