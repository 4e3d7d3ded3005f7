package dev.morphema.standard;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** A format and its marks are known from the first bytes. */
class InputGuessTest {
    static Stream<Arguments> inputs() {
        return Stream.of(
                Arguments.of("csv", "a.csv", "a,b\n1,2\n"),
                Arguments.of("csv", "a", "a\n1\n2\n"),
                Arguments.of("csv(delimiter = \";\")", "a.csv", "name;kg\nx;1,5\ny;2,25\n"),
                Arguments.of("csv(delimiter = \"\\t\")", "a.tsv", "name\tkg\nx, y\t1\n"),
                Arguments.of("csv(delimiter = \"|\")", "a.txt", "name|kg\n\"x|y\"|1\n"),
                Arguments.of("csv", "a.csv", "name,remark\nx,\"a; b; c\"\ny,\"two\nlines; of it\"\n"),
                Arguments.of("csv(header = false)", "a.csv", "x,12\ny,13\n"),
                Arguments.of("csv(delimiter = \";\", header = false)", "a.csv", "05.03.2026;x\n06.03.2026;y\n"),
                Arguments.of("csv(header = false)", "a.csv", "x,x\ny,z\n"),
                Arguments.of("xml", "a", "\n <a/>"),
                Arguments.of("json", "a", "{ \"a\": 1 }"),
                Arguments.of("json", "a.json", "{\"a\":1}\n{\"a\":2}\n"),
                Arguments.of("jsonl", "a", "{\"a\":1}\n{\"a\":2}\n"),
                Arguments.of("jsonl", "a.jsonl.gz", "{\"a\":1}\n"),
                Arguments.of("json", "a", "[1, 2]"));
    }

    @ParameterizedTest(name = "{2} is {0}")
    @MethodSource("inputs")
    void isGuessed(String written, String name, String text) throws IOException {
        assertThat(InputGuess.of(name, text.getBytes(StandardCharsets.UTF_8)).written())
                .isEqualTo(written);
    }

    @Test
    @DisplayName("bytes that are no UTF-8 are of another encoding; what is cut off in a character is not")
    void encodings() throws IOException {
        byte[] windows = "name\nHavørn\n".getBytes(Charset.forName("windows-1252"));
        assertThat(InputGuess.of("a.csv", windows).written()).isEqualTo("csv(encoding = \"windows-1252\")");
        byte[] utf8 = "name\nHavø".getBytes(StandardCharsets.UTF_8);
        assertThat(InputGuess.of("a.csv", Arrays.copyOf(utf8, utf8.length - 1)).written())
                .isEqualTo("csv");
        byte[] marked = "\uFEFFname,kg\nHavørn,1\n".getBytes(StandardCharsets.UTF_16LE);
        assertThat(InputGuess.of("a.csv", marked).written()).isEqualTo("csv");
        assertThat(InputGuess.of("a.csv", "\uFEFFname\n".getBytes(StandardCharsets.UTF_8))
                        .written())
                .isEqualTo("csv");
    }
}
