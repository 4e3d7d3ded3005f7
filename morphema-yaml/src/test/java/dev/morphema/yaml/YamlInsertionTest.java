package dev.morphema.yaml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.format.Insertion;
import dev.morphema.format.Insertion.Existing;
import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** An entry is put into a YAML document, of which nothing else changes, comments included. */
class YamlInsertionTest {
    private static final String DOCUMENT = """
            # Settings.
            version: 3   # by hand
            harbour:
              ports:
                OLD: {depth: 7}   # closed

              # lists
              tags:
                - a
                - b   # last
              deep:
                - - x
              flow: {x: 1}
              empty: {}
              none:
              text: |+
                two
                lines

              # behind
              'odd name': 'it''s'
            shared: &s {k: 1}
            again: *s
            """;
    private static final String PART = """
            SKB:
              name: 'yes'
              text: |
                a

                 b
              list:
              - 1
              - k: v
            """;

    private static Insertion at(String path, Existing existing) {
        return new Insertion(path.isEmpty() ? List.of() : List.of(path.split("[.]")), existing);
    }

    private static String inserted(String path, Existing existing, String part) {
        return YamlInsertion.of("config.yaml", DOCUMENT, part, at(path, existing));
    }

    @ParameterizedTest(name = "at {0}")
    @DisplayName("a new entry stands behind the last one, indented as that")
    @CsvSource(
            delimiterString = " ~ ",
            quoteCharacter = '`',
            value = {
                "harbour.ports ~ `    OLD: {depth: 7}   # closed` ~ 4",
                "harbour.none ~ `  none:` ~ 4",
                "harbour ~ `  'odd name': 'it''s'` ~ 2",
                "`` ~ `again: *s` ~ 0"
            })
    void blocks(String path, String before, int column) {
        String expected = PART.strip().indent(column).replaceAll("(?m)^ +$", "");
        assertThat(inserted(path, Existing.REFUSED, PART))
                .isEqualTo(DOCUMENT.replace(before + "\n", before + "\n" + expected));
    }

    @ParameterizedTest(name = "at {0}")
    @DisplayName("in braces an entry is written so, too")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "harbour.flow ~ flow: {x: 1} ~ flow: {x: 1, a: {b: [1, \"2\"], \"c:\": \"d\\ne\"}}",
                "harbour.empty ~ empty: {} ~ empty: {a: {b: [1, \"2\"], \"c:\": \"d\\ne\"}}",
                "harbour.ports.OLD ~ {depth: 7} ~ {depth: 7, a: {b: [1, \"2\"], \"c:\": \"d\\ne\"}}"
            })
    void braces(String path, String before, String after) {
        String part = "a:\n  b:\n  - 1\n  - '2'\n  'c:': |-\n    d\n    e\n";
        assertThat(inserted(path, Existing.REFUSED, part)).isEqualTo(DOCUMENT.replace(before, after));
    }

    @Test
    @DisplayName("lists are added to, and entries replaced, when that is asked for")
    void changes() {
        assertThat(inserted("harbour.tags", Existing.EXTENDED, "- c: 1\n  d: 2\n- e\n"))
                .isEqualTo(DOCUMENT.replace("- b   # last\n", "- b   # last\n    - c: 1\n      d: 2\n    - e\n"));
        assertThat(inserted("harbour.tags", Existing.REPLACED, "- c\n"))
                .isEqualTo(DOCUMENT.replace("    - a\n    - b   # last\n", "  - c   # last\n"));
        assertThat(inserted("version", Existing.REPLACED, "4\n"))
                .isEqualTo(DOCUMENT.replace("version: 3", "version: 4"));
        assertThat(inserted("harbour.text", Existing.REPLACED, "one\n"))
                .isEqualTo(DOCUMENT.replace("|+\n    two\n    lines\n\n", "one\n"));
    }

    @ParameterizedTest(name = "at {0}")
    @DisplayName("what is there already is not replaced unasked, nor changed by an alias")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "version ~ REFUSED ~ There is an entry version already. ~ 2:1, field version",
                "harbour.tags ~ REFUSED ~ There is an entry tags already. ~ 8:3, field harbour.tags",
                "harbour.port.x ~ REFUSED ~ There is no entry port here, to put something into. ~ 4:3",
                "version.x ~ REFUSED ~ What stands here has no entries, so nothing can be put into it. ~ 2:10, field version",
                "shared ~ REFUSED ~ What stands here is written in a way that nothing can be put into it without changing something else. ~ 2:1"
            })
    void refusals(String path, Existing existing, String message, String place) {
        assertThatThrownBy(() -> inserted(path, existing, PART)).isInstanceOfSatisfying(ProblemException.class, e -> {
            assertThat(e.problem().message()).isEqualTo(message);
            assertThat(e.problem().input()).hasToString("config.yaml:" + place);
        });
    }

    @Provide
    Gen<String> texts() {
        return Gens.strings().ofMaxLength(8);
    }

    @Property
    @DisplayName("whatever text an entry has, it is that afterwards")
    void anyText(@ForAll("texts") String text, @ForAll boolean inBraces) {
        String part = YamlTest.written("{\"k\": [" + YamlTest.quote(text) + "]}");
        String path = inBraces ? "harbour.flow" : "harbour.ports";
        assertThat(inserted(path, Existing.REFUSED, part)).isNotEqualTo(DOCUMENT);
    }
}
