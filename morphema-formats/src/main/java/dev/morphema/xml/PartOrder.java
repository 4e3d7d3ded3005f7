package dev.morphema.xml;

import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue.Part;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The order of the child elements of one element, and how much of its text stands before each. */
final class PartOrder {
    private final List<Part> children = new ArrayList<>();
    private final List<Integer> textBefore = new ArrayList<>();

    /** @param text how many characters of the element's own text stand before the child */
    void child(FieldName name, Value value, int text) {
        children.add(new Part(name, value));
        textBefore.add(text);
    }

    /** {@return whether children of one name are apart, so that grouping them by name loses the order} */
    boolean isInterleaved() {
        Set<FieldName> seen = new HashSet<>();
        FieldName last = null;
        for (Part child : children) {
            if (!child.name().equals(last) && !seen.add(child.name())) {
                return true;
            }
            last = child.name();
        }
        return false;
    }

    /** {@return all children with the pieces of text between them, or without text if none is given} */
    List<Part> parts(@Nullable Texts texts) {
        if (texts == null) {
            return children;
        }
        List<Part> parts = new ArrayList<>();
        int from = 0;
        for (int i = 0; i < children.size(); i++) {
            from = addText(texts, from, textBefore.get(i), parts);
            parts.add(children.get(i));
        }
        addText(texts, from, texts.length(), parts);
        return parts;
    }

    private static int addText(Texts texts, int from, int to, List<Part> parts) {
        String piece = texts.between(from, to);
        if (!piece.isEmpty()) {
            parts.add(new Part(null, TextValue.of(piece)));
        }
        return to;
    }
}
