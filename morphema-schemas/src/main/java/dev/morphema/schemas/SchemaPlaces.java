package dev.morphema.schemas;

import dev.morphema.problem.InputLocation;
import java.io.IOException;
import java.util.IdentityHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Where the objects of documents begin, as trees do not tell. Not thread-safe. */
final class SchemaPlaces {
    private final Map<JsonNode, InputLocation> places = new IdentityHashMap<>();

    /** {@return where an object of a document begins; null for what is no object} */
    @Nullable
    InputLocation of(JsonNode node) {
        return places.get(node);
    }

    /**
     * {@return the value that a parser stands at, whose objects are known from now on}
     *
     * @param file the document, as messages name it
     */
    JsonNode read(JsonParser in, ObjectMapper mapper, String file) throws IOException {
        if (in.currentToken() == JsonToken.START_OBJECT) {
            ObjectNode object = mapper.createObjectNode();
            TokenStreamLocation begin = in.currentTokenLocation();
            places.put(object, InputLocation.at(file, begin.getLineNr(), begin.getColumnNr()));
            while (in.nextToken() != JsonToken.END_OBJECT) {
                String name = in.currentName();
                in.nextToken();
                object.set(name, read(in, mapper, file));
            }
            return object;
        }
        if (in.currentToken() == JsonToken.START_ARRAY) {
            ArrayNode array = mapper.createArrayNode();
            while (in.nextToken() != JsonToken.END_ARRAY) {
                array.add(read(in, mapper, file));
            }
            return array;
        }
        return mapper.readTree(in);
    }
}
