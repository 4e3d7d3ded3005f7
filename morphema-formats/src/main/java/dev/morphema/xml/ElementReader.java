package dev.morphema.xml;

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
import java.util.Arrays;
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
    /** The text so far of the element at hand, after that of the elements around it. */
    private char[] chars = new char[1 << 10];

    private int end;

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
    void child(RecordValue.Builder record, FieldOrder place) throws XMLStreamException {
        if (place.wanted().everything()) {
            FieldName name = name();
            record.add(name, element(name, new FieldOrder(place.wanted().child(name)), 0));
        } else {
            wantedChild(record, place);
        }
    }

    private void wantedChild(RecordValue.Builder record, FieldOrder place) throws XMLStreamException {
        FieldOrder.Field field = place.field(xml.getLocalName(), xml.getNamespaceURI());
        if (field.slot() < 0) {
            skip();
        } else {
            record.add(field.slot(), element(field.name(), place.below(field.slot()), 0));
        }
    }

    /**
     * {@return the element at whose start the parser is}
     *
     * @param number which record it is, counted from 1; 0 if it is none
     */
    Value element(FieldName name, FieldOrder place, long number) throws XMLStreamException {
        int line = xml.getLocation().getLineNumber();
        if (xml.getDepth() > XmlParsers.MOST_DEEP) {
            throw fault(Code.LIMIT, "Elements are nested more than " + XmlParsers.MOST_DEEP + " deep.");
        }
        boolean everything = place.wanted().everything();
        RecordValue.Builder record = null;
        boolean nil = false;
        if (xml.getAttributeCount() > 0) {
            record = record(name, place, number, line);
            nil = attributes(record, place);
        }
        int start = end;
        PartOrder order = null;
        for (int event = xml.next(); event != XMLStreamConstants.END_ELEMENT; event = xml.next()) {
            if (event == XMLStreamConstants.START_ELEMENT) {
                if (record == null) {
                    record = record(name, place, number, line);
                }
                if (everything) {
                    order = order == null ? new PartOrder() : order;
                    FieldName child = name();
                    int textBefore = end - start;
                    Value value = element(child, new FieldOrder(place.wanted().child(child)), 0);
                    record.add(child, value);
                    order.child(child, value, textBefore);
                } else {
                    wantedChild(record, place);
                }
            } else if (event == XMLStreamConstants.CHARACTERS
                    || event == XMLStreamConstants.CDATA
                    || event == XMLStreamConstants.SPACE) {
                if (everything || record == null || nil) {
                    addText();
                }
            } else if (event == XMLStreamConstants.ENTITY_REFERENCE) {
                throw fault(Code.BAD_XML, "This is not well-formed XML here: an entity is used that is not declared.");
            }
        }
        int length = end - start;
        end = start;
        if (nil && order == null && length == 0) {
            return Nothing.NULL;
        }
        if (record == null) {
            return leaf(name, start, length);
        }
        if (everything) {
            putText(record, new Texts(new String(chars, start, length), trim), order);
        }
        return record.build();
    }

    private RecordValue.Builder record(FieldName name, FieldOrder place, long number, int line) {
        place.begin();
        return RecordValue.builder(place.wanted().layout(), new Origin(input, number, line))
                .element(name);
    }

    private void addText() {
        int more = xml.getTextLength();
        if (more > chars.length - end) {
            chars = Arrays.copyOf(chars, Math.max(chars.length * 2, end + more));
        }
        System.arraycopy(xml.getTextCharacters(), xml.getTextStart(), chars, end, more);
        end += more;
    }

    private Value leaf(FieldName name, int start, int length) {
        return trim
                ? new ElementText(name, WhiteSpace.trim(new String(chars, start, length)))
                : ElementText.of(name, chars, start, length);
    }

    private ProblemException fault(Code code, String message) {
        Location at = xml.getLocation();
        return new ProblemException(
                Problem.error(code, message).in(InputLocation.at(input, at.getLineNumber(), at.getColumnNumber())));
    }

    /** White space between child elements is layout and no text. */
    private static void putText(RecordValue.Builder record, Texts texts, @Nullable PartOrder order) {
        String own = texts.whole();
        boolean text = order == null ? !own.isEmpty() : !WhiteSpace.isBlank(own);
        if (order != null && (text || order.isInterleaved())) {
            record.parts(order.parts(text ? texts : null));
        }
        if (text) {
            record.put(FieldName.OWN_TEXT, TextValue.of(own));
        }
    }

    /** Adds the attributes to a record; says whether one of them is {@code xsi:nil}, and true. */
    private boolean attributes(RecordValue.Builder record, FieldOrder place) {
        boolean everything = place.wanted().everything();
        FieldOrder order = everything ? place : place.attributes();
        boolean nil = false;
        order.begin();
        for (int i = 0; i < xml.getAttributeCount(); i++) {
            String local = xml.getAttributeLocalName(i);
            String namespace = xml.getAttributeNamespace(i);
            if (everything) {
                record.add(name(attributeNames, namespace, local, true), TextValue.of(xml.getAttributeValue(i)));
            } else {
                int slot = order.field(local, namespace).slot();
                if (slot >= 0) {
                    record.set(slot, TextValue.of(xml.getAttributeValue(i)));
                }
            }
            nil |= local.equals("nil") && XSI.equals(namespace) && isTrue(xml.getAttributeValue(i));
        }
        return nil;
    }

    private static boolean isTrue(String text) {
        return text.equals("true") || text.equals("1");
    }
}
