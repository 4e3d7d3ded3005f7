package dev.morphema.json;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.formats.Pieces;
import dev.morphema.problem.ProblemException;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * The tokens found in bytes are those that the library finds, and what the library refuses is
 * refused.
 */
class ByteTokensProperties {
    private static final Projection SOME = new Projection(
            false,
            Map.of(FieldName.of("a"), Projection.everything(), FieldName.of("ü"), Projection.everything()),
            null,
            Map.of());

    /** Of one field texts and numbers may stay bytes, of the other not. */
    private static final Projection PASSING = new Projection(
            false,
            Map.of(FieldName.of("a"), Projection.everything().passing(), FieldName.of("b"), Projection.everything()),
            null,
            Map.of());

    private static Gen<String> scalars() {
        return Gens.of(
                "null",
                "true",
                "false",
                "0",
                "-0",
                "17",
                "-3.50",
                "1e3",
                "2.5E-2",
                "123456789012345678901234.5",
                "\"\"",
                "\"plain\"",
                "\"it's <&>\"",
                "\"\\u00e4\\n\\\"\\\\\\/\"",
                "\"\\ud83d\\ude00\"",
                "\"€😀ü\"",
                "\"\u007F\"",
                "\"\uFFFE\"",
                "\"a longer text, \\\"marked\\\" and søndre\"");
    }

    private static Gen<String> values(int depth) {
        if (depth == 0) {
            return scalars();
        }
        Gen<String> space = Gens.of("", "", " ", "\n", "\r\n", "\r", "\t");
        Gen<String> lists = Gens.combine(values(depth - 1).list().ofMaxSize(3), space)
                .as((items, white) -> "[" + white + String.join(white + "," + white, items) + white + "]");
        Gen<String> fields = Gens.combine(
                        Gens.of("\"a\"", "\"b\"", "\"c\"", "\"ü\"", "\"\\u0061\""), space, values(depth - 1))
                .as((name, white, value) -> name + white + ":" + white + value);
        Gen<String> objects = Gens.combine(fields.list().ofMaxSize(3), space)
                .as((all, white) -> "{" + white + String.join("," + white, all) + white + "}");
        return Gens.frequencyOf(Gens.weighted(1, scalars()), Gens.weighted(1, lists), Gens.weighted(2, objects));
    }

    @Provide
    Gen<String> documents() {
        return values(3);
    }

    private static String read(byte[] document, boolean inBytes, Projection projection, int most) {
        StringBuilder out = new StringBuilder();
        try (RecordReader reader =
                JsonSource.lines().open(new Pieces(document, inBytes, most), projection, Options.NONE)) {
            for (Value value = reader.next(); value != null; value = reader.next()) {
                print(value, out);
                out.append('\n');
            }
        } catch (ProblemException e) {
            out.append(e.problem().code());
        } catch (IOException e) {
            throw new AssertionError(e);
        }
        return out.toString();
    }

    private static boolean isUtf8(byte[] document) {
        return Arrays.equals(new String(document, StandardCharsets.UTF_8).getBytes(StandardCharsets.UTF_8), document);
    }

    private static void print(Value value, StringBuilder out) {
        if (value instanceof RecordValue record) {
            out.append('@').append(record.origin().line()).append('{');
            for (int i = 0; i < record.layout().size(); i++) {
                out.append(record.layout().name(i)).append('=');
                print(record.get(i), out);
                out.append(' ');
            }
            out.append('}');
        } else if (value instanceof ListValue list) {
            out.append('[');
            list.items().forEach(item -> print(item, out.append(' ')));
            out.append(']');
        } else {
            out.append(value.kind()).append(value);
        }
    }

    /**
     * A number beyond the limit may also be none, by what follows its exponent: 1E3456789012.5.
     * Either may be told.
     */
    private static String orWorse(String outcome) {
        return outcome.replaceFirst("LIMIT$", "BAD_JSON");
    }

    private static void bothReadTheSame(byte[] document) {
        for (Projection projection : List.of(Projection.everything(), SOME, PASSING)) {
            String byLibrary = read(document, false, projection, document.length + 1);
            for (int most : Pieces.SIZES) {
                String inBytes = read(document, true, projection, most);
                if (isUtf8(document)) {
                    assertThat(inBytes).isIn(byLibrary, orWorse(byLibrary));
                } else {
                    // The library lets some pass, such as halves of surrogate pairs.
                    assertThat(inBytes).matches("(?s).*(BAD_ENCODING|BAD_JSON)");
                }
            }
        }
    }

    @Property(tries = 1_000)
    void documentsAreReadAlike(@ForAll("documents") String first, @ForAll("documents") String second) {
        bothReadTheSame((first + "\n" + second).getBytes(StandardCharsets.UTF_8));
    }

    /** What comes again is known as a whole, and must not be taken for what is nearly the same. */
    @Property(tries = 1_500)
    void whatComesAgainIsReadAlike(
            @ForAll("documents") String document, @ForAll("documents") String other, @ForAll int place) {
        StringBuilder nearly = new StringBuilder(document);
        nearly.setCharAt(Math.floorMod(place, nearly.length()), "{}[],: \n\"ab".charAt(Math.floorMod(place / 31, 11)));
        String again = (document + "\n").repeat(3);
        bothReadTheSame((again + other + "\n" + again + nearly + "\n" + document).getBytes(StandardCharsets.UTF_8));
    }

    /**
     * One byte is left out, or another; but not 0, by which the library would guess another
     * encoding.
     */
    @Property(tries = 2_500)
    void damagedDocumentsAreReadOrRefusedAlike(
            @ForAll("documents") String document, @ForAll int place, @ForAll byte other) {
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        int at = Math.floorMod(place, bytes.length);
        byte[] damaged = bytes.clone();
        damaged[at] = (byte) (place % 3 == 0 && other != 0 ? other : "{}[],:\"\\ 0-".charAt(Math.floorMod(other, 11)));
        bothReadTheSame(damaged);
        byte[] shorter = new byte[bytes.length - 1];
        System.arraycopy(bytes, 0, shorter, 0, at);
        System.arraycopy(bytes, at + 1, shorter, at, shorter.length - at);
        bothReadTheSame(shorter);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                " ",
                "01",
                "-",
                "+1",
                "1.",
                ".5",
                "1e",
                "1e+",
                "0x1",
                "12a",
                "truex",
                "nul",
                "[1,]",
                "[,1]",
                "{\"a\":1,}",
                "{a:1}",
                "{'a':1}",
                "{\"a\" 1}",
                "[1 2]",
                "[1}",
                "\"a\nb\"",
                "\"\\x\"",
                "\"\\u12\"",
                "\"\\u12g4\"",
                "\"open",
                "{\"a\":1",
                "[",
                "]",
                "}",
                ":",
                "1 2",
                "[1\r,\n{}]{\"a\"\r:\n{}}",
                "{}{}",
                "true false",
                "\"a\"\"b\"",
                "NaN",
                "/* c */ 1",
                "\u0001"
            })
    @DisplayName("what the standard forbids, and what it allows")
    void cornersOfTheStandard(String document) {
        bothReadTheSame(document.getBytes(StandardCharsets.UTF_8));
    }

    @ParameterizedTest
    @ValueSource(strings = {"C3", "C0AF", "EDA080", "F4908080", "FF", "E282", "80"})
    @DisplayName("bytes that are no characters are refused, in a text that is wanted and in one that is not")
    void wrongBytes(String hex) {
        byte[] wrong = new BigInteger("00" + hex, 16).toByteArray();
        for (String name : List.of("a", "z")) {
            byte[] start = ("{\"" + name + "\": \"x").getBytes(StandardCharsets.UTF_8);
            byte[] bytes = new byte[start.length + hex.length() / 2 + 3];
            System.arraycopy(start, 0, bytes, 0, start.length);
            System.arraycopy(wrong, wrong.length - hex.length() / 2, bytes, start.length, hex.length() / 2);
            System.arraycopy("x\"}".getBytes(StandardCharsets.UTF_8), 0, bytes, bytes.length - 3, 3);
            assertThat(read(bytes, true, SOME, 3)).isEqualTo("BAD_ENCODING");
            assertThat(read(bytes, true, PASSING, 3)).isEqualTo("BAD_ENCODING");
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {499, 500, 501})
    @DisplayName("documents of any depth up to the limit")
    void depth(int depth) {
        bothReadTheSame(("[".repeat(depth) + "]".repeat(depth)).getBytes(StandardCharsets.UTF_8));
    }
}
