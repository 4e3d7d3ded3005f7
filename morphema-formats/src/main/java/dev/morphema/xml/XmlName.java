package dev.morphema.xml;

import dev.morphema.value.FieldName;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** A name in a document, in ASCII, and what it means where it was met. Immutable. */
final class XmlName {
    private static final boolean[] PARTS = new boolean[128];

    static {
        for (char c = 'a'; c <= 'z'; c++) {
            PARTS[c] = true;
            PARTS[Character.toUpperCase(c)] = true;
        }
        for (char c = '0'; c <= '9'; c++) {
            PARTS[c] = true;
        }
        for (char c : "_-.:".toCharArray()) {
            PARTS[c] = true;
        }
    }

    /** No name. */
    static final XmlName NONE = new XmlName(new byte[0], new XmlScope());

    private final byte[] qualified;
    private final @Nullable String prefix;
    private final String local;
    private final boolean wellFormed;
    private final @Nullable String namespace;
    private final @Nullable String defaultNamespace;

    /** @param scope what is declared where the name stands */
    XmlName(byte[] qualified, XmlScope scope) {
        this.qualified = qualified;
        String text = new String(qualified, StandardCharsets.US_ASCII);
        int colon = text.indexOf(':');
        this.prefix = colon < 0 ? null : text.substring(0, colon);
        this.local = text.substring(colon + 1);
        this.wellFormed = (prefix == null || isStart(prefix)) && isStart(local) && local.indexOf(':') < 0;
        this.namespace = prefix == null ? null : scope.namespace(prefix);
        this.defaultNamespace = scope.namespace("");
    }

    private static boolean isStart(String name) {
        return !name.isEmpty() && (Character.isLetter(name.charAt(0)) || name.charAt(0) == '_');
    }

    /** {@return whether a byte is a part of names, of those in ASCII} */
    static boolean isPart(byte b) {
        return b >= 0 && PARTS[b];
    }

    /** {@return the name as it stands, not to be changed} */
    byte[] qualified() {
        return qualified;
    }

    /** {@return how many bytes it has} */
    int length() {
        return qualified.length;
    }

    /** {@return whether it stands at a place of some bytes, of which there are enough} */
    boolean isAt(byte[] bytes, int place) {
        return Arrays.equals(bytes, place, place + qualified.length, qualified, 0, qualified.length);
    }

    /** {@return the name without prefix} */
    String local() {
        return local;
    }

    /** {@return whether the prefix, if there is one, and the rest each begin as a name does} */
    boolean isWellFormed() {
        return wellFormed;
    }

    /** {@return whether an attribute of this name declares a namespace} */
    boolean declares() {
        return prefix == null ? local.equals("xmlns") : prefix.equals("xmlns");
    }

    /** {@return whether an element or an attribute can have the name} */
    boolean isKnown() {
        return wellFormed && (prefix == null || namespace != null) && !declares();
    }

    /** {@return the namespace of an element of this name, or null} */
    @Nullable
    String elementNamespace() {
        return prefix == null ? defaultNamespace : namespace;
    }

    /** {@return the namespace of an attribute of this name, or null} */
    @Nullable
    String attributeNamespace() {
        return namespace;
    }

    /** {@return what an attribute of this name is called} */
    FieldName ofAttribute() {
        return new FieldName(namespace, local, true);
    }

    /** {@return whether both mean the same attribute} */
    boolean isSameAttribute(XmlName other) {
        return this == other || local.equals(other.local) && Objects.equals(namespace, other.namespace);
    }

    /** {@return the name as it stands} */
    @Override
    public String toString() {
        return new String(qualified, StandardCharsets.US_ASCII);
    }
}
