package dev.morphema.formats;

import dev.morphema.format.Projection;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The slots of the fields of records at one place. Such records mostly have the same fields in the
 * same order, and parsers give a name that comes again as the same object, so nothing is looked up.
 * Not thread-safe.
 */
public final class FieldOrder {
    private static final int MOST = 64;
    private static final int MOST_WAYS = 64;

    private final Projection wanted;
    private final boolean texts;
    private final boolean ofAttributes;
    private final boolean onlyBytes;
    private @Nullable FieldOrder attributes;
    /** The places below, by slot; made when they are first met. */
    private final @Nullable FieldOrder[] below;

    /** The gaps to the fields, as far as they are known, and how many were remembered for each. */
    private @Nullable KnownGap[] gaps = new KnownGap[0];

    private int[] learned = new int[0];
    private FieldBytes.@Nullable Row row;
    private Field[] fields = new Field[0];
    private int next;
    /** Whether there was a record, and another before it. */
    private boolean begun;

    private boolean again;

    /**
     * A field that records at this place can have.
     *
     * @param local its name, as the parser gave it
     * @param namespace of the name, as the parser gave it, or null
     * @param slot where its value goes, or -1 if it is not wanted
     * @param type its declared type, or null
     * @param passes whether a text or a number there may stay bytes
     */
    public record Field(
            String local,
            @Nullable String namespace,
            FieldName name,
            int slot,
            @Nullable Converter type,
            boolean passes) {
        // The very objects are compared: to be another is no fault, it only takes longer.
        @SuppressWarnings("StringEquality")
        private boolean is(String otherLocal, @Nullable String otherNamespace) {
            return local == otherLocal && namespace == otherNamespace;
        }
    }

    /** @param wanted what is wanted of the records */
    public FieldOrder(Projection wanted) {
        this(wanted, false, false);
    }

    /** {@return the slots of the fields of records, in a format in which all values are texts} */
    public static FieldOrder ofTexts(Projection wanted) {
        return new FieldOrder(wanted, true, false);
    }

    private FieldOrder(Projection wanted, boolean texts, boolean ofAttributes) {
        this.wanted = wanted;
        this.texts = texts;
        this.ofAttributes = ofAttributes;
        this.below = new FieldOrder[wanted.layout().size()];
        boolean all = true;
        for (int slot = 0; slot < below.length; slot++) {
            all &= passes(slot);
        }
        this.onlyBytes = all;
    }

    /**
     * Whether a text or a number may stay bytes; of what has a declared type only texts, and only
     * if the type prints these.
     */
    private boolean passes(int slot) {
        if (wanted.keepsAll() || !wanted.passes(slot)) {
            return false;
        }
        Converter type = wanted.layout().converter(slot);
        return type == null || texts && type.prints() != null;
    }

    /** {@return what is wanted of the records} */
    public Projection wanted() {
        return wanted;
    }

    /**
     * {@return the place of what stands in a slot; for records of which not everything is wanted}
     */
    public FieldOrder below(int slot) {
        FieldOrder order = below[slot];
        if (order == null) {
            order = new FieldOrder(wanted.child(slot), texts, false);
            below[slot] = order;
        }
        return order;
    }

    /** {@return the order of the attributes at this place} */
    public FieldOrder attributes() {
        FieldOrder order = attributes;
        if (order == null) {
            order = new FieldOrder(wanted, texts, true);
            attributes = order;
        }
        return order;
    }

    /**
     * {@return whether texts and numbers of all fields that are wanted may stay bytes; not if
     * everything is wanted}
     */
    public boolean onlyBytes() {
        return onlyBytes;
    }

    /** {@return what collects the fields of the record at this place that stay bytes} */
    public FieldBytes.Row row() {
        FieldBytes.Row known = row;
        if (known == null) {
            known = new FieldBytes.Row(wanted.layout().size());
            row = known;
        }
        return known;
    }

    /** A record begins. */
    public void begin() {
        again = begun;
        begun = true;
        next = 0;
    }

    /** {@return whether there was another record at this place before the one that began last} */
    public boolean comesAgain() {
        return again;
    }

    /** {@return the gap to the field that came next the last time, or null if it is not known} */
    public @Nullable KnownGap gap() {
        return next < gaps.length ? gaps[next] : null;
    }

    /** The field to which the {@linkplain #gap gap} leads is the next one. */
    public void goOn() {
        next++;
    }

    /**
     * {@return whether more gaps may be learned here and below; if not, records are ever others,
     * and who reads the next learns anew}
     */
    public boolean mayLearnMore() {
        for (int count : learned) {
            if (count >= MOST_WAYS) {
                return false;
            }
        }
        for (FieldOrder order : below) {
            if (order != null && !order.mayLearnMore()) {
                return false;
            }
        }
        return true;
    }

    /**
     * {@return whether it is worthwhile to remember the gap to the last field: not of a single
     * record, nor if it is ever another}
     */
    public boolean wantsWay() {
        return again && next > 0 && (next > learned.length || learned[next - 1] < MOST_WAYS);
    }

    /** Remembers the gap to the last field. */
    public void learn(KnownGap gap) {
        int last = next - 1;
        if (last >= gaps.length) {
            gaps = Arrays.copyOf(gaps, fields.length);
            learned = Arrays.copyOf(learned, fields.length);
        }
        gaps[last] = gap;
        learned[last]++;
    }

    /** {@return the next field} */
    public Field field(String local, @Nullable String namespace) {
        if (next < fields.length) {
            Field expected = fields[next];
            if (expected.is(local, namespace)) {
                next++;
                return expected;
            }
        }
        for (int i = 0; i < fields.length; i++) {
            if (fields[i].is(local, namespace)) {
                next = i + 1;
                return fields[i];
            }
        }
        return added(local, namespace);
    }

    private Field added(String local, @Nullable String namespace) {
        FieldName name =
                new FieldName(namespace == null || namespace.isEmpty() ? null : namespace, local, ofAttributes);
        int slot = wanted.slot(name);
        Converter type = slot < 0 ? null : wanted.layout().converter(slot);
        Field field = new Field(local, namespace, name, slot, type, slot >= 0 && passes(slot));
        next = 0;
        if (fields.length < MOST) {
            fields = Arrays.copyOf(fields, fields.length + 1);
            fields[fields.length - 1] = field;
            next = fields.length;
        }
        return field;
    }
}
