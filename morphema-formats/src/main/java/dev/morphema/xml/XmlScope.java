package dev.morphema.xml;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import javax.xml.XMLConstants;
import org.jspecify.annotations.Nullable;

/** The namespaces that are declared at a place of a document, and the names that were met there. Not thread-safe. */
final class XmlScope {

    private static final int PLACES = 1 << 5;
    /** Names that are data could be without number. */
    private static final int MOST = 1 << 10;

    private final Map<String, String> namespaces = new HashMap<>();
    private final @Nullable Known[] known = new Known[PLACES];
    private int size;

    /** A name, and the next one at the same place of the table. */
    private record Known(XmlName name, @Nullable Known next) {}

    /** At the outermost place only {@code xml} is known. */
    XmlScope() {
        namespaces.put("xml", XMLConstants.XML_NS_URI);
    }

    /** Within another. */
    XmlScope(XmlScope around) {
        namespaces.putAll(around.namespaces);
    }

    /** {@return the namespace of a prefix, or the default one for ""; null if there is none} */
    @Nullable
    String namespace(String prefix) {
        return namespaces.get(prefix);
    }

    /** {@return whether all prefixes stand for the same as in another scope} */
    boolean meansTheSameAs(XmlScope other) {
        return namespaces.equals(other.namespaces);
    }

    /** Takes a declaration, before any name is asked for; says whether it is common. */
    boolean declare(XmlName attribute, String namespace) {
        boolean isDefault = attribute.qualified().length == "xmlns".length();
        String prefix = isDefault ? "" : attribute.local();
        boolean reserved = prefix.startsWith("xml")
                || !isDefault && !attribute.isWellFormed()
                || namespace.equals(XMLConstants.XML_NS_URI)
                || namespace.equals(XMLConstants.XMLNS_ATTRIBUTE_NS_URI);
        if (reserved || !isDefault && namespace.isEmpty() || prefix.indexOf(':') >= 0) {
            return false;
        }
        if (namespace.isEmpty()) {
            namespaces.remove(prefix);
        } else {
            namespaces.put(prefix, namespace);
        }
        return true;
    }

    /** {@return a name that was met in a scope around this one, as it is meant here} */
    XmlName name(XmlName other) {
        return name(other.qualified(), 0, other.length());
    }

    /** {@return the name from one place to before another, mostly the same object when it comes again} */
    XmlName name(byte[] bytes, int from, int to) {
        int hash = to - from;
        for (int i = from; i < to; i++) {
            hash = hash * 31 + bytes[i];
        }
        int place = (hash ^ hash >>> 7) & known.length - 1;
        for (Known at = known[place]; at != null; at = at.next()) {
            if (at.name().length() == to - from && at.name().isAt(bytes, from)) {
                return at.name();
            }
        }
        XmlName name = new XmlName(Arrays.copyOfRange(bytes, from, to), this);
        if (size++ < MOST) {
            known[place] = new Known(name, known[place]);
        }
        return name;
    }
}
