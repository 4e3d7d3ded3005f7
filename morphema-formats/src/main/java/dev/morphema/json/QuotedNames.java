package dev.morphema.json;

import dev.morphema.formats.ByteSink;
import dev.morphema.formats.EncodedNames;
import dev.morphema.value.FieldName;

/**
 * Names as JSON writes them, with a comma before and a colon after them: the same for all
 * documents, so that a short message need not encode them anew. Safe for use by many threads.
 */
final class QuotedNames {
    private static final String COLON = ":";
    private static final String COLON_AND_SPACE = ": ";

    private final EncodedNames<ByteSink.Constant> compact = names(COLON);
    private final EncodedNames<ByteSink.Constant> spaced = names(COLON_AND_SPACE);

    private static EncodedNames<ByteSink.Constant> names(String colon) {
        return new EncodedNames<>(name -> new ByteSink.Constant("," + quoted(name) + colon));
    }

    /** {@return what gives names, with the colon and perhaps a space after it} */
    EncodedNames<ByteSink.Constant> encoded(boolean withSpace) {
        return withSpace ? spaced : compact;
    }

    /** {@return a name in quotes, with the colon} */
    static String quoted(FieldName name, boolean withSpace) {
        return quoted(name) + (withSpace ? COLON_AND_SPACE : COLON);
    }

    private static String quoted(FieldName name) {
        StringBuilder text = new StringBuilder("\"");
        for (int i = 0; i < name.local().length(); i++) {
            text.append(JsonDocumentWriter.written(name.local().charAt(i)));
        }
        return text.append('"').toString();
    }
}
