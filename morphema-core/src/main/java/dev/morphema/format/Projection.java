package dev.morphema.format;

import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * What a mapping uses at one place of a source: all of it, or some fields. A reader keeps only
 * that. Immutable but for what readers learn and leave each other; so each run reads with a
 * {@linkplain #fresh copy of its own}, which its threads may share. Two records read by the same
 * projection have the same layout.
 */
public final class Projection {
    private final boolean everything;
    private final Map<FieldName, Projection> fields;
    private final @Nullable Converter converter;
    private final Map<FieldName, Projection> deep;
    private final boolean passes;
    private final Expectation expectation;
    private final boolean foreseen;
    private final Layout layout;
    private final List<Projection> bySlot = new ArrayList<>();
    /** What a reader left to the next. */
    private final AtomicReference<@Nullable Object> learned = new AtomicReference<>();
    /**
     * What is used of a field that is not named, where all are kept; made when it is first asked
     * for.
     */
    private @Nullable Projection unnamed;

    /** {@return all there is, without declared types} */
    public static Projection everything() {
        return new Projection(true, Map.of(), null, Map.of());
    }

    /**
     * @param everything whether all fields are kept, not only those named
     * @param fields what is used of the fields, or known about them; a name without namespace
     *     stands for any
     * @param converter for the value at this place, or null if its type was not declared
     * @param deep declared types of fields at any depth below
     */
    public Projection(
            boolean everything,
            Map<FieldName, Projection> fields,
            @Nullable Converter converter,
            Map<FieldName, Projection> deep) {
        this(everything, fields, converter, deep, false, Expectation.UNKNOWN, false);
    }

    private Projection(
            boolean everything,
            Map<FieldName, Projection> fields,
            @Nullable Converter converter,
            Map<FieldName, Projection> deep,
            boolean passes,
            Expectation expectation,
            boolean foreseen) {
        this.expectation = expectation;
        this.foreseen = foreseen;
        this.passes = passes;
        this.everything = everything;
        this.fields = new LinkedHashMap<>(fields);
        this.converter = converter;
        this.deep = Map.copyOf(deep);
        Layout start = Layout.start(name -> child(name).converter);
        this.layout = everything ? start : start.withAll(List.copyOf(this.fields.keySet()));
        bySlot.addAll(this.fields.values());
    }

    /**
     * {@return the same for a place of which nothing is done with a text or number but to write it}
     */
    public Projection passing() {
        return new Projection(everything, fields, converter, deep, true, expectation, foreseen);
    }

    /**
     * {@return the same, fields of which may all stay bytes}: for one who makes no values of most
     */
    public Projection asBytes() {
        Map<FieldName, Projection> passing = new LinkedHashMap<>();
        fields.forEach((name, field) -> passing.put(name, field.passing()));
        return new Projection(everything, passing, converter, deep, passes, expectation, foreseen);
    }

    /**
     * {@return the same for a field of which it is known whether it is to be there}
     *
     * @param isForeseen whether the mapping itself says what to do where it is not
     */
    public Projection expected(Expectation ofSample, boolean isForeseen) {
        return new Projection(everything, fields, converter, deep, passes, ofSample, isForeseen);
    }

    /** {@return whether some record of each input is to have this field} */
    public Expectation expectation() {
        return foreseen ? Expectation.OPTIONAL : expectation;
    }

    /** {@return whether the mapping says what to do where this field is not there} */
    public boolean isForeseen() {
        return foreseen;
    }

    /** {@return what keeps all that this or the other keeps} */
    public Projection and(Projection other) {
        Map<FieldName, Projection> all = new LinkedHashMap<>(fields);
        other.fields.forEach((name, field) -> all.merge(name, field, Projection::and));
        Map<FieldName, Projection> allDeep = new LinkedHashMap<>(deep);
        allDeep.putAll(other.deep);
        return new Projection(
                        everything || other.everything, all, converter == null ? other.converter : converter, allDeep)
                .expected(expectation, foreseen && other.foreseen);
    }

    /** {@return this projection with nothing kept of what stands at a path} */
    public Projection without(List<FieldName> path) {
        if (everything || path.isEmpty()) {
            return this;
        }
        Map<FieldName, Projection> fewer = new LinkedHashMap<>(fields);
        FieldName first = path.get(0);
        if (path.size() == 1) {
            fewer.remove(first);
        } else if (fewer.containsKey(first)) {
            fewer.put(first, fewer.get(first).without(path.subList(1, path.size())));
        }
        return new Projection(false, fewer, converter, deep, passes, expectation, foreseen);
    }

    /**
     * {@return what a reader has learned of how the records stand that it read with this
     * projection, which is nobody else's from now on}
     *
     * @param kind what this reader can make use of
     * @param beginning gives what it begins with where nothing was left
     */
    public <T> T learned(Class<T> kind, Supplier<T> beginning) {
        Object found = learned.getAndSet(null);
        return kind.isInstance(found) ? kind.cast(found) : beginning.get();
    }

    /**
     * Leaves what a reader has learned, and does not use any more, to one that reads the next
     * input. Where everything is kept, as in unlike mappings, nothing is left.
     */
    public void leave(Object thing) {
        if (!everything) {
            learned.set(thing);
        }
    }

    /** {@return whether the value at this place has a declared type} */
    public boolean isTyped() {
        return converter != null;
    }

    /** {@return whether all fields are kept} */
    public boolean keepsAll() {
        return everything;
    }

    /**
     * {@return the layout of the records here: all fields that are used or, if everything is, none
     * yet}
     */
    public Layout layout() {
        return layout;
    }

    /**
     * {@return the slot of a field in the layout, or -1 if it is not used; for projections that do
     * not keep everything}
     *
     * @param name with the namespace it has in the input
     */
    public int slot(FieldName name) {
        int slot = layout.slot(name);
        // An attribute with a namespace is another one than that without.
        return slot >= 0 || name.namespace() == null || name.attribute() ? slot : layout.slot(name.withoutNamespace());
    }

    /**
     * {@return whether nothing is done with a text or number in a slot but to write it; then it may
     * stay bytes}
     */
    public boolean passes(int slot) {
        return bySlot.get(slot).passes;
    }

    /** {@return what is used of the field in a slot} */
    public Projection child(int slot) {
        return bySlot.get(slot);
    }

    /** {@return what is used of a field} */
    public Projection child(FieldName name) {
        Projection child = fields.get(name);
        FieldName local = name.withoutNamespace();
        if (child == null) {
            child = fields.get(local);
        }
        if (child == null) {
            child = deep.getOrDefault(name, deep.get(local));
        }
        if (child == null) {
            child = unnamed();
        }
        return child;
    }

    private Projection unnamed() {
        if (everything && fields.isEmpty() && converter == null) {
            return this;
        }
        Projection known = unnamed;
        if (known == null) {
            known = new Projection(true, Map.of(), null, deep);
            unnamed = known;
        }
        return known;
    }

    /** {@return a copy with which nothing has been read so far} */
    public Projection fresh() {
        Map<FieldName, Projection> freshFields = new LinkedHashMap<>();
        fields.forEach((name, field) -> freshFields.put(name, field.fresh()));
        Map<FieldName, Projection> freshDeep = new LinkedHashMap<>();
        deep.forEach((name, field) -> freshDeep.put(name, field.fresh()));
        return new Projection(everything, freshFields, converter, freshDeep, passes, expectation, foreseen);
    }

    /** {@return the projection as the printed plan shows it} */
    @Override
    public String toString() {
        if (everything) {
            return "*";
        }
        StringBuilder out = new StringBuilder("{");
        fields.forEach((name, child) -> {
            out.append(out.length() > 1 ? ", " : "").append(name);
            if (!child.everything && !child.fields.isEmpty()) {
                out.append(' ').append(child);
            }
        });
        return out.append('}').toString();
    }
}
