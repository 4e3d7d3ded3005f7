package dev.morphema.samples;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.jspecify.annotations.Nullable;

/**
 * An element as it means: prefixes and the order of attributes do not matter, and white space only
 * where there is other text beside it.
 *
 * @param name with its namespace
 * @param attributes by name with namespace
 * @param parts child elements and texts, in order
 */
record XmlTree(QName name, TreeMap<String, String> attributes, List<Object> parts) {
    /** {@return the root element of a document} */
    static XmlTree parse(byte[] document) throws XMLStreamException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        XMLStreamReader reader = factory.createXMLStreamReader(new ByteArrayInputStream(document));
        while (reader.next() != XMLStreamConstants.START_ELEMENT) {
            // what stands before the root element says nothing
        }
        return element(reader);
    }

    private static XmlTree element(XMLStreamReader reader) throws XMLStreamException {
        XmlTree element = new XmlTree(reader.getName(), new TreeMap<>(), new ArrayList<>());
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            element.attributes.put(reader.getAttributeName(i).toString(), reader.getAttributeValue(i));
        }
        for (int event = reader.next(); event != XMLStreamConstants.END_ELEMENT; event = reader.next()) {
            if (event == XMLStreamConstants.START_ELEMENT) {
                element.parts.add(element(reader));
            } else if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA) {
                element.parts.add(reader.getText());
            }
        }
        element.dropIndentation();
        return element;
    }

    /** White space between elements means nothing where no other text stands beside it. */
    private void dropIndentation() {
        boolean elements = parts.stream().anyMatch(XmlTree.class::isInstance);
        boolean text = parts.stream().anyMatch(p -> p instanceof String s && !s.isBlank());
        if (elements && !text) {
            parts.removeIf(String.class::isInstance);
        }
    }

    /** {@return the text, if there are no child elements; else null} */
    @Nullable
    String text() {
        return parts.stream().anyMatch(XmlTree.class::isInstance)
                ? null
                : String.join("", parts.stream().map(String.class::cast).toList());
    }
}
