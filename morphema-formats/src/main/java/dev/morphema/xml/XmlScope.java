package dev.morphema.xml;

import dev.morphema.value.Hashing;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import javax.xml.XMLConstants;
import org.jspecify.annotations.Nullable;

/**
 * The namespaces that are declared at a place of a document, and the names that were met there. Not
 * thread-safe.
 */
final class XmlScope {
    private static final int PLACES = 1 << 5;
    /** Names that are data could be without number. */
    private static final int MOST = 1 << 10;

    private final @Nullable XmlScope around;
    /** Those declared here, by prefix; an empty one takes the default one back. */
    private final Map<String, String> namespaces = new HashMap<>();

    private final @Nullable Known[] known = new Known[PLACES];
    private int size;

    /** A name, and the next one at the same place of the table. */
    private record Known(XmlName name, @Nullable Known next) {}

    /** At the outermost place only {@code xml} is known. */
    XmlScope() {
        this.around = null;
        namespaces.put("xml", XMLConstants.XML_NS_URI);
    }

    /** Within another. */
    XmlScope(XmlScope around) {
        this.around = around;
    }

    /** {@return the namespace of a prefix, or the default one for ""; null if there is none} */
    @Nullable
    String namespace(String prefix) {
        for (XmlScope scope = this; scope != null; scope = scope.around) {
            String found = scope.namespaces.get(prefix);
            if (found != null) {
                return found.isEmpty() ? null : found;
            }
        }
        return null;
    }

    /**
     * {@return whether all prefixes stand for the same as in another scope, for the same reasons}
     */
    boolean meansTheSameAs(XmlScope other) {
        XmlScope mine = this;
        XmlScope theirs = other;
        while (mine != theirs && mine != null && theirs != null && mine.namespaces.equals(theirs.namespaces)) {
            mine = mine.around;
            theirs = theirs.around;
        }
        return mine == theirs;
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
        namespaces.put(prefix, namespace);
        return true;
    }

    /** {@return a name that was met in a scope around this one, as it is meant here} */
    XmlName name(XmlName other) {
        return name(other.qualified(), 0, other.length());
    }

    /**
     * {@return the name from one place to before another, mostly the same object when it comes
     * again}
     */
    XmlName name(byte[] bytes, int from, int to) {
        int place = Hashing.of(bytes, from, to) & known.length - 1;
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
