package dev.morphema.xml;

import dev.morphema.format.Projection;
import dev.morphema.formats.FieldOrder;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.ElementText;
import dev.morphema.value.FieldName;
import dev.morphema.value.Nothing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.util.HashMap;
import java.util.Map;
import javax.xml.stream.Location;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLStreamReader2;
import org.jspecify.annotations.Nullable;

/**
 * Makes values of elements. An element without attributes and child elements is a text; another is a record of its
 * attributes, child elements and own text. Not thread-safe.
 */
final class ElementReader {
    private static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";

    private final String input;
    private final boolean trim;
    private final XMLStreamReader2 xml;
    /** The names that were met last under each local name, so that equal names are mostly one object. */
    private final Map<String, FieldName> elementNames = new HashMap<>();

    private final Map<String, FieldName> attributeNames = new HashMap<>();
    /** For each place of which not everything is wanted, the fields there. */
    private final Map<Projection, FieldOrder> orders = new HashMap<>();

    ElementReader(String input, boolean trim, XMLStreamReader2 xml) {
        this.input = input;
        this.trim = trim;
        this.xml = xml;
    }

    /** {@return the name of the element at whose start the parser is} */
    FieldName name() {
        return name(elementNames, xml.getNamespaceURI(), xml.getLocalName(), false);
    }

    private static FieldName name(Map<String, FieldName> names, @Nullable String uri, String local, boolean attribute) {
        String namespace = uri == null || uri.isEmpty() ? null : uri;
        FieldName known = names.get(local);
        if (known != null && (namespace == null ? known.namespace() == null : namespace.equals(known.namespace()))) {
            return known;
        }
        FieldName made = new FieldName(namespace, local, attribute);
        names.put(local, made);
        return made;
    }

    /** Goes on to the end of the element at whose start the parser is. */
    void skip() throws XMLStreamException {
        xml.skipElement();
    }

    /** Reads the element at whose start the parser is as a field of a record, or skips it if it is not wanted. */
    void child(RecordValue.Builder record, Projection wanted) throws XMLStreamException {
        if (wanted.everything()) {
            FieldName name = name();
            record.add(name, element(name, wanted.child(name), 0));
        } else {
            child(record, wanted, orders.computeIfAbsent(wanted, FieldOrder::new));
        }
    }

    private void child(RecordValue.Builder record, Projection wanted, FieldOrder order) throws XMLStreamException {
        FieldOrder.Field field = order.field(xml.getLocalName(), xml.getNamespaceURI());
        if (field.slot() < 0) {
            skip();
        } else {
            record.add(field.slot(), element(field.name(), wanted.child(field.slot()), 0));
        }
    }

    /**
     * {@return the element at whose start the parser is}
     *
     * @param number which record it is, counted from 1; 0 if it is none
     */
    Value element(FieldName name, Projection wanted, long number) throws XMLStreamException {
        Origin origin = new Origin(input, number, xml.getLocation().getLineNumber());
        if (xml.getDepth() > XmlParsers.MOST_DEEP) {
            throw fault(Code.LIMIT, "Elements are nested more than " + XmlParsers.MOST_DEEP + " deep.");
        }
        int attributes = xml.getAttributeCount();
        boolean nil = attributes > 0 && isNil();
        RecordValue.Builder record = null;
        if (attributes > 0) {
            record = RecordValue.builder(wanted.layout(), origin).element(name);
            attributes(record, wanted, attributes);
        }
        Texts texts = new Texts(trim);
        PartOrder order = null;
        FieldOrder fields = null;
        for (int event = xml.next(); event != XMLStreamConstants.END_ELEMENT; event = xml.next()) {
            if (event == XMLStreamConstants.START_ELEMENT) {
                if (record == null) {
                    record = RecordValue.builder(wanted.layout(), origin).element(name);
                }
                if (!wanted.everything()) {
                    if (fields == null) {
                        fields = orders.computeIfAbsent(wanted, FieldOrder::new);
                        fields.begin();
                    }
                    child(record, wanted, fields);
                } else {
                    order = order == null ? new PartOrder() : order;
                    FieldName child = name();
                    Value value = element(child, wanted.child(child), 0);
                    record.add(child, value);
                    order.child(child, value, texts.length());
                }
            } else if (event == XMLStreamConstants.CHARACTERS
                    || event == XMLStreamConstants.CDATA
                    || event == XMLStreamConstants.SPACE) {
                texts.add(xml.getText());
            } else if (event == XMLStreamConstants.ENTITY_REFERENCE) {
                throw fault(Code.BAD_XML, "This is not well-formed XML here: an entity is used that is not declared.");
            }
        }
        if (nil && order == null && texts.length() == 0) {
            return Nothing.NULL;
        }
        if (record == null) {
            return new ElementText(name, texts.whole());
        }
        if (wanted.everything()) {
            addText(record, texts, order);
        }
        return record.build();
    }

    private ProblemException fault(Code code, String message) {
        Location at = xml.getLocation();
        return new ProblemException(
                Problem.error(code, message).in(InputLocation.at(input, at.getLineNumber(), at.getColumnNumber())));
    }

    /** White space between child elements is layout and no text. */
    private static void addText(RecordValue.Builder record, Texts texts, @Nullable PartOrder order) {
        String own = texts.whole();
        boolean text = order == null ? !own.isEmpty() : !WhiteSpace.isBlank(own);
        if (order != null && (text || order.isInterleaved())) {
            record.parts(order.parts(text ? texts : null));
        }
        if (text) {
            record.put(FieldName.OWN_TEXT, TextValue.of(own));
        }
    }

    private void attributes(RecordValue.Builder record, Projection wanted, int count) {
        for (int i = 0; i < count; i++) {
            FieldName name = name(attributeNames, xml.getAttributeNamespace(i), xml.getAttributeLocalName(i), true);
            if (wanted.everything()) {
                record.add(name, TextValue.of(xml.getAttributeValue(i)));
            } else {
                int slot = wanted.slot(name);
                if (slot >= 0) {
                    record.set(slot, TextValue.of(xml.getAttributeValue(i)));
                }
            }
        }
    }

    private boolean isNil() {
        String nil = xml.getAttributeValue(XSI, "nil");
        return "true".equals(nil) || "1".equals(nil);
    }
}
