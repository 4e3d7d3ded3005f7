package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.function.Function;
import dev.morphema.standard.StandardFormats;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * The reference of functions: it holds all of them, with their signatures, and its examples are
 * true.
 */
class FunctionReferenceTest {
    private static final Path REFERENCE = Path.of("../docs/functions.md");
    private static final Pattern EXAMPLE = Pattern.compile("`([^`]+)` gives `([^`]+)`");

    private static List<String> entries() throws IOException {
        return Files.readAllLines(REFERENCE).stream()
                .filter(line -> line.startsWith("- `"))
                .toList();
    }

    @Test
    @DisplayName("every function is described by its true signature, and no other")
    void signatures() throws IOException {
        List<String> described = entries().stream()
                .map(line -> line.substring(3, line.indexOf('`', 3)))
                .toList();
        List<String> known = StandardFormats.functions().names().stream()
                .map(name -> StandardFormats.functions().find(name).orElseThrow())
                .map(Function::signature)
                .map(signature -> signature.text())
                .toList();
        assertThat(described).containsExactlyInAnyOrderElementsOf(known);
    }

    static Stream<Arguments> examples() throws IOException {
        List<Arguments> examples = new ArrayList<>();
        for (String line : entries()) {
            Matcher matcher = EXAMPLE.matcher(line);
            assertThat(matcher.find()).as(line).isTrue();
            do {
                examples.add(Arguments.of(matcher.group(1), matcher.group(2)));
            } while (matcher.find());
        }
        return examples.stream();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("examples")
    @DisplayName("every example gives what it says")
    void example(String expression, String expected) {
        String mapping = "source d: json\ntarget o: json(indent = 0) { v = " + expression + " }";
        InputStream record = new ByteArrayInputStream("{}".getBytes(StandardCharsets.UTF_8));
        String out = Language.run(mapping, Inputs.NONE.andStream("d", record, "inbox/call-7.json"));
        assertThat(out).isEqualTo(expected.equals("absent") ? "{}\n" : "{\"v\":" + expected + "}\n");
    }
}
