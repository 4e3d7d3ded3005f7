package dev.morphema.json;

import dev.morphema.value.NumberParser;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/** The tokens as the library's parser finds them. */
final class LibraryTokens implements JsonTokens {
    private final JsonParser parser;

    LibraryTokens(JsonParser parser) {
        this.parser = parser;
    }

    @Override
    public @Nullable JsonToken next() {
        return parser.nextToken();
    }

    @Override
    public @Nullable JsonToken current() {
        return parser.currentToken();
    }

    @Override
    public @Nullable String nextName() {
        return parser.nextName();
    }

    @Override
    public @Nullable Value nextScalar() {
        JsonToken next = parser.nextToken();
        if (next == JsonToken.VALUE_STRING) {
            return text();
        }
        return next == JsonToken.VALUE_NUMBER_INT || next == JsonToken.VALUE_NUMBER_FLOAT ? number() : null;
    }

    @Override
    public String name() {
        return parser.currentName();
    }

    @Override
    public TextValue text() {
        return isWhole()
                ? TextValue.of(parser.getStringCharacters(), parser.getStringOffset(), parser.getStringLength())
                : TextValue.of(JsonText.whole(parser.getString()));
    }

    /** Whether the text at hand has no surrogates, which must be looked at. */
    private boolean isWhole() {
        char[] characters = parser.getStringCharacters();
        int end = parser.getStringOffset() + parser.getStringLength();
        for (int i = parser.getStringOffset(); i < end; i++) {
            if (Character.isSurrogate(characters[i])) {
                return false;
            }
        }
        return true;
    }

    @Override
    public Value number() {
        NumberValue plain =
                NumberParser.read(parser.getStringCharacters(), parser.getStringOffset(), parser.getStringLength());
        return plain == null ? NumberValue.of(parser.getDecimalValue()) : plain;
    }

    @Override
    public void skip() {
        parser.skipChildren();
    }

    @Override
    public int line() {
        return parser.currentTokenLocation().getLineNr();
    }

    @Override
    public int column() {
        return parser.currentTokenLocation().getColumnNr();
    }

    @Override
    public void close() {
        parser.close();
    }
}
