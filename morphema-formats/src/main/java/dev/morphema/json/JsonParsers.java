package dev.morphema.json;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import java.io.Reader;
import tools.jackson.core.JsonParser;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;

/** Makes parsers of the library, which stop at limits. */
final class JsonParsers {
    private static final JsonFactory FACTORY = factory(Limits.DEFAULT);

    private JsonParsers() {}

    /** {@return a parser of some characters, within limits} */
    static JsonParser open(Reader characters, Limits limits) {
        // A factory takes longer to make than a message to read.
        JsonFactory factory = limits.areUsualBut(Limit.TIME) ? FACTORY : factory(limits);
        return factory.createParser(ObjectReadContext.empty(), characters);
    }

    private static JsonFactory factory(Limits limits) {
        return JsonFactory.builder()
                .streamReadConstraints(StreamReadConstraints.builder()
                        .maxNestingDepth(limits.mostInt(Limit.DEPTH))
                        .maxStringLength(limits.mostInt(Limit.TEXT))
                        .maxNameLength(limits.mostInt(Limit.NAME))
                        .build())
                .build();
    }
}
