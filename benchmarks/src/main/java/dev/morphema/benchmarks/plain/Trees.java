package dev.morphema.benchmarks.plain;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/** JSON as maps, lists, texts and decimals. */
final class Trees {
    private static final JsonFactory FACTORY = new JsonFactory();

    private Trees() {}

    static Object parse(String text) {
        try (JsonParser parser = FACTORY.createParser(ObjectReadContext.empty(), text)) {
            parser.nextToken();
            return value(parser);
        }
    }

    /** {@return the value that the parser is at} */
    static Object value(JsonParser parser) {
        return switch (parser.currentToken()) {
            case START_OBJECT -> {
                Map<String, Object> map = new LinkedHashMap<>();
                for (String name = parser.nextName(); name != null; name = parser.nextName()) {
                    parser.nextToken();
                    map.put(name, value(parser));
                }
                yield map;
            }
            case START_ARRAY -> {
                List<Object> list = new ArrayList<>();
                while (parser.nextToken() != JsonToken.END_ARRAY) {
                    list.add(value(parser));
                }
                yield list;
            }
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> parser.getDecimalValue();
            default -> parser.getString();
        };
    }
}
