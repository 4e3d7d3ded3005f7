package dev.morphema.json;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.format.Insertion;
import dev.morphema.format.Insertion.Existing;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * An entry that is put into any object of any document, however that is laid out, is one more entry
 * of it, and not one character of the document is another.
 */
class JsonInsertionProperties {
    private static final Gen<String> NAMES = Gens.of("a", "b", "c.d", "é\"", "", "\\{");

    /** How a document is written. */
    private record Style(String line, String step, String colon, String pad) {}

    private static Gen<Object> values(int depth) {
        Gen<Object> scalars = Gens.of("", "x\n}", "\"", 12, true, List.of(), Map.of());
        return depth == 0
                ? scalars
                : Gens.oneOf(
                        scalars,
                        Gens.maps(NAMES, Gens.lazy(() -> values(depth - 1)))
                                .ofMaxSize(4)
                                .map(LinkedHashMap::new),
                        Gens.lazy(() -> values(depth - 1)).map(List::of));
    }

    @Provide
    Gen<Map<String, Object>> documents() {
        return Gens.maps(NAMES, values(3)).ofMaxSize(4).map(LinkedHashMap::new);
    }

    @Provide
    Gen<Style> styles() {
        return Gens.of(
                new Style("", "", ":", ""),
                new Style("", "", ": ", " "),
                new Style("\n", "  ", ": ", ""),
                new Style("\r\n", "\t", " : ", ""));
    }

    @Property
    void oneMoreEntry(
            @ForAll("documents") Map<String, Object> document,
            @ForAll("styles") Style style,
            @ForAll("documents") Map<String, Object> part) {
        String before = written(document, style, style.line());
        String added = written(part, new Style("\n", "  ", ": ", ""), "\n");
        String after = JsonInsertion.of("doc", before, added, new Insertion(List.of("new"), Existing.REFUSED));
        Map<String, Object> expected = new LinkedHashMap<>(document);
        expected.put("new", part);
        Style plain = new Style("", "", ":", "");
        assertThat(plainly(after)).isEqualTo(written(expected, plain, ""));
        assertThat(keeps(before, after)).isTrue();
    }

    /** Whether one text is another with something put in at one place. */
    private static boolean keeps(String before, String after) {
        int same = 0;
        while (same < before.length() && before.charAt(same) == after.charAt(same)) {
            same++;
        }
        return after.endsWith(before.substring(same)) || before.equals("{}");
    }

    /** What a text says, in one style. */
    private static String plainly(String text) {
        return plainly(JsonSpan.of(text), text);
    }

    private static String plainly(JsonSpan value, String text) {
        if (value.isObject()) {
            return value.entries().entrySet().stream()
                    .map(entry -> quoted(entry.getKey()) + ":"
                            + plainly(entry.getValue().value(), text))
                    .collect(Collectors.joining(",", "{", "}"));
        }
        return value.isList()
                ? value.items().stream().map(item -> plainly(item, text)).collect(Collectors.joining(",", "[", "]"))
                : text.substring(value.from(), value.to());
    }

    private static String quoted(String text) {
        return '"' + text.replace("\\", "\\\\").replace("\"", "\\\"").replace("\n", "\\n") + '"';
    }

    private static String written(Object value, Style style, String line) {
        String inner = line.isEmpty() ? "" : line + style.step();
        String comma = line.isEmpty() && style.colon().equals(": ") ? ", " : ",";
        if (value instanceof Map<?, ?> map) {
            return map.entrySet().stream()
                    .map(e ->
                            inner + quoted(e.getKey().toString()) + style.colon() + written(e.getValue(), style, inner))
                    .collect(Collectors.joining(
                            comma, "{" + pad(map.isEmpty(), style), closing(map.isEmpty(), style, line, "}")));
        }
        if (value instanceof List<?> list) {
            return list.stream()
                    .map(item -> inner + written(item, style, inner))
                    .collect(Collectors.joining(
                            comma, "[" + pad(list.isEmpty(), style), closing(list.isEmpty(), style, line, "]")));
        }
        return value instanceof String text ? quoted(text) : String.valueOf(value);
    }

    private static String pad(boolean empty, Style style) {
        return empty ? "" : style.pad();
    }

    private static String closing(boolean empty, Style style, String line, String bracket) {
        return empty ? bracket : style.pad() + line + bracket;
    }
}
