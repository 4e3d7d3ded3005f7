package dev.morphema.value;

import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * The text of an XML element that holds nothing else, which still knows the element's name. Equal
 * to the plain text.
 */
public final class ElementText extends TextValue {
    private final FieldName element;

    /**
     * @param element the name of the element
     * @param text what it holds, possibly empty
     */
    public ElementText(FieldName element, String text) {
        super(text);
        this.element = element;
    }

    private ElementText(FieldName element, byte[] plain, int length) {
        super(plain, length);
        this.element = element;
    }

    /** {@return the text of some characters, known to be plain if all of them are} */
    public static ElementText of(FieldName element, char[] characters, int from, int length) {
        byte @Nullable [] plain = plain(characters, from, length);
        return plain == null
                ? new ElementText(element, new String(characters, from, length))
                : new ElementText(element, plain, length);
    }

    /** {@return the text of some bytes in UTF-8, known to be plain if all of them are} */
    public static ElementText of(FieldName element, byte[] utf8, int from, int to) {
        byte @Nullable [] plain = plain(utf8, from, to);
        return plain == null
                ? new ElementText(element, new String(utf8, from, to - from, StandardCharsets.UTF_8))
                : new ElementText(element, plain, to - from);
    }

    /** {@return the name of the element} */
    public FieldName element() {
        return element;
    }
}
