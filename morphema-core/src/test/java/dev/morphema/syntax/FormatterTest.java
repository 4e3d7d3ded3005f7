package dev.morphema.syntax;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * The one style of mappings: what is laid out means the same, keeps its comments, and is in the
 * style.
 */
class FormatterTest {
    private static final List<String> FOLDERS = List.of("../demo", "../docs/cases", "../benchmarks/src/main/resources");

    static Stream<Path> mappings() throws IOException {
        Stream.Builder<Path> all = Stream.builder();
        for (String folder : FOLDERS) {
            try (Stream<Path> files = Files.walk(Path.of(folder))) {
                files.filter(file -> file.toString().endsWith(".morphema")).forEach(all::add);
            }
        }
        return all.build();
    }

    private static String formatted(String text) {
        Formatter.Result result = Formatter.format(new SourceText("test.morphema", text));
        assertThat(result.problems()).noneMatch(Problem::isError);
        return result.text();
    }

    private static List<String> comments(String text) {
        return text.lines()
                .filter(line -> line.contains("#"))
                .map(line -> line.substring(line.indexOf('#')).strip())
                .toList();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("mappings")
    @DisplayName("is laid out with the same meaning and comments, however it was laid out before")
    void sameMeaning(Path file) throws IOException {
        String text = Files.readString(file);
        String formatted = formatted(text);
        assertThat(Parser.parse(new SourceText("a", formatted)).tree())
                .isEqualTo(Parser.parse(new SourceText("a", text)).tree());
        assertThat(comments(formatted)).isEqualTo(comments(text));
        assertThat(formatted(formatted)).isEqualTo(formatted);
        assertThat(formatted.lines())
                .noneMatch(line -> line.endsWith(" "))
                .hasSameSizeAs(text.strip().lines().toList());
        for (int seed = 0; seed < 20; seed++) {
            assertThat(formatted(shaken(text, new Random(seed)))).isEqualTo(formatted);
        }
    }

    /** The same mapping with other indentation, and more blanks where there are some. */
    private static String shaken(String text, Random random) {
        StringBuilder out = new StringBuilder();
        text.lines().forEach(line -> {
            String bare = line.strip();
            out.append(bare.isEmpty() ? "" : " ".repeat(random.nextInt(9)));
            boolean quoted = bare.contains("\"") || bare.contains("'") || bare.contains("#");
            out.append(quoted ? bare : bare.replace(" ", " ".repeat(1 + random.nextInt(3))));
            out.append(" ".repeat(random.nextInt(3))).append(random.nextBoolean() ? "\n" : "\r\n");
        });
        return out.toString();
    }

    @Test
    @DisplayName("has a column for equals signs, types and comments of lines side by side")
    void columns() {
        assertThat(formatted("""
                morphema 1


                source rows:csv( delimiter=";" ,sample = 'a.csv'){
                kg: number(',')
                  eta_long: date
                }
                # the list
                target o : json {

                for r in rows where r.kg>2 and
                r.kg<9
                sort by r.kg desc{
                a=r.kg+1 # one
                  longer! = [ r.eta_long,2 ]   # two
                let x = r.kg*2
                if x > 3{ b = x } else { c=- x }

                  }
                }
                """)).isEqualTo("""
                morphema 1

                source rows: csv(delimiter = ";", sample = 'a.csv') {
                  kg:       number(',')
                  eta_long: date
                }
                # the list
                target o: json {
                  for r in rows where r.kg > 2 and
                      r.kg < 9
                      sort by r.kg desc {
                    a       = r.kg + 1         # one
                    longer! = [r.eta_long, 2]  # two
                    let x = r.kg * 2
                    if x > 3 { b = x } else { c = -x }
                  }
                }
                """);
    }

    @Test
    @DisplayName("leaves a text with errors as it is, and says what is wrong")
    void errors() {
        String text = "morphema 1\ntarget o: json { a = }\n";
        Formatter.Result result = Formatter.format(new SourceText("test.morphema", text));
        assertThat(result.text()).isEqualTo(text);
        assertThat(result.problems()).anyMatch(Problem::isError);
    }
}
