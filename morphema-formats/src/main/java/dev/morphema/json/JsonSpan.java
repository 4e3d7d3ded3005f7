package dev.morphema.json;

import dev.morphema.format.Limits;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * Where a value stands in the text of a JSON document, with what it holds.
 *
 * @param kind of its first token
 * @param from its first character
 * @param to the place behind its last one
 * @param entries of an object, by name; empty for others
 * @param items of a list; empty for others
 */
record JsonSpan(JsonToken kind, int from, int to, Map<String, Entry> entries, List<JsonSpan> items) {
    /**
     * An entry of an object.
     *
     * @param from the first character of its name
     */
    record Entry(int from, JsonSpan value) {}

    /**
     * {@return the value of a document}
     *
     * @throws tools.jackson.core.JacksonException if it is not well-formed
     */
    static JsonSpan of(String text) {
        try (JsonParser parser = JsonParsers.open(new StringReader(text), Limits.DEFAULT)) {
            parser.nextToken();
            JsonSpan document = value(parser, text);
            parser.nextToken();
            return document;
        }
    }

    private static JsonSpan value(JsonParser parser, String text) {
        JsonToken kind = parser.currentToken();
        int from = place(parser);
        Map<String, Entry> entries = new LinkedHashMap<>();
        List<JsonSpan> items = new ArrayList<>();
        if (kind == JsonToken.START_OBJECT) {
            while (parser.nextToken() != JsonToken.END_OBJECT) {
                int name = place(parser);
                String key = parser.currentName();
                parser.nextToken();
                entries.put(key, new Entry(name, value(parser, text)));
            }
        } else if (kind == JsonToken.START_ARRAY) {
            while (parser.nextToken() != JsonToken.END_ARRAY) {
                items.add(value(parser, text));
            }
        }
        int to =
                switch (kind) {
                    case START_OBJECT, START_ARRAY -> place(parser) + 1;
                    case VALUE_STRING -> endOfText(text, from);
                    default -> from + parser.getString().length();
                };
        return new JsonSpan(kind, from, to, entries, items);
    }

    private static int place(JsonParser parser) {
        return (int) parser.currentTokenLocation().getCharOffset();
    }

    /** {@return the place behind a text in quotes} */
    static int endOfText(String text, int from) {
        int at = from + 1;
        while (text.charAt(at) != '"') {
            at += text.charAt(at) == '\\' ? 2 : 1;
        }
        return at + 1;
    }

    boolean isObject() {
        return kind == JsonToken.START_OBJECT;
    }

    boolean isList() {
        return kind == JsonToken.START_ARRAY;
    }

    boolean isNull() {
        return kind == JsonToken.VALUE_NULL;
    }

    /** {@return whether it is an object or a list that holds nothing} */
    boolean isEmpty() {
        return entries.isEmpty() && items.isEmpty();
    }

    /** {@return where the first of what it holds begins}; of one that is not empty */
    int first() {
        return isList()
                ? items.get(0).from()
                : entries.values().iterator().next().from();
    }

    /** {@return the last of what it holds}; of one that is not empty */
    JsonSpan last() {
        List<JsonSpan> held =
                isList() ? items : entries.values().stream().map(Entry::value).toList();
        return held.get(held.size() - 1);
    }
}
