package dev.morphema.draft;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The prefixes by which names of other namespaces than that of the root are written. Not
 * thread-safe.
 */
final class Prefixes {
    private static final Map<String, String> KNOWN =
            Map.of("http://www.w3.org/XML/1998/namespace", "xml", "http://www.w3.org/2001/XMLSchema-instance", "xsi");

    private final @Nullable String own;
    private final Map<String, String> made = new LinkedHashMap<>();

    /** @param own the namespace of names without a prefix, or null */
    Prefixes(@Nullable String own) {
        this.own = own;
    }

    /** {@return the name of a field, with a prefix if it needs one} */
    String written(String field, @Nullable String namespace) {
        boolean attribute = field.startsWith("@");
        if (namespace == null || namespace.isEmpty() || !attribute && namespace.equals(own)) {
            return field;
        }
        String prefix = KNOWN.containsKey(namespace)
                ? KNOWN.get(namespace)
                : made.computeIfAbsent(namespace, n -> "ns" + (made.size() + 1));
        return attribute ? "@" + prefix + ":" + field.substring(1) : prefix + ":" + field;
    }

    /** {@return the prefixes to declare, with their namespaces} */
    Map<String, String> declared() {
        Map<String, String> declared = new LinkedHashMap<>();
        made.forEach((namespace, prefix) -> declared.put(prefix, namespace));
        return declared;
    }
}
