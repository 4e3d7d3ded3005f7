package dev.morphema.schemas;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.format.Input;
import dev.morphema.problem.Problem;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * A call is as the description of an interface wants it, or it is told why not before it is made.
 */
class ApiCallTest {
    private static final String DESCRIPTION = """
            openapi: 3.0.3
            paths:
              /harbours/{code}/calls:
                parameters:
                  - $ref: '#/components/parameters/day'
                get:
                  parameters:
                    - {name: limit, in: query, schema: {type: integer, minimum: 1, maximum: 500}}
                    - {name: state, in: query, schema: {$ref: '#/components/schemas/State'}}
                    - {name: filter, in: query, style: deepObject, schema: {type: object}}
                    - {name: trace, in: header, required: true, schema: {type: string}}
                  responses: {'200': {description: good}}
            components:
              parameters:
                day: {name: day, in: query, required: true, schema: {type: string, format: date}}
              schemas:
                State: {type: string, enum: [booked, landed]}
            """;

    private static List<Problem> problems(String schema, String address) throws IOException {
        return ApiCall.problems(
                schema,
                path -> Input.of(path, DESCRIPTION.getBytes(StandardCharsets.UTF_8)),
                URI.create("https://harbour.example.org" + address));
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what the operation does not know, or lacks, is told with a proposal")
    @CsvSource(
            delimiterString = " ~ ",
            nullValues = "none",
            value = {
                "/v1/harbours/XXSKE/calls?day=2026-03-05&limit=10&state=landed&filter[ship]=Sula ~ none ~ none",
                "/harbours/XXSKE/calls?day=2026-03-05&limt=10 ~ The operation GET /harbours/{code}/calls has no parameter limt. ~ did you mean limit?",
                "/harbours/XXSKE/calls?day=2026-03-05&limit=ten ~ The parameter limit is a whole number. ~ none",
                "/harbours/XXSKE/calls?day=2026-03-05&limit=501 ~ The parameter limit is too large or too small. ~ from 1 to 500",
                "/harbours/XXSKE/calls?day=2026-03-05&state=lande ~ The parameter state has other values. ~ did you mean landed?",
                "/harbours/XXSKE/calls ~ The operation GET /harbours/{code}/calls needs the parameter day. ~ add ?day=…",
                "/harbours/calls?day=1 ~ The address is not that of the operation GET /harbours/{code}/calls. ~ its path ends with /harbours/{code}/calls"
            })
    void calls(String address, String message, String help) throws IOException {
        List<Problem> problems = problems("api.yaml#GET /harbours/{code}/calls", address);
        if (message == null) {
            assertThat(problems).isEmpty();
            return;
        }
        assertThat(problems).extracting(Problem::message).containsExactly(message);
        assertThat(problems.get(0).help()).isEqualTo(help);
        assertThat(problems.get(0).input())
                .hasToString("https://harbour.example.org" + address.replaceFirst("[?].*", ""));
    }

    @Test
    @DisplayName("a schema that is none of an operation says nothing of calls")
    void others() throws IOException {
        assertThat(problems("api.yaml#/components/schemas/State", "/x?y=1")).isEmpty();
        assertThat(problems("api.yaml", "/x?y=1")).isEmpty();
        assertThat(problems("api.yaml#GET /other", "/x?y=1")).isEmpty();
    }
}
