package dev.morphema.xml;

import dev.morphema.format.Projection;
import dev.morphema.formats.FieldOrder;
import dev.morphema.value.FieldName;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import java.util.Arrays;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A place of elements that become records: what is wanted of them, and how their child elements
 * stood. Not thread-safe.
 */
final class ElementPlace {
    /** So many forms are learned at a place: where elements ever stand otherwise it is no gain. */
    private static final int MOST_FORMS = 64;

    private static final Projection NOTHING = new Projection(false, Map.of(), null, Map.of());

    private final FieldOrder order;
    private final @Nullable ElementPlace[] below;
    private @Nullable ElementPlace unwanted;
    private ElementForm[] forms = {};
    private int longest;
    private int learned;
    /** In which scope the names of the forms mean what they mean. */
    private @Nullable XmlScope scope;
    /** Which form the next child had the last time. */
    private int next;

    ElementPlace(Projection wanted) {
        this.order = FieldOrder.ofTexts(wanted);
        this.below = new ElementPlace[wanted.layout().size()];
    }

    /** {@return a place where nothing is wanted} */
    static ElementPlace ofNothing() {
        return new ElementPlace(NOTHING);
    }

    FieldOrder order() {
        return order;
    }

    Projection wanted() {
        return order.wanted();
    }

    /**
     * {@return the place of what stands in a slot, or of all that is not wanted for -1; not where
     * everything is wanted}
     */
    ElementPlace below(int slot) {
        ElementPlace place = slot < 0 ? unwanted : below[slot];
        if (place == null) {
            place = slot < 0 ? ofNothing() : new ElementPlace(wanted().child(slot));
            if (slot < 0) {
                unwanted = place;
            } else {
                below[slot] = place;
            }
        }
        return place;
    }

    /** {@return the record that an element becomes which begins now} */
    RecordBuilder begin(FieldName name, Origin origin) {
        order.begin();
        next = 0;
        RecordBuilder record = RecordValue.builder(wanted().layout(), origin);
        if (!wanted().keepsAll()) {
            record.bytes(order.row());
        }
        return record.element(name);
    }

    /** {@return whether there is a form of child elements, in a scope} */
    boolean hasForms(XmlScope here) {
        return forms.length > 0 && isScope(here);
    }

    private boolean isScope(XmlScope here) {
        // In another document the scope is another object, and mostly means the same.
        if (scope != here && scope != null && scope.meansTheSameAs(here)) {
            scope = here;
        }
        return scope == here;
    }

    /**
     * {@return the form that the next child element begins with, if it is the one that is expected;
     * else null}
     */
    @Nullable
    ElementForm expected(byte[] buffer, int at, int limit) {
        if (next < forms.length && isAt(forms[next], buffer, at, limit)) {
            return forms[next++];
        }
        return null;
    }

    /** {@return any form that the next child element begins with, or null} */
    @Nullable
    ElementForm any(byte[] buffer, int at, int limit) {
        for (int i = 0; i < forms.length; i++) {
            if (isAt(forms[i], buffer, at, limit)) {
                next = i + 1;
                return forms[i];
            }
        }
        return null;
    }

    private static boolean isAt(ElementForm form, byte[] buffer, int at, int limit) {
        return at + form.start().length() < limit && form.start().areAt(buffer, at) && form.isTrusted();
    }

    /** {@return how many bytes the longest start of a form has} */
    int longest() {
        return longest;
    }

    /** {@return whether one more form may be learned} */
    boolean mayLearn() {
        return learned < MOST_FORMS;
    }

    /**
     * {@return whether that is so here and below; if not, elements are ever others, and who reads
     * the next document learns anew}
     */
    boolean mayLearnMore() {
        if (!mayLearn() || unwanted != null && !unwanted.mayLearnMore()) {
            return false;
        }
        for (ElementPlace place : below) {
            if (place != null && !place.mayLearnMore()) {
                return false;
            }
        }
        return true;
    }

    /** Remembers how a child element stood, in place of what began like that before. */
    void learn(ElementForm form, XmlScope here) {
        learned++;
        longest = Math.max(longest, form.start().length());
        if (!isScope(here)) {
            scope = here;
            forms = new ElementForm[0];
        }
        for (int i = 0; i < forms.length; i++) {
            if (forms[i].start().areSame(form.start())) {
                forms[i] = form;
                return;
            }
        }
        // Where names are data there could be any number.
        if (forms.length < MOST_FORMS) {
            forms = Arrays.copyOf(forms, forms.length + 1);
            forms[forms.length - 1] = form;
        }
    }
}
