package dev.morphema.json;

import dev.morphema.value.FieldName;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonToken;

/**
 * Goes through a JSON document from one value at a path to the next. A list on the way stands for
 * all its items, as it does in a path of a mapping. Not thread-safe.
 */
final class JsonPathWalk {
    /**
     * An object or list that is open: how many steps of the path lead to it, and the fields of the
     * path it has had.
     */
    private record Open(int level, boolean list, Set<String> seen) {}

    private final JsonTokens tokens;
    private final List<FieldName> path;
    private final Deque<Open> open = new ArrayDeque<>();
    /** Whether there was a list on the way: then a null is one of many, else it is nothing. */
    private boolean many;
    /** How many steps of the path were found; -1 as long as there was no object. */
    private int found = -1;

    JsonPathWalk(JsonTokens tokens, List<FieldName> path) {
        this.tokens = tokens;
        this.path = path;
    }

    /** Begins with the document's first token, at which the parser is. */
    void begin() {
        enter(tokens.current(), 0);
    }

    /**
     * Goes on to the next value.
     *
     * @return whether there is one; then the parser is at its first token
     */
    boolean next() throws IOException {
        while (!open.isEmpty()) {
            Open at = open.peek();
            JsonToken token = tokens.next();
            if (token == JsonToken.END_ARRAY || token == JsonToken.END_OBJECT) {
                open.pop();
            } else if (at.list()) {
                if (at.level() == path.size()) {
                    return true;
                }
                enter(token, at.level());
            } else if (field(at)) {
                return true;
            }
        }
        return false;
    }

    /**
     * Whether the field at hand has a value at the path itself; if it is on the way to one, it is
     * entered.
     */
    private boolean field(Open at) throws IOException {
        String name = tokens.name();
        JsonToken value = tokens.next();
        if (!name.equals(path.get(at.level()).local())) {
            tokens.skip();
            return false;
        }
        if (!at.seen().add(name)) {
            throw new TwiceException(name);
        }
        int level = at.level() + 1;
        found = Math.max(found, level);
        if (level < path.size() || value == JsonToken.START_ARRAY) {
            enter(value, level);
            return false;
        }
        return value != JsonToken.VALUE_NULL || many;
    }

    /** {@return how many steps of the path were found so far; -1 as long as there was no object} */
    int found() {
        return found;
    }

    private void enter(@Nullable JsonToken token, int level) {
        if (token == JsonToken.START_ARRAY) {
            many = true;
            open.push(new Open(level, true, Set.of()));
        } else if (token == JsonToken.START_OBJECT) {
            found = Math.max(found, level);
            open.push(new Open(level, false, new HashSet<>()));
        } else if (token != JsonToken.VALUE_NULL) {
            found = Math.max(found, level);
        }
    }

    /** Tells that an object on the way has a field twice. */
    static final class TwiceException extends RuntimeException {
        TwiceException(String name) {
            super(name, null, false, false);
        }
    }
}
