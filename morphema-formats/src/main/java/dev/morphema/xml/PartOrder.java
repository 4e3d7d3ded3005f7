package dev.morphema.xml;

import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue.Part;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** The child elements of one element in order, and the texts between them. Not thread-safe. */
final class PartOrder {
    private final List<Part> children = new ArrayList<>();
    private final List<Text> texts = new ArrayList<>();

    /**
     * The text before a child, or behind the last one.
     *
     * @param to where it ends in the element's own text
     * @param meant whether it is kept where the element has no other text
     */
    private record Text(int to, boolean meant) {}

    /**
     * The text before the next child ends, or that behind the last.
     *
     * @param to how many characters the element's own text has so far
     * @param meant whether it is no layout
     */
    void text(int to, boolean meant) {
        texts.add(new Text(to, meant));
    }

    void child(FieldName name, Value value) {
        children.add(new Part(name, value));
    }

    int size() {
        return children.size();
    }

    /**
     * {@return whether children of one name are apart, so that grouping them by name loses the
     * order}
     */
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

    /**
     * {@return all children with the texts between them}
     *
     * @param all whether white space that is layout is text, too, as it stands beside other text
     */
    List<Part> parts(Texts own, boolean all) {
        List<Part> parts = new ArrayList<>();
        int from = 0;
        for (int i = 0; i < texts.size(); i++) {
            Text text = texts.get(i);
            String piece = all || text.meant() ? own.between(from, text.to()) : "";
            if (!piece.isEmpty()) {
                parts.add(new Part(null, TextValue.of(piece)));
            }
            from = text.to();
            if (i < children.size()) {
                parts.add(children.get(i));
            }
        }
        return parts;
    }
}
