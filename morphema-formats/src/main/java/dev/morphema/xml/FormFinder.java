package dev.morphema.xml;

import dev.morphema.formats.FieldOrder;
import dev.morphema.formats.KnownBytes;
import dev.morphema.value.FieldName;
import dev.morphema.xml.ElementForm.Attribute;
import dev.morphema.xml.ElementForm.Content;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Finds the form of an element that has been read, and those of the elements in it. There is none
 * if something else than white space stands between tags, or a namespace is declared. Of use once.
 */
final class FormFinder {
    private final byte[] bytes;
    private final int to;
    private final XmlScope scope;
    private int at;

    /**
     * @param bytes where the element stands, with the white space before it, from one place to
     *     before another; it is well-formed
     * @param scope what is declared around it
     */
    FormFinder(byte[] bytes, int from, int to, XmlScope scope) {
        this.bytes = bytes;
        this.at = from;
        this.to = to;
        this.scope = scope;
    }

    /**
     * Learns the form of the element.
     *
     * @param around the place that gets it
     * @param field that the element is there
     * @param place of the element
     */
    void learn(ElementPlace around, FieldOrder.Field field, ElementPlace place) {
        Tag start = startTag();
        if (start != null) {
            element(start, around, field, place);
        }
    }

    /**
     * A start tag.
     *
     * @param form all of it but the values, in pieces
     * @param attributes before each piece but the first
     * @param closed whether it ends the element too
     */
    private record Tag(
            XmlName name,
            List<KnownBytes> form,
            List<XmlName> attributes,
            boolean closed,
            int linesBefore,
            int lines) {}

    private @Nullable Tag startTag() {
        int from = at;
        int linesBefore = pastWhite();
        int lines = linesBefore;
        XmlName name = stands('<') ? name(at + 1) : null;
        if (name == null) {
            return null;
        }
        List<KnownBytes> form = new ArrayList<>();
        List<XmlName> attributes = new ArrayList<>();
        lines += pastWhite();
        while (!stands('>') && !stands('/')) {
            XmlName attribute = Objects.requireNonNull(name(at));
            if (attribute.declares() || ElementReader.isNil(attribute.local(), attribute.attributeNamespace())) {
                return null;
            }
            attributes.add(attribute);
            while (!stands('"') && !stands('\'')) {
                at++;
            }
            byte quote = bytes[at++];
            form.add(new KnownBytes(bytes, from, at));
            while (!stands(quote)) {
                at++;
            }
            from = at++;
            lines += pastWhite();
        }
        boolean closed = stands('/');
        at += closed ? 2 : 1;
        form.add(new KnownBytes(bytes, from, at));
        return new Tag(name, form, attributes, closed, linesBefore, lines);
    }

    /** Takes an element whose start tag was taken; says whether it has a form. */
    private boolean element(Tag start, ElementPlace around, FieldOrder.Field field, ElementPlace place) {
        Content content = Content.NONE;
        KnownBytes end = null;
        int lines = 0;
        if (!start.closed()) {
            content = content();
            if (content == Content.CHILDREN && (place.wanted().keepsAll() || !children(place))) {
                return false;
            }
            int from = at;
            lines = pastEndTag();
            end = new KnownBytes(bytes, from, at);
        }
        boolean record = content == Content.CHILDREN || !start.attributes().isEmpty();
        around.learn(
                new ElementForm(
                        field,
                        start.form().get(0),
                        attributes(start, place),
                        content,
                        record ? place : null,
                        end,
                        new ElementForm.Lines(start.linesBefore(), start.lines(), lines)),
                scope);
        return true;
    }

    private Attribute[] attributes(Tag start, ElementPlace place) {
        Attribute[] all = new Attribute[start.attributes().size()];
        for (int i = 0; i < all.length; i++) {
            XmlName name = start.attributes().get(i);
            KnownBytes behind = start.form().get(i + 1);
            if (place.wanted().keepsAll()) {
                FieldName field = new FieldName(name.attributeNamespace(), name.local(), true);
                all[i] = new Attribute(field, -1, false, behind);
            } else {
                FieldOrder.Field field = place.order().attributes().field(name.local(), name.attributeNamespace());
                all[i] = new Attribute(field.name(), field.slot(), field.passes(), behind);
            }
        }
        return all;
    }

    /** Goes past a text, if there is one. */
    private Content content() {
        int mark = at;
        while (bytes[mark] != '<') {
            mark++;
        }
        if (bytes[mark + 1] != '/') {
            return Content.CHILDREN;
        }
        at = mark;
        return Content.TEXT;
    }

    /** Takes the child elements; says whether all have forms. */
    private boolean children(ElementPlace place) {
        while (!isEndTagNext()) {
            Tag start = startTag();
            if (start == null) {
                return false;
            }
            FieldOrder.Field field =
                    place.order().field(start.name().local(), start.name().elementNamespace());
            if (!element(start, place, field, place.below(field.slot()))) {
                return false;
            }
        }
        return true;
    }

    private boolean isEndTagNext() {
        int from = at;
        pastWhite();
        boolean end = stands('<') && bytes[at + 1] == '/';
        at = from;
        return end;
    }

    /** Goes past white space and an end tag; gives how many lines end in it. */
    private int pastEndTag() {
        int lines = pastWhite();
        while (!stands('>')) {
            lines += stands('\n') ? 1 : 0;
            at++;
        }
        at++;
        return lines;
    }

    private boolean stands(int b) {
        return at < to && bytes[at] == b;
    }

    /** {@return how many lines end in it} */
    private int pastWhite() {
        int lines = 0;
        for (boolean afterReturn = false; at < to && (XmlWindow.isWhite(bytes[at]) || bytes[at] == '\r'); at++) {
            lines += bytes[at] == '\r' || bytes[at] == '\n' && !afterReturn ? 1 : 0;
            afterReturn = bytes[at] == '\r';
        }
        return lines;
    }

    private @Nullable XmlName name(int from) {
        int end = from;
        while (end < to && XmlName.isPart(bytes[end])) {
            end++;
        }
        at = end;
        return end == from ? null : scope.name(bytes, from, end);
    }
}
