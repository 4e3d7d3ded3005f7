package dev.morphema.value;

import dev.morphema.problem.ProblemException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Named fields in written order. A field of a source that has a declared type is converted when it
 * is first asked for, so that an odd value in a field that nobody uses disturbs nobody. Not to be
 * shared by threads before that.
 */
public final class RecordValue extends Composite {
    /** A record without fields. */
    public static final RecordValue EMPTY = new RecordValue(Layout.EMPTY, new Value[0], null, null, null, null);

    private final Layout layout;
    /** Null as long as all that there is are bytes. */
    private @Nullable Value @Nullable [] values;
    /** The fields that no value has been made of, and some of which one has. */
    private final @Nullable FieldBytes bytes;

    /** Null as well as long as nobody asked for that of a {@linkplain PassingRecord passing} record. */
    private @Nullable Origin origin;

    private final @Nullable Supplier<Origin> place;
    private final @Nullable FieldName element;
    private final @Nullable List<Part> parts;
    /**
     * Which of the first slots hold what {@link #get} gives, bit by bit: converted already, or of
     * no declared type.
     */
    private long ready;

    private RecordValue(
            Layout layout,
            @Nullable Value @Nullable [] values,
            @Nullable FieldBytes bytes,
            @Nullable Origin origin,
            @Nullable FieldName element,
            @Nullable List<Part> parts) {
        this(layout, values, bytes, origin, null, element, parts);
    }

    private RecordValue(
            Layout layout,
            @Nullable Value @Nullable [] values,
            @Nullable FieldBytes bytes,
            @Nullable Origin origin,
            @Nullable Supplier<Origin> place,
            @Nullable FieldName element,
            @Nullable List<Part> parts) {
        this.layout = layout;
        this.values = values;
        this.bytes = bytes;
        this.origin = origin;
        this.place = place;
        this.element = element;
        this.parts = parts;
        this.ready = layout.untyped();
    }

    /**
     * A child of a record, or a piece of the text between children.
     *
     * @param name of the child; null for a piece of text
     * @param value one value, never many
     */
    public record Part(@Nullable FieldName name, Value value) {}

    /**
     * {@return a record of an input}
     *
     * @param values one for each slot of the layout, or null; the record's own from now on
     */
    public static RecordValue of(Layout layout, @Nullable Value[] values, Origin origin) {
        return new RecordValue(layout, values, null, origin, null, null);
    }

    /**
     * As {@link #of(Layout, Value[], Origin)}, where some fields are bytes, and some values have
     * been read as the declared type.
     *
     * @param values may be null if there are only bytes, or nothing
     * @param bytes the fields that have no value, or null if there are none
     * @param converted a bit for each slot, the lowest for the first; slots from 64 on may be
     *     converted twice
     */
    public static RecordValue of(
            Layout layout,
            @Nullable Value @Nullable [] values,
            @Nullable FieldBytes bytes,
            Origin origin,
            long converted) {
        RecordValue record = new RecordValue(
                layout, values == null && bytes == null ? new Value[layout.size()] : values, bytes, origin, null, null);
        record.ready |= converted;
        return record;
    }

    /**
     * {@return a record of nothing but bytes, which {@link PassingRecord} gives again}
     *
     * @param place tells where it stands, if somebody asks
     */
    static RecordValue passing(Layout layout, FieldBytes bytes, Supplier<Origin> place) {
        return new RecordValue(layout, null, bytes, null, place, null, null);
    }

    /** The bytes are those of another record from now on. */
    void pass() {
        values = null;
        origin = null;
        ready = layout.untyped();
    }

    /** {@return the bit of a slot, for {@link #of(Layout, Value[], FieldBytes, Origin, long)}} */
    public static long bit(int slot) {
        return slot < Long.SIZE ? 1L << slot : 0;
    }

    /** {@return a record of all its parts} */
    static RecordValue restored(
            Layout layout,
            @Nullable Value[] values,
            @Nullable FieldBytes bytes,
            @Nullable Origin origin,
            @Nullable FieldName element,
            @Nullable List<Part> parts) {
        return new RecordValue(layout, values, bytes, origin, element, parts);
    }

    /**
     * {@return a builder of a record}
     *
     * @param layout that it begins with; records that begin with the same and are given the same
     *     fields have the same layout
     * @param origin of a record of an input, or null
     */
    public static RecordBuilder builder(Layout layout, @Nullable Origin origin) {
        return new RecordBuilder(layout, origin);
    }

    /**
     * {@return a builder that begins with the fields of another record, and stands where that
     * stood}
     */
    public static RecordBuilder builder(RecordValue begin) {
        RecordBuilder builder = new RecordBuilder(begin.layout, begin.origin());
        for (int i = 0; i < begin.layout.size(); i++) {
            builder.set(i, begin.get(i));
        }
        if (begin.element != null) {
            builder.element(begin.element);
        }
        if (begin.parts != null) {
            builder.parts(new ArrayList<>(begin.parts));
        }
        return builder;
    }

    /** {@return the names of the fields} */
    public Layout layout() {
        return layout;
    }

    /** {@return where the record stood in its input, or null if it was made by the mapping} */
    public @Nullable Origin origin() {
        if (origin == null && place != null) {
            origin = place.get();
        }
        return origin;
    }

    /**
     * {@return whether it is an XML element; used as one value such a record gives its own text}
     */
    public boolean isElement() {
        return element != null;
    }

    /** {@return the name of the XML element that the record is, or null if it is none} */
    public @Nullable FieldName element() {
        return element;
    }

    /**
     * {@return whether there is text between children, or children of one name are not side by
     * side}
     */
    public boolean isMixed() {
        return parts != null;
    }

    /** {@return whether there is a field beside attributes and the text of its own} */
    public boolean hasChildren() {
        for (int slot = 0; slot < layout.fields(); slot++) {
            FieldName name = layout.name(slot);
            if (!name.attribute() && !name.equals(FieldName.OWN_TEXT) && get(slot) != Missing.ABSENT) {
                return true;
            }
        }
        return false;
    }

    /** {@return whether the record has text of its own, if only white space between children} */
    public boolean hasText() {
        return get(FieldName.OWN_TEXT) != Missing.ABSENT
                || parts != null && parts.stream().anyMatch(part -> part.name() == null);
    }

    /**
     * {@return the children and texts, in document order}, without attributes; complete only if the
     * whole record was read
     *
     * @throws ProblemException if a child has a declared type and is not of it
     */
    public List<Part> parts() {
        List<Part> all = new ArrayList<>();
        if (parts == null) {
            for (int i = 0; i < layout.fields(); i++) {
                FieldName name = layout.name(i);
                if (!name.attribute()) {
                    addParts(name.equals(FieldName.OWN_TEXT) ? null : name, get(i), all);
                }
            }
            return all;
        }
        for (Part part : parts) {
            int slot = part.name() == null ? -1 : layout.slot(part.name());
            Converter converter = slot < 0 ? null : layout.converter(slot);
            all.add(converter == null ? part : new Part(part.name(), convert(converter, part.value(), slot)));
        }
        return all;
    }

    static void addParts(@Nullable FieldName name, @Nullable Value value, List<Part> all) {
        if (value instanceof Many many) {
            many.items().forEach(item -> all.add(new Part(name, item)));
        } else if (value != null && value != Missing.ABSENT) {
            all.add(new Part(name, value));
        }
    }

    /**
     * {@return the value in a slot, absent if it has none}
     *
     * @throws ProblemException if it has a declared type and is not of it
     */
    public Value get(int slot) {
        Value value = values == null ? null : values[slot];
        return value != null && (ready & bit(slot)) != 0 ? value : made(slot, value);
    }

    private Value made(int slot, @Nullable Value known) {
        Value value = known;
        if (value == null) {
            if (!isBytes(slot)) {
                return Missing.ABSENT;
            }
            value = Objects.requireNonNull(bytes).value(slot);
            put(slot, value);
        }
        return (ready & bit(slot)) != 0 ? value : converted(slot, value);
    }

    private Value converted(int slot, Value value) {
        Converter converter = layout.converter(slot);
        if (converter == null) {
            return value;
        }
        Value converted = convert(converter, value, slot);
        put(slot, converted);
        ready |= bit(slot);
        return converted;
    }

    private void put(int slot, Value value) {
        @Nullable Value[] all = values;
        if (all == null) {
            all = new Value[layout.size()];
            values = all;
        }
        all[slot] = value;
    }

    /**
     * {@return this record for good}: itself, unless it has fields where its reader left them,
     * which are others as soon as that goes on.
     */
    public RecordValue detached() {
        FieldBytes own = bytes == null ? null : bytes.detached();
        if (own == bytes) {
            return this;
        }
        RecordValue record = new RecordValue(layout, values, own, origin(), element, parts);
        record.ready = ready;
        return record;
    }

    /** {@return a value that a reader gave, for good} */
    public static Value detached(Value value) {
        return value instanceof RecordValue record ? record.detached() : value;
    }

    /** {@return the fields that are there as bytes, or null if there are none} */
    public @Nullable FieldBytes fieldBytes() {
        return bytes;
    }

    /**
     * {@return whether a field is there as bytes, so that it can perhaps be {@linkplain
     * FieldBytes#print printed}}
     */
    public boolean isBytes(int slot) {
        return bytes != null && bytes.has(slot);
    }

    /**
     * {@return whether a field is there as bytes of which each is a character of ASCII}, so that it
     * can be compared and read without making a value.
     */
    public boolean isPlain(int slot) {
        return bytes != null && bytes.isPlain(slot);
    }

    /** {@return whether all fields are} {@linkplain #isPlain plain} */
    public boolean arePlain(int[] slots) {
        return bytes != null && bytes.arePlain(slots);
    }

    /** {@return the value of exactly that name, absent if there is none} */
    public Value get(FieldName name) {
        int slot = layout.slot(name);
        return slot < 0 ? Missing.ABSENT : get(slot);
    }

    /** {@return whether no field has a value} */
    public boolean isEmpty() {
        if (bytes != null) {
            return false;
        }
        for (Value value : Objects.requireNonNull(values)) {
            if (value != null && value != Missing.ABSENT) {
                return false;
            }
        }
        return true;
    }

    private Value convert(Converter converter, Value value, int slot) {
        if (value instanceof Many many) {
            List<Value> items = new ArrayList<>(many.items().size());
            for (Value item : many.items()) {
                items.add(convert(converter, item, slot));
            }
            return Many.owned(items);
        }
        if (value instanceof ListValue list) {
            List<Value> items = new ArrayList<>(list.items().size());
            for (Value item : list.items()) {
                items.add(convert(converter, item, slot));
            }
            return ListValue.owned(items);
        }
        if (value instanceof RecordValue record && record.isElement()) {
            // The type is meant for the element's text; its attributes stay what they are.
            int text = record.layout.slot(FieldName.OWN_TEXT);
            Value own = text < 0 ? Missing.ABSENT : record.get(text);
            Value converted = convert(converter, own, slot);
            return converted == own ? value : record.with(text, converted);
        }
        if (value instanceof TextValue || value instanceof NumberValue || value instanceof BooleanValue) {
            try {
                return converter.convert(value);
            } catch (ProblemException e) {
                Origin stood = origin();
                throw stood == null
                        ? e
                        : new ProblemException(
                                e.problem().in(stood.location(layout.name(slot).toString())));
            }
        }
        return value;
    }

    /**
     * {@return the value that has been read or made for a slot, converted or not; null if there is
     * none, but perhaps bytes}
     */
    @Nullable
    Value known(int slot) {
        return values == null ? null : values[slot];
    }

    /** {@return whether there is a value in a slot, which may be null} */
    public boolean has(int slot) {
        return known(slot) != null || isBytes(slot);
    }

    /** {@return the value of a slot without the declared type of the field; null if it has none} */
    public @Nullable Value unconverted(int slot) {
        Value known = known(slot);
        return known == null && isBytes(slot) ? Objects.requireNonNull(bytes).value(slot) : known;
    }

    /** {@return the parts as they were read, of a record that has some} */
    List<Part> unconvertedParts() {
        return Objects.requireNonNull(parts);
    }

    /** {@return the bytes that it takes on the heap, about} */
    long bytes() {
        long size = origin == null ? 32 : 72;
        size += values == null ? 0 : ValueSize.of(values);
        size += bytes == null ? 0 : bytes.size();
        if (parts != null) {
            for (Part part : parts) {
                // The child itself is a field too; a piece of text is nowhere else.
                size += 28 + (part.name() == null ? ValueSize.of(part.value()) : 0);
            }
        }
        return size;
    }

    private RecordValue with(int slot, Value value) {
        @Nullable Value[] changed = new Value[layout.size()];
        for (int i = 0; i < changed.length; i++) {
            changed[i] = i == slot ? value : unconverted(i);
        }
        return new RecordValue(layout, changed, null, origin(), element, parts);
    }

    @Override
    public Kind kind() {
        return Kind.RECORD;
    }
}
