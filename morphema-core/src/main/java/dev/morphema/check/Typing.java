package dev.morphema.check;

import dev.morphema.syntax.Expr;
import dev.morphema.syntax.SourceText;
import dev.morphema.syntax.Span;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What the check found out about the places in the text of a mapping: what is known of each
 * expression, and which names are known where. Also of a text that is wrong, as far as it was
 * understood. Not changed after the check; thread-safe from then on.
 */
public final class Typing {
    /**
     * Names that are known in a part of the text.
     *
     * @param region the part
     * @param from the offset in it from which on they are
     */
    private record Known(Span region, int from, Scope scope) {
        boolean isAt(SourceText text, int offset) {
            return region.source() == text && region.contains(offset) && from <= offset;
        }

        /** Whether this says more of a place than another that is there too. */
        boolean isNearerThan(Known other) {
            return region.start() > other.region.start()
                    || region.start() == other.region.start() && region.end() < other.region.end()
                    || region.start() == other.region.start()
                            && region.end() == other.region.end()
                            && from >= other.from;
        }
    }

    private final Map<Expr, Type> types = new IdentityHashMap<>();
    private final List<Known> scopes = new ArrayList<>();
    private final Map<String, Type> globals = new LinkedHashMap<>();

    void put(Expr expr, Type type, Scope scope) {
        types.put(expr, type);
        put(expr.span(), expr.span().start(), scope);
    }

    void put(Span region, int from, Scope scope) {
        scopes.add(new Known(region, from, scope));
    }

    void putGlobals(Map<String, Type> ofMapping) {
        globals.putAll(ofMapping);
    }

    /**
     * {@return what is known of an expression}; within a define, as the call saw it that was
     * checked last
     */
    public Type of(Expr expr) {
        return types.getOrDefault(expr, Type.UNKNOWN);
    }

    /**
     * {@return the names that an expression at a place may use, with what is known of them: those
     * of loops and blocks, the innermost first, then those of the mapping}
     *
     * @param text one of the texts of the mapping
     * @param offset a place in it
     */
    public Map<String, Type> namesAt(SourceText text, int offset) {
        Map<String, Type> names = new LinkedHashMap<>();
        scopes.stream()
                .filter(known -> known.isAt(text, offset))
                .reduce((one, other) -> other.isNearerThan(one) ? other : one)
                .ifPresent(known -> names.putAll(known.scope().types()));
        globals.forEach(names::putIfAbsent);
        return names;
    }
}
