package dev.morphema.value;

/** The text of an XML element that holds nothing else, which still knows the element's name. Equal to the plain text. */
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

    /** {@return the name of the element} */
    public FieldName element() {
        return element;
    }
}
