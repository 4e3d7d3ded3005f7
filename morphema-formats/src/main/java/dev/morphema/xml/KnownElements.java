package dev.morphema.xml;

import dev.morphema.formats.FieldOrder;
import dev.morphema.formats.KnownBytes;
import dev.morphema.formats.PlainRun;
import dev.morphema.value.Converter;
import dev.morphema.value.ElementText;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import org.jspecify.annotations.Nullable;

/**
 * Takes elements that stand as others stood before: their tags are compared as a whole, and only
 * values are looked for. Leaves all others, and such as hold texts that are not common. Not
 * thread-safe.
 */
final class KnownElements {
    private static final int NOT = -1;

    private final String input;
    private byte[] buffer = {};
    private int limit;
    private XmlScope scope = new XmlScope();
    private int line;
    /** Whether a place was left since too little has been read. */
    private boolean cut;

    /** Where the value at hand stands. */
    private byte[] value = {};

    private int valueFrom;
    private int valueTo;
    private final XmlText made = new XmlText();

    private @Nullable Value taken;

    /** @param input its name, for the places of records */
    KnownElements(String input) {
        this.input = input;
    }

    /**
     * Takes the next element, which is a field of no record.
     *
     * @param around the place whose element it is
     * @param number which record it is
     * @return the place behind it, or -1
     */
    int takeElement(XmlByteTokens in, ElementPlace around, long number) {
        begin(in);
        ElementForm form = around.hasForms(scope) ? next(around, in.at) : null;
        return form == null ? NOT : take(form, in.at, null, number);
    }

    /** {@return what the element is that was taken} */
    @Nullable
    Value taken() {
        return taken;
    }

    /** {@return the place behind the child elements of an element that were taken, perhaps none} */
    int takeChildren(XmlByteTokens in, ElementPlace place, RecordBuilder into) {
        begin(in);
        int at = in.at;
        while (place.hasForms(scope)) {
            ElementForm form = next(place, at);
            int lineBefore = line;
            int end = form == null ? NOT : take(form, at, into, 0);
            if (end < 0) {
                line = lineBefore;
                return at;
            }
            at = end;
        }
        return at;
    }

    /** {@return whether more may have been taken if more had been read} */
    boolean wasCut() {
        return cut;
    }

    /** {@return the line behind what was taken} */
    int line() {
        return line;
    }

    private void begin(XmlByteTokens in) {
        buffer = in.buffer;
        limit = in.limit;
        scope = in.scope();
        line = in.line;
        cut = false;
    }

    private @Nullable ElementForm next(ElementPlace place, int at) {
        ElementForm form = place.expected(buffer, at, limit);
        cut |= limit - at <= place.longest();
        return form == null ? place.any(buffer, at, limit) : form;
    }

    /**
     * Takes an element whose start tag begins as in a form; gives the place behind it, or -1.
     */
    private int take(ElementForm form, int at, @Nullable RecordBuilder into, long number) {
        ElementPlace place = form.place();
        int from = at + form.start().length();
        if (place == null) {
            line += form.lines().start() + form.lines().end();
            return takeText(form, from, into);
        }
        int end = takeRecord(form, place, from, into, number);
        line += form.lines().end();
        if (end >= 0 || !cut) {
            form.tried(end >= 0);
        }
        return end;
    }

    /** Takes an element that is nothing but a text. */
    private int takeText(ElementForm form, int from, @Nullable RecordBuilder into) {
        int end = from;
        if (form.content() == ElementForm.Content.TEXT) {
            end = behind(form.end(), text(from, XmlWindow.PLAIN));
        } else {
            none(from);
        }
        int slot = form.field().slot();
        if (end < 0 || slot < 0) {
            return end;
        }
        if (into == null) {
            taken = ElementText.of(form.field().name(), value, valueFrom, valueTo);
        } else {
            FieldBytes.Row row = form.field().passes() && valueFrom < valueTo && !into.has(slot) ? into.bytes() : null;
            if (row == null || !row.text(slot, value, valueFrom, valueTo)) {
                Value typed = typed(form.field());
                into.add(slot, typed == null ? ElementText.of(form.field().name(), value, valueFrom, valueTo) : typed);
            }
        }
        return end;
    }

    /** Takes an element that has attributes or child elements. */
    private int takeRecord(ElementForm form, ElementPlace place, int from, @Nullable RecordBuilder into, long number) {
        boolean wanted = form.field().slot() >= 0;
        boolean everything = place.wanted().keepsAll();
        RecordBuilder made = wanted
                ? place.begin(
                        form.field().name(),
                        new Origin(input, number, line + form.lines().before()))
                : null;
        line += form.lines().start();
        int end = takeAttributes(form, everything, from, made);
        if (end >= 0 && form.content() == ElementForm.Content.TEXT) {
            end = behind(form.end(), text(end, XmlWindow.PLAIN));
            if (end >= 0 && made != null && everything && valueFrom < valueTo) {
                Value typed = typed(form.field());
                made.put(FieldName.OWN_TEXT, typed == null ? TextValue.of(value, valueFrom, valueTo) : typed);
            }
        } else if (end >= 0 && form.content() == ElementForm.Content.CHILDREN) {
            end = takeChildren(form, place, end, made);
        }
        if (end >= 0 && made != null) {
            if (into == null) {
                taken = made.build();
            } else {
                into.add(form.field().slot(), made.build());
            }
        }
        return end;
    }

    /**
     * {@return the value at hand as the declared type of a field, if it is of common form; else
     * null}
     */
    private @Nullable Value typed(FieldOrder.Field field) {
        Converter type = field.type();
        return type == null || valueFrom == valueTo ? null : type.read(value, valueFrom, valueTo);
    }

    private int takeAttributes(ElementForm form, boolean everything, int from, @Nullable RecordBuilder into) {
        int at = from;
        for (ElementForm.Attribute attribute : form.attributes()) {
            // What stands before a value ends with its quote.
            PlainRun plain = XmlWindow.inQuotes(buffer[at - 1]);
            at = behind(attribute.behind(), text(at, plain));
            if (at < 0) {
                return NOT;
            }
            if (into != null) {
                put(attribute, everything, into);
            }
        }
        return at;
    }

    private void put(ElementForm.Attribute attribute, boolean everything, RecordBuilder into) {
        if (everything) {
            into.add(attribute.name(), TextValue.of(value, valueFrom, valueTo));
        } else if (attribute.slot() >= 0) {
            FieldBytes.Row row = attribute.passes() && valueFrom < valueTo ? into.bytes() : null;
            if (row == null || !row.text(attribute.slot(), value, valueFrom, valueTo)) {
                into.set(attribute.slot(), TextValue.of(value, valueFrom, valueTo));
            }
        }
    }

    /**
     * Takes all child elements, and the end tag; an element that has neither these nor attributes
     * is a text.
     */
    private int takeChildren(ElementForm form, ElementPlace place, int from, @Nullable RecordBuilder into) {
        if (!place.hasForms(scope)) {
            return NOT;
        }
        int at = from;
        boolean any = form.attributes().length > 0;
        while (true) {
            ElementForm child = place.expected(buffer, at, limit);
            if (child == null) {
                int end = behind(form.end(), at);
                if (end >= 0) {
                    return any ? end : NOT;
                }
                child = place.any(buffer, at, limit);
            }
            if (child == null) {
                cut |= limit - at <= place.longest();
                return NOT;
            }
            at = take(child, at, into, 0);
            if (at < 0) {
                return NOT;
            }
            any = true;
        }
    }

    /**
     * {@return the place behind some bytes, if they stand at a place that is one, and end before
     * the limit; else -1}
     */
    private int behind(@Nullable KnownBytes bytes, int at) {
        if (at < 0 || bytes == null) {
            return at;
        }
        int end = at + bytes.length();
        if (end > limit) {
            cut = true;
            return NOT;
        }
        return bytes.areAt(buffer, at) ? end : NOT;
    }

    private void none(int at) {
        value = buffer;
        valueFrom = at;
        valueTo = at;
    }

    /** Finds a value; gives the place behind it, or the limit. */
    private int text(int from, PlainRun plain) {
        int end = plain.endOfText(buffer, from, limit);
        value = buffer;
        valueFrom = from;
        valueTo = end;
        return end < limit && buffer[end] == '&' ? textWithReferences(from, end, plain) : end;
    }

    private int textWithReferences(int from, int firstEnd, PlainRun plain) {
        made.clear();
        int start = from;
        int end = firstEnd;
        while (end < limit && buffer[end] == '&') {
            made.add(buffer, start, end);
            start = XmlReferences.reference(buffer, end, limit, made);
            end = start < 0 ? limit : plain.endOfText(buffer, start, limit);
        }
        if (end < limit) {
            made.add(buffer, start, end);
        }
        value = made.bytes();
        valueFrom = 0;
        valueTo = made.length();
        return end;
    }
}
