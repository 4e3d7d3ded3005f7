package dev.morphema.syntax;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
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

/** The parser and the printer on all documented mappings. */
class MappingPrinterTest {
    static Stream<Arguments> documentedMappings() throws IOException {
        List<Arguments> mappings = new ArrayList<>();
        mappings.add(Arguments.of("demo", Files.readString(Path.of("../demo/arrival.morphema"))));
        try (Stream<Path> files = Files.list(Path.of("../docs/cases"))) {
            for (Path file : files.filter(f -> f.toString().endsWith(".morphema"))
                    .sorted()
                    .toList()) {
                mappings.add(Arguments.of(file.getFileName().toString(), Files.readString(file)));
            }
        }
        for (String page : List.of("../README.md", "../docs/language.md")) {
            Matcher blocks = Pattern.compile("```morphema (\\S+)\\n(.*?)```", Pattern.DOTALL)
                    .matcher(Files.readString(Path.of(page)));
            while (blocks.find()) {
                if (problems(blocks.group(2)) == 0) {
                    mappings.add(Arguments.of(blocks.group(1), blocks.group(2)));
                }
            }
        }
        return mappings.stream();
    }

    private static int problems(String mapping) {
        return Parser.parse(new SourceText("x", mapping)).problems().size();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("documentedMappings")
    @DisplayName("what is printed parses to the same tree, and prints the same again")
    void printedParsesBack(String name, String mapping) {
        MappingTree tree = Parser.parse(new SourceText(name, mapping)).tree();
        String printed = MappingPrinter.print(tree);
        Parser.Result again = Parser.parse(new SourceText(name, printed));
        assertThat(again.problems()).as(printed).isEmpty();
        assertThat(again.tree()).as(printed).isEqualTo(tree);
        assertThat(MappingPrinter.print(again.tree())).isEqualTo(printed);
    }

    @Test
    @DisplayName("any single token that is taken away is, if it is a fault at all, mostly reported on its line")
    void singleTokenRemovals() throws IOException {
        int faults = 0;
        int near = 0;
        List<String> far = new ArrayList<>();
        for (Arguments arguments : documentedMappings().toList()) {
            String mapping = (String) arguments.get()[1];
            SourceText source = new SourceText("x", mapping);
            for (Token token : new Lexer(source).tokens(problem -> {})) {
                if (token.kind() == Token.Kind.END || token.is("}")) {
                    continue;
                }
                int line = token.span().line();
                String broken = mapping.substring(0, token.span().start())
                        + " ".repeat(token.span().end() - token.span().start())
                        + mapping.substring(token.span().end());
                List<Integer> lines = Parser.parse(new SourceText("x", broken)).problems().stream()
                        .map(p -> p.rule().line())
                        .toList();
                if (!lines.isEmpty()) {
                    faults++;
                    if (lines.contains(line)) {
                        near++;
                    } else {
                        far.add(line + ":" + token.text() + " reported on " + lines);
                    }
                }
            }
        }
        assertThat(faults).isGreaterThan(1000);
        assertThat(near / (double) faults)
                .as(near + " of " + faults + "; not: " + far.subList(0, Math.min(40, far.size())))
                .isGreaterThan(0.95);
    }
}
