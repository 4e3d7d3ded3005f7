package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/**
 * A format of one's own needs a name and a reader that makes records; all that the language has
 * works on it.
 */
class OwnFormatTest {
    /** Lines in which each field has its columns: here ten of text, then five of a number. */
    private static final class FixedWidth implements SourceFormat {
        @Override
        public String name() {
            return "columns";
        }

        @Override
        public List<OptionSpec> options() {
            return List.of();
        }

        @Override
        public Traits traits() {
            return new Traits(true, true, false);
        }

        @Override
        public RecordReader open(Input input, Projection projection, Options options) throws IOException {
            BufferedReader lines = new BufferedReader(new InputStreamReader(input.open(), StandardCharsets.UTF_8));
            return new RecordReader() {
                private int line;

                @Override
                public boolean isSequence() {
                    return true;
                }

                @Override
                public @Nullable Value next() throws IOException {
                    String text = lines.readLine();
                    if (text == null) {
                        return null;
                    }
                    line++;
                    RecordBuilder record =
                            RecordValue.builder(projection.layout(), new Origin(input.name(), line, line));
                    record.add(
                            FieldName.of("ship"),
                            TextValue.of(text.substring(0, 10).strip()));
                    record.add(
                            FieldName.of("kg"), TextValue.of(text.substring(10).strip()));
                    return record.build();
                }

                @Override
                public void close() throws IOException {
                    lines.close();
                }
            };
        }
    }

    private static final String ROWS = """
            Lodestar     12
            Merganser     7
            Lodestar      3
            Merganser     x
            """;

    private static final Morphema MORPHEMA =
            Morphema.builder().source(new FixedWidth()).build();

    private static String run(String target, String rows) {
        return MORPHEMA.load("own.morphema", "morphema 1\nsource m: columns { kg: number }\n" + target, Path.of("."))
                .messages("m", "o")
                .transform(rows);
    }

    private static String rowsButLast() {
        return ROWS.substring(0, ROWS.indexOf("Merganser     x"));
    }

    @Test
    @DisplayName("is read, grouped, sorted and looked up in like any other")
    void works() {
        assertThat(run(
                        "target o: json(indent = 0) { list for r in m group by ship = r.ship as rs sort by ship desc"
                                + " { ship = ship  kg = sum(rs.kg)  first = first(for x in rs sort by x.kg).kg\n"
                                + " all for x in rs => x.kg } }",
                        rowsButLast()))
                .isEqualTo("{\"list\":[{\"ship\":\"Merganser\",\"kg\":7,\"first\":7,\"all\":[7]},"
                        + "{\"ship\":\"Lodestar\",\"kg\":15,\"first\":3,\"all\":[12,3]}]}\n");
        assertThat(run(
                        "table t for s in m key s.ship many\ntarget o: csv { for r in m where r.kg > 5"
                                + " { ship = r.ship  times = count(t[r.ship]) } }",
                        rowsButLast()))
                .isEqualTo("ship,times\nLodestar,2\nMerganser,1\n");
    }

    @Test
    @DisplayName("tells the place of a bad value")
    void tells() {
        assertThatThrownBy(() -> run("target o: csv { for r in m { kg = r.kg + 1 } }", ROWS))
                .isInstanceOfSatisfying(ProblemException.class, e -> {
                    assertThat(e.problem().code()).isEqualTo(Code.NOT_A_NUMBER);
                    assertThat(e.problem().input().line()).isEqualTo(4);
                });
    }

    @Test
    @DisplayName("cannot have a name that there is, and keeps within the limits of its Morphema")
    void isOne() {
        assertThatThrownBy(() -> Morphema.builder()
                        .source(new FixedWidth())
                        .source(new FixedWidth())
                        .build())
                .isInstanceOf(IllegalArgumentException.class);
        Morphema tight = Morphema.builder()
                .source(new FixedWidth())
                .limits(Limits.DEFAULT.with(Limit.RECORDS, 2))
                .build();
        Messages messages = tight.load(
                        "own.morphema",
                        "morphema 1\nsource m: columns\ntarget o: csv { for r in m { kg = r.kg } }",
                        Path.of("."))
                .messages("m", "o");
        assertThatThrownBy(() -> messages.transform(ROWS)).hasMessageContaining("records");
    }
}
