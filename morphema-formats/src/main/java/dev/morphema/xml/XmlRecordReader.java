package dev.morphema.xml;

import dev.morphema.format.EventWriter;
import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.formats.Decoding;
import dev.morphema.formats.ReadBuffer;
import dev.morphema.formats.WrongBytesException;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import dev.morphema.xml.XmlCharacterReader.ForbiddenCharacterException;
import dev.morphema.xml.XmlCharacterReader.LongPrologException;
import dev.morphema.xml.XmlTokens.Token;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Optional;
import javax.xml.stream.Location;
import javax.xml.stream.XMLStreamException;
import org.jspecify.annotations.Nullable;

/**
 * Reads one XML document: as a record with one field, its root element, or the elements at a path,
 * one after the other.
 */
final class XmlRecordReader implements RecordReader {
    private final Input source;
    private final Options options;
    private final String input;
    private final List<FieldName> path;
    private final Places places;

    private InputStream bytes;
    private XmlTokens xml;
    private ElementReader elements;
    /**
     * What has been learned of how elements stand.
     *
     * @param place of the document or, if there is a path, of the records
     * @param around the place of the records on the path
     */
    private record Places(ElementPlace place, ElementPlace around) {
        boolean mayLearnMore() {
            return place.mayLearnMore() && around.mayLearnMore();
        }
    }

    /** How many elements on the path are open, and how many there were at most. */
    private int open;

    private int found;

    private long records;
    /** How many of them were passed on, or passed over. */
    private long complete;

    private boolean done;
    private boolean closed;
    /**
     * A null that came first: alone it stands for nothing at all, among others it is one of them.
     */
    private @Nullable Value heldBack;

    XmlRecordReader(Input input, List<FieldName> path, Projection projection, Options options) throws IOException {
        this.source = input;
        this.options = options;
        this.input = input.name();
        this.path = List.copyOf(path);
        Projection at = projection;
        for (FieldName step : path) {
            at = at.child(step);
        }
        Projection wanted = at;
        this.places =
                wanted.learned(Places.class, () -> new Places(new ElementPlace(wanted), ElementPlace.ofNothing()));
        this.bytes = input.open();
        boolean inBytes = input.isRereadable() && options.text("encoding").isEmpty();
        this.xml =
                inBytes ? new XmlByteTokens(bytes, ReadBuffer.size(input), input.name(), options.limits()) : library();
        this.elements = elements();
    }

    private XmlTokens library() throws IOException {
        try {
            Decoding.Start start =
                    XmlEncoding.start(bytes, input, options.text("encoding").orElse(null));
            return new XmlLibraryTokens(start.characters(), options.limits());
        } catch (XMLStreamException e) {
            bytes.close();
            throw fault(e);
        }
    }

    private ElementReader elements() {
        return new ElementReader(input, options, xml);
    }

    @Override
    public boolean isSequence() {
        return !path.isEmpty();
    }

    @Override
    public int stepsFound() {
        return found;
    }

    @Override
    public @Nullable Value next() throws IOException {
        if (done) {
            return null;
        }
        try {
            return path.isEmpty() ? document() : record();
        } catch (XMLStreamException e) {
            throw fault(e);
        }
    }

    /**
     * Begins again with the library, which knows all of XML and says what is wrong, and goes on
     * where we are.
     */
    private void beginAgain() throws XMLStreamException, IOException {
        bytes.close();
        bytes = source.open();
        xml = library();
        elements = elements();
        done = false;
        open = 0;
        records = 0;
        while (records < complete && toElement()) {
            elements.skip();
        }
    }

    private Value document() throws XMLStreamException, IOException {
        try {
            return root();
        } catch (XmlByteTokens.Unusual e) {
            beginAgain();
            return root();
        }
    }

    private Value root() throws XMLStreamException, IOException {
        done = true;
        xml.next();
        RecordBuilder document =
                RecordValue.builder(places.place().wanted().layout(), new Origin(input, 0, xml.line()));
        elements.child(document, places.place());
        while (xml.next() != Token.DONE) {
            // what stands behind the root element says nothing
        }
        return document.build();
    }

    @Override
    public void events(EventWriter out) throws IOException {
        if (isSequence()) {
            RecordReader.super.events(out);
            return;
        }
        try {
            // What was given as an event cannot be read again by another parser.
            beginAgain();
            done = true;
            xml.next();
            out.beginRecord();
            elements.events(out);
            out.endRecord();
            while (xml.next() != Token.DONE) {
                // what stands behind the root element says nothing
            }
        } catch (XMLStreamException e) {
            throw fault(e);
        }
    }

    /** {@return the next element at the path, or null after the last} */
    private @Nullable Value record() throws XMLStreamException, IOException {
        if (heldBack != null) {
            Value held = heldBack;
            heldBack = null;
            return held;
        }
        Value found = element();
        if (found == Missing.NULL && records == 1) {
            heldBack = element();
            return heldBack == null ? null : found;
        }
        return found;
    }

    private @Nullable Value element() throws XMLStreamException, IOException {
        try {
            return nextElement();
        } catch (XmlByteTokens.Unusual e) {
            beginAgain();
            return nextElement();
        }
    }

    private @Nullable Value nextElement() throws XMLStreamException, IOException {
        xml.beginRecord();
        Value found = open == path.size() - 1 ? xml.known(places.around(), records + 1) : null;
        if (found != null) {
            records++;
        } else if (toElement()) {
            found = elements.record(places.around(), places.place(), records);
        }
        complete = records;
        return found;
    }

    /** Goes to the next element at the path; says whether there is one. */
    private boolean toElement() throws XMLStreamException, IOException {
        for (Token token = xml.next(); token != Token.DONE; token = xml.next()) {
            if (token == Token.END) {
                open--;
                elements.leave();
            } else if (token == Token.START) {
                if (!isMeant(path.get(open), elements.name())) {
                    elements.skip();
                } else if (open + 1 < path.size()) {
                    open++;
                    found = Math.max(found, open);
                    elements.enter();
                } else {
                    records++;
                    return true;
                }
            }
        }
        done = true;
        return false;
    }

    private static boolean isMeant(FieldName step, FieldName name) {
        return step.local().equals(name.local())
                && (step.namespace() == null || step.namespace().equals(name.namespace()));
    }

    private ProblemException fault(XMLStreamException e) throws IOException {
        Throwable cause = e.getNestedException() == null ? e.getCause() : e.getNestedException();
        WrongBytesException wrongBytes = WrongBytesException.in(cause);
        if (wrongBytes != null) {
            return new ProblemException(
                    wrongBytes.problem(
                            input,
                            "the XML declaration on the first line names the encoding; the source can name another: "
                                    + "xml(encoding = \"windows-1252\")"),
                    e);
        }
        if (cause instanceof LongPrologException) {
            return new ProblemException(
                    XmlFaults.longProlog().in(InputLocation.at(input, xml.line(), xml.column())), e);
        }
        if (cause instanceof IOException io && !(cause instanceof ForbiddenCharacterException)) {
            throw io;
        }
        Optional<Limit> limit = XmlFaults.limit(e);
        if (limit.isPresent()) {
            return options.limits().exceeded(limit.get(), place(e, cause));
        }
        return new ProblemException(
                XmlFaults.explained(String.valueOf(e.getMessage())).in(place(e, cause)), e);
    }

    private InputLocation place(XMLStreamException e, @Nullable Throwable cause) {
        if (cause instanceof ForbiddenCharacterException forbidden) {
            return InputLocation.at(input, forbidden.line(), forbidden.column());
        }
        Location at = e.getLocation();
        return at == null
                ? InputLocation.at(input, xml.line(), xml.column())
                : InputLocation.at(input, at.getLineNumber(), at.getColumnNumber());
    }

    @Override
    public void close() throws IOException {
        if (!closed && done && places.mayLearnMore()) {
            places.place().wanted().leave(places);
        }
        closed = true;
        try {
            xml.close();
        } catch (XMLStreamException e) {
            throw new IOException(e);
        } finally {
            bytes.close();
        }
    }
}
