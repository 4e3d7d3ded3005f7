package dev.morphema.xml;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.exc.WstxIOException;
import com.ctc.wstx.stax.WstxInputFactory;
import dev.morphema.format.Input;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.Nothing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.io.ByteArrayInputStream;
import java.io.CharConversionException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.CharacterCodingException;
import javax.xml.stream.Location;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLResolver;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.codehaus.stax2.XMLInputFactory2;
import org.jspecify.annotations.Nullable;

/**
 * Reads one XML document as a record with one field, its root element. An element without attributes and child elements
 * is a text; another is a record of its attributes, child elements and own text.
 */
final class XmlRecordReader implements RecordReader {
    private static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";
    private static final int MOST_DEEP = 500;

    private static final XMLInputFactory FACTORY = factory();

    private final String input;
    private final Projection projection;
    private final boolean trim;
    private final InputStream bytes;
    private final XMLStreamReader xml;
    private boolean done;

    XmlRecordReader(Input input, Projection projection, boolean trim) throws IOException {
        this.input = input.name();
        this.projection = projection;
        this.trim = trim;
        this.bytes = input.open();
        try {
            this.xml = FACTORY.createXMLStreamReader(bytes);
        } catch (XMLStreamException e) {
            bytes.close();
            throw fault(e);
        }
    }

    private static XMLInputFactory factory() {
        WstxInputFactory factory = new WstxInputFactory();
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        // Faults are to arise where they are, not when a text is asked for later.
        factory.setProperty(XMLInputFactory2.P_LAZY_PARSING, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, true);
        // The internal subset of a DTD counts. What is external is never fetched: it is taken as empty.
        factory.setProperty(XMLInputFactory.RESOLVER, (XMLResolver)
                (publicId, systemId, base, namespace) -> new ByteArrayInputStream(new byte[0]));
        factory.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, MOST_DEEP);
        factory.setProperty(WstxInputProperties.P_MAX_ENTITY_COUNT, 10_000L);
        factory.setProperty(WstxInputProperties.P_MAX_ENTITY_DEPTH, 20);
        return factory;
    }

    @Override
    public boolean isSequence() {
        return false;
    }

    @Override
    public @Nullable Value next() throws IOException {
        if (done) {
            return null;
        }
        done = true;
        try {
            while (xml.next() != XMLStreamConstants.START_ELEMENT) {
                // what stands before the root element says nothing
            }
            RecordValue.Builder document = RecordValue.builder(projection.layout(), null);
            child(document, projection);
            while (xml.hasNext()) {
                xml.next();
            }
            return document.build();
        } catch (XMLStreamException e) {
            throw failure(e);
        }
    }

    /** Reads the element at hand as a field of a record, or skips it if it is not wanted. */
    private void child(RecordValue.Builder record, Projection wanted) throws XMLStreamException {
        FieldName name = elementName();
        if (wanted.everything()) {
            record.add(name, element(wanted.child(name)));
            return;
        }
        int slot = wanted.slot(name);
        if (slot < 0) {
            skip();
        } else {
            record.add(slot, element(wanted.child(slot)));
        }
    }

    private void skip() throws XMLStreamException {
        int open = 1;
        while (open > 0) {
            int event = xml.next();
            open += event == XMLStreamConstants.START_ELEMENT ? 1 : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
        }
    }

    private FieldName elementName() {
        return name(xml.getNamespaceURI(), xml.getLocalName(), false);
    }

    private static FieldName name(@Nullable String namespace, String local, boolean attribute) {
        return new FieldName(namespace == null || namespace.isEmpty() ? null : namespace, local, attribute);
    }

    private Value element(Projection wanted) throws XMLStreamException {
        Layout layout = wanted.layout();
        RecordValue.Builder record = RecordValue.builder(layout, origin()).element();
        boolean plain = !attributes(record, wanted);
        boolean nil = isNil();
        StringBuilder text = new StringBuilder();
        boolean children = false;
        for (int event = xml.next(); event != XMLStreamConstants.END_ELEMENT; event = xml.next()) {
            if (event == XMLStreamConstants.START_ELEMENT) {
                children = true;
                child(record, wanted);
            } else if (event == XMLStreamConstants.CHARACTERS
                    || event == XMLStreamConstants.CDATA
                    || event == XMLStreamConstants.SPACE) {
                text.append(xml.getText());
            }
        }
        if (nil && !children && text.length() == 0) {
            return Nothing.NULL;
        }
        TextValue own = TextValue.of(trim ? WhiteSpace.trim(text.toString()) : text.toString());
        if (plain && !children) {
            return own;
        }
        boolean blank = WhiteSpace.isBlank(own.text());
        if (wanted.everything()
                && (!children || !blank)
                && !(blank && own.text().isEmpty())) {
            record.put(FieldName.OWN_TEXT, own);
        }
        return record.build();
    }

    /** Adds the attributes that are wanted; says whether the element has any. */
    private boolean attributes(RecordValue.Builder record, Projection wanted) {
        int count = xml.getAttributeCount();
        for (int i = 0; i < count; i++) {
            FieldName name = name(xml.getAttributeNamespace(i), xml.getAttributeLocalName(i), true);
            if (wanted.everything()) {
                record.add(name, TextValue.of(xml.getAttributeValue(i)));
            } else {
                int slot = wanted.slot(name);
                if (slot >= 0) {
                    record.set(slot, TextValue.of(xml.getAttributeValue(i)));
                }
            }
        }
        return count > 0;
    }

    private boolean isNil() {
        String nil = xml.getAttributeValue(XSI, "nil");
        return "true".equals(nil) || "1".equals(nil);
    }

    private Origin origin() {
        return new Origin(input, 0, xml.getLocation().getLineNumber());
    }

    private ProblemException failure(XMLStreamException e) throws IOException {
        Throwable cause = e.getNestedException() == null ? e.getCause() : e.getNestedException();
        if (e instanceof WstxIOException && cause instanceof IOException io) {
            if (io instanceof CharConversionException || io instanceof CharacterCodingException) {
                return new ProblemException(Problem.error(
                                Code.BAD_ENCODING,
                                "There are bytes that are no characters in the encoding of the document.")
                        .in(InputLocation.at(input, xml.getLocation().getLineNumber(), 0))
                        .withHelp("the XML declaration on the first line names the encoding"));
            }
            throw io;
        }
        return fault(e);
    }

    private ProblemException fault(XMLStreamException e) {
        Location at = e.getLocation();
        InputLocation place = at == null
                ? InputLocation.at(input, 0, 0)
                : InputLocation.at(input, at.getLineNumber(), at.getColumnNumber());
        return new ProblemException(
                XmlFaults.explained(String.valueOf(e.getMessage())).in(place), e);
    }

    @Override
    public void close() throws IOException {
        try {
            xml.close();
        } catch (XMLStreamException e) {
            throw new IOException(e);
        } finally {
            bytes.close();
        }
    }
}
