package dev.morphema.xml;

import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.List;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLStreamReader2;
import org.jspecify.annotations.Nullable;

/**
 * Where an element stands in the text of a document, with the elements in it.
 *
 * @param name its name
 * @param tag its name as it is written, with its prefix
 * @param defaultNamespace what names without a prefix are in, within it; null for none
 * @param from its first character
 * @param inside the place behind its start tag
 * @param insideTo the place of its end tag; that behind the start tag if it has none
 * @param to the place behind it
 * @param isEmptyTag whether the start tag is its end, too
 * @param children in order
 * @param gaps the white space around and between the children, if there is nothing else
 */
record XmlSpan(
        FieldName name,
        String tag,
        @Nullable String defaultNamespace,
        int from,
        int inside,
        int insideTo,
        int to,
        boolean isEmptyTag,
        List<XmlSpan> children,
        List<Gap> gaps) {
    /** White space of a document. */
    record Gap(int from, int to) {}

    /**
     * {@return the root element of a document}
     *
     * @throws XMLStreamException if it is not well-formed
     */
    static XmlSpan of(String text) throws XMLStreamException {
        XMLStreamReader2 xml = XmlParsers.asWritten(text);
        try {
            while (xml.next() != XMLStreamConstants.START_ELEMENT) {
                // what stands before the root element stays as it is
            }
            XmlSpan root = element(xml);
            while (xml.hasNext()) {
                xml.next();
            }
            return root;
        } finally {
            xml.close();
        }
    }

    private static XmlSpan element(XMLStreamReader2 xml) throws XMLStreamException {
        String prefix = xml.getPrefix();
        String local = xml.getLocalName();
        String tag = prefix == null || prefix.isEmpty() ? local : prefix + ':' + local;
        FieldName name = new FieldName(given(xml.getNamespaceURI()), local, false);
        String byDefault = given(xml.getNamespaceContext().getNamespaceURI(""));
        int from = start(xml);
        int inside = end(xml);
        boolean empty = xml.isEmptyElement();
        List<XmlSpan> children = new ArrayList<>();
        List<Gap> gaps = new ArrayList<>();
        boolean onlyWhite = true;
        while (xml.next() != XMLStreamConstants.END_ELEMENT) {
            if (xml.getEventType() == XMLStreamConstants.START_ELEMENT) {
                children.add(element(xml));
            } else if (xml.isWhiteSpace()) {
                gaps.add(new Gap(start(xml), end(xml)));
            } else {
                onlyWhite &= xml.getEventType() == XMLStreamConstants.COMMENT;
            }
        }
        return new XmlSpan(
                name,
                tag,
                byDefault,
                from,
                inside,
                empty ? inside : start(xml),
                empty ? inside : end(xml),
                empty,
                children,
                onlyWhite ? gaps : List.of());
    }

    private static @Nullable String given(@Nullable String namespace) {
        return namespace == null || namespace.isEmpty() ? null : namespace;
    }

    private static int start(XMLStreamReader2 xml) {
        return (int) xml.getLocationInfo().getStartingCharOffset();
    }

    private static int end(XMLStreamReader2 xml) throws XMLStreamException {
        return (int) xml.getLocationInfo().getEndingCharOffset();
    }

    /** {@return the elements in it that a name means}, with or without its prefix */
    List<XmlSpan> named(String step) {
        return children.stream()
                .filter(child -> child.tag.equals(step) || child.name.local().equals(step))
                .toList();
    }

    /** {@return the elements in it of the same name as another} */
    List<XmlSpan> like(XmlSpan other) {
        return children.stream().filter(child -> child.name.equals(other.name)).toList();
    }

    /**
     * {@return the white space between elements, its own and that of all elements in it, in order}
     */
    List<Gap> allGaps() {
        List<Gap> all = new ArrayList<>(gaps);
        children.forEach(child -> all.addAll(child.allGaps()));
        return all;
    }
}
