package dev.morphema.xml;

import dev.morphema.format.EventWriter;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.format.Options;
import dev.morphema.formats.FieldOrder;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.ElementText;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import dev.morphema.xml.XmlTokens.Token;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.XMLConstants;
import javax.xml.stream.XMLStreamException;
import org.jspecify.annotations.Nullable;

/**
 * Makes values of elements. An element without attributes and child elements is a text; another is
 * a record of its attributes, child elements and own text. Not thread-safe.
 */
final class ElementReader {

    private final String input;
    private final Limits limits;
    private final int mostDeep;
    private final int longestText;
    private final boolean trim;
    private final XmlTokens xml;
    /**
     * The names that were met last under each local name, so that equal names are mostly one
     * object.
     */
    private final Map<String, FieldName> elementNames = new HashMap<>();

    private final Map<String, FieldName> attributeNames = new HashMap<>();
    /** The text so far of the element at hand, after that of the elements around it. */
    private char[] chars = new char[1 << 10];

    private int end;

    private final boolean keepsLayout;
    /** Whether white space is meant where we are, by {@code xml:space} (XML 1.0, section 2.10). */
    private boolean preserved;

    private final Deque<Boolean> preservedAround = new ArrayDeque<>();

    ElementReader(String input, Options options, XmlTokens xml) {
        this.input = input;
        this.limits = options.limits();
        this.mostDeep = limits.mostInt(Limit.DEPTH);
        this.longestText = limits.mostInt(Limit.TEXT);
        this.trim = options.isOn("trim", false);
        this.keepsLayout = options.text("layout", "drop").equals("keep");
        this.xml = xml;
    }

    /** Goes into an element that becomes no value itself. */
    void enter() {
        preservedAround.push(preserved);
        for (int i = 0; i < xml.attributes(); i++) {
            preserve(xml.attributeLocal(i), xml.attributeNamespace(i), i);
        }
    }

    /** Leaves the element that was entered last. */
    void leave() {
        preserved = preservedAround.pop();
    }

    private void preserve(String local, @Nullable String namespace, int index) {
        if (local.equals("space") && XMLConstants.XML_NS_URI.equals(namespace)) {
            preserved = xml.attribute(index).equals("preserve");
        }
    }

    /** {@return the name of the element at whose start the parser is} */
    FieldName name() {
        return name(elementNames, xml.namespace(), xml.local(), false);
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
    void skip() throws XMLStreamException, IOException {
        xml.skip();
    }

    /**
     * Reads the element at whose start the parser is as a field of a record, or skips it if it is
     * not wanted.
     */
    void child(RecordBuilder record, ElementPlace place) throws XMLStreamException, IOException {
        if (place.wanted().keepsAll()) {
            FieldName name = name();
            record.add(name, element(name, new ElementPlace(place.wanted().child(name)), 0));
        } else {
            wantedChild(record, place);
        }
    }

    private void wantedChild(RecordBuilder record, ElementPlace place) throws XMLStreamException, IOException {
        long before = xml.before();
        FieldOrder.Field field = place.order().field(xml.local(), xml.namespace());
        if (field.slot() < 0) {
            skip();
        } else if (!leaf(record, field)) {
            record.add(field.slot(), element(field.name(), place.below(field.slot()), 0));
        }
        if (!trim && place.order().comesAgain()) {
            xml.learn(before, place, field, place.below(field.slot()));
        }
    }

    /**
     * Takes an element that is nothing but a text as its bytes, if these may go through; says
     * whether it did.
     */
    private boolean leaf(RecordBuilder record, FieldOrder.Field field) {
        FieldBytes.Row bytes = field.passes() && !trim ? record.bytes() : null;
        return bytes != null && !record.has(field.slot()) && xml.leaf(bytes, field.slot());
    }

    /**
     * {@return the element at whose start the parser is, as a record that is a field of no other}
     *
     * @param around the place of all such records
     * @param number which of them it is
     */
    Value record(ElementPlace around, ElementPlace place, long number) throws XMLStreamException, IOException {
        long before = xml.before();
        FieldName name = name();
        FieldOrder.Field field = new FieldOrder.Field(xml.local(), xml.namespace(), name, 0, null, false);
        Value value = element(name, place, number);
        if (!trim && number > 1) {
            xml.learn(before, around, field, place);
        }
        return value;
    }

    /**
     * {@return the element at whose start the parser is}
     *
     * @param number which record it is, counted from 1; 0 if it is none
     */
    private Value element(FieldName name, ElementPlace place, long number) throws XMLStreamException, IOException {
        boolean around = preserved;
        Value value = content(name, place, number);
        preserved = around;
        return value;
    }

    private Value content(FieldName name, ElementPlace place, long number) throws XMLStreamException, IOException {
        int line = xml.line();
        if (xml.depth() > mostDeep) {
            throw limits.exceeded(Limit.DEPTH, InputLocation.at(input, xml.line(), xml.column()));
        }
        boolean everything = place.wanted().keepsAll();
        RecordBuilder record = null;
        boolean nil = false;
        if (xml.attributes() > 0) {
            record = place.begin(name, new Origin(input, number, line));
            nil = attributes(record, place);
        }
        int start = end;
        int run = start;
        boolean marked = false;
        if (!everything && record != null) {
            xml.known(place, record);
        }
        PartOrder order = null;
        for (Token token = xml.next(); token != Token.END; token = xml.next()) {
            if (token == Token.START) {
                if (record == null) {
                    record = place.begin(name, new Origin(input, number, line));
                }
                if (everything) {
                    order = order == null ? new PartOrder() : order;
                    FieldName child = name();
                    order.text(end - start, isMeant(run, marked));
                    run = end;
                    marked = false;
                    Value value = element(child, new ElementPlace(place.wanted().child(child)), 0);
                    record.add(child, value);
                    order.child(child, value);
                } else {
                    wantedChild(record, place);
                    xml.known(place, record);
                }
            } else if (everything || record == null || nil) {
                int from = end;
                addText(start);
                marked |= everything && !marked && isBlank(from) && xml.isMarked();
            }
        }
        int length = end - start;
        if (order != null) {
            order.text(length, isMeant(run, marked));
        }
        end = start;
        if (nil && order == null && length == 0) {
            return Missing.NULL;
        }
        if (record == null) {
            return leaf(name, start, length);
        }
        if (everything) {
            putText(record, new Texts(new String(chars, start, length), trim), order);
        }
        return record.build();
    }

    /**
     * Gives the element at whose start the parser is as events, a field of a record: a text, or a
     * record of its attributes, child elements and own text, which comes last.
     */
    void events(EventWriter out) throws XMLStreamException, IOException {
        if (xml.depth() > mostDeep) {
            throw limits.exceeded(Limit.DEPTH, InputLocation.at(input, xml.line(), xml.column()));
        }
        FieldName name = name();
        out.field(name);
        boolean nil = false;
        boolean begun = xml.attributes() > 0;
        if (begun) {
            out.beginRecord();
            for (int i = 0; i < xml.attributes(); i++) {
                FieldName attribute = name(attributeNames, xml.attributeNamespace(i), xml.attributeLocal(i), true);
                out.attribute(attribute, TextValue.of(xml.attribute(i)));
                nil |= isNil(xml.attributeLocal(i), xml.attributeNamespace(i)) && isTrue(xml.attribute(i));
            }
        }
        int start = end;
        for (Token token = xml.next(); token != Token.END; token = xml.next()) {
            if (token == Token.START) {
                if (!begun) {
                    out.beginRecord();
                    begun = true;
                }
                events(out);
            } else {
                addText(start);
            }
        }
        String text = new String(chars, start, end - start);
        end = start;
        if (!begun) {
            out.value(TextValue.of(text));
        } else {
            if (!WhiteSpace.isBlank(text) && !nil) {
                out.text(TextValue.of(text));
            }
            out.endRecord();
        }
    }

    /** @param start where the text of the element begins */
    private void addText(int start) {
        int more = xml.mostText();
        if (end - start + (long) more > longestText) {
            throw limits.exceeded(Limit.TEXT, InputLocation.at(input, xml.line(), xml.column()));
        }
        if (more > chars.length - end) {
            chars = Arrays.copyOf(chars, Math.max(chars.length * 2, end + more));
        }
        end = xml.copyText(chars, end);
    }

    private boolean isBlank(int from) {
        for (int i = from; i < end; i++) {
            if (chars[i] > ' ') {
                return false;
            }
        }
        return true;
    }

    /**
     * Whether the text from a place on is no layout: white space with a line break, if it is alone
     * between elements.
     */
    private boolean isMeant(int from, boolean marked) {
        if (marked || preserved || keepsLayout || !isBlank(from)) {
            return true;
        }
        for (int i = from; i < end; i++) {
            if (chars[i] == '\n') {
                return false;
            }
        }
        return true;
    }

    private Value leaf(FieldName name, int start, int length) {
        return trim
                ? new ElementText(name, WhiteSpace.trim(new String(chars, start, length)))
                : ElementText.of(name, chars, start, length);
    }

    private ProblemException fault(Code code, String message) {
        return new ProblemException(Problem.error(code, message).in(InputLocation.at(input, xml.line(), xml.column())));
    }

    /**
     * White space between child elements may be one of the parts, but is never the text of the
     * element.
     */
    private static void putText(RecordBuilder record, Texts texts, @Nullable PartOrder order) {
        String own = texts.whole();
        boolean text = order == null ? !own.isEmpty() : !WhiteSpace.isBlank(own);
        if (order != null) {
            List<RecordValue.Part> parts = order.parts(texts, text);
            if (order.isInterleaved() || parts.size() > order.size()) {
                record.parts(parts);
            }
        }
        if (text) {
            record.put(FieldName.OWN_TEXT, TextValue.of(own));
        }
    }

    /** Adds the attributes to a record; says whether one of them is {@code xsi:nil}, and true. */
    private boolean attributes(RecordBuilder record, ElementPlace place) {
        boolean everything = place.wanted().keepsAll();
        FieldOrder order = everything ? place.order() : place.order().attributes();
        boolean nil = false;
        order.begin();
        for (int i = 0; i < xml.attributes(); i++) {
            String local = xml.attributeLocal(i);
            String namespace = xml.attributeNamespace(i);
            if (everything) {
                record.add(name(attributeNames, namespace, local, true), TextValue.of(xml.attribute(i)));
            } else {
                FieldOrder.Field field = order.field(local, namespace);
                FieldBytes.Row bytes = field.passes() ? record.bytes() : null;
                if (field.slot() >= 0 && (bytes == null || !xml.attributeBytes(i, bytes, field.slot()))) {
                    record.set(field.slot(), TextValue.of(xml.attribute(i)));
                }
            }
            nil |= isNil(local, namespace) && isTrue(xml.attribute(i));
            preserve(local, namespace, i);
        }
        return nil;
    }

    /** {@return whether an attribute of a name tells that an element has no value} */
    static boolean isNil(String local, @Nullable String namespace) {
        return local.equals("nil") && XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI.equals(namespace);
    }

    private static boolean isTrue(String text) {
        return text.equals("true") || text.equals("1");
    }
}
