package dev.morphema.xml;

import dev.morphema.value.FieldBytes;
import dev.morphema.value.FieldName;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Set;

/** The attributes of one start tag after the other. Not thread-safe. */
final class XmlAttributes {
    private static final int FEW = 16;

    private XmlName[] names = new XmlName[8];
    /** Where each value ends in the bytes of all. */
    private int[] ends = new int[8];

    private int count;
    private XmlText values = new XmlText();
    private XmlText others = new XmlText();

    void clear() {
        count = 0;
        values.clear();
    }

    /** {@return what takes the bytes of the next value} */
    XmlText values() {
        return values;
    }

    /** The next value is complete; says whether its attribute declares a namespace. */
    boolean endValue(XmlName name) {
        if (count == names.length) {
            names = Arrays.copyOf(names, count * 2);
            ends = Arrays.copyOf(ends, count * 2);
        }
        names[count] = name;
        ends[count++] = values.length();
        return name.declares();
    }

    /**
     * Declares the namespaces in a scope, and leaves only the other attributes, as they are meant
     * there; says whether all is common.
     */
    boolean declareIn(XmlScope scope) {
        boolean common = true;
        for (int i = 0; i < count; i++) {
            common &= !names[i].declares() || scope.declare(names[i], value(i));
        }
        others.clear();
        int left = 0;
        int start = 0;
        for (int i = 0; i < count; i++) {
            int end = ends[i];
            if (!names[i].declares()) {
                others.add(values.bytes(), start, end);
                names[left] = scope.name(names[i]);
                ends[left++] = others.length();
            }
            start = end;
        }
        XmlText all = values;
        values = others;
        others = all;
        count = left;
        return common;
    }

    /** {@return whether all names have a meaning, and no two the same} */
    boolean areKnownAndDifferent() {
        for (int i = 0; i < count; i++) {
            if (!names[i].isKnown()) {
                return false;
            }
        }
        return count > FEW ? areManyDifferent() : areFewDifferent();
    }

    private boolean areManyDifferent() {
        Set<FieldName> met = new HashSet<>();
        for (int i = 0; i < count; i++) {
            if (!met.add(names[i].ofAttribute())) {
                return false;
            }
        }
        return true;
    }

    private boolean areFewDifferent() {
        for (int i = 0; i < count; i++) {
            for (int j = 0; j < i; j++) {
                if (names[i].isSameAttribute(names[j])) {
                    return false;
                }
            }
        }
        return true;
    }

    int count() {
        return count;
    }

    XmlName name(int index) {
        return names[index];
    }

    private int start(int index) {
        return index == 0 ? 0 : ends[index - 1];
    }

    String value(int index) {
        int start = start(index);
        return new String(values.bytes(), start, ends[index] - start, StandardCharsets.UTF_8);
    }

    /** Adds a value to a row as its bytes; says whether that could be done. */
    boolean bytes(int index, FieldBytes.Row row, int slot) {
        int start = start(index);
        return start < ends[index] && row.text(slot, values.bytes(), start, ends[index]);
    }
}
