package dev.morphema.json;

import dev.morphema.format.EditedText;
import dev.morphema.json.JsonSpan.Entry;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.io.JsonStringEncoder;

/**
 * How a JSON document is laid out: what its lines begin with, and whether values stand in lines of
 * their own. Prints the values of another document so. Immutable.
 */
final class JsonLayout {
    private static final String USUAL_STEP = "  ";
    private static final String USUAL_COLON = ": ";

    private final EditedText document;
    private final JsonSpan root;
    private final String partText;
    private final String step;
    private final String colon;

    /** @param partText the text of which values are printed */
    JsonLayout(EditedText document, JsonSpan root, String partText) {
        this.document = document;
        this.root = root;
        this.partText = partText;
        this.step = step();
        this.colon = colon();
    }

    private String step() {
        if (root.isEmpty() || !isSpread(root)) {
            return USUAL_STEP;
        }
        String outer = document.indent(root.from());
        String inner = document.indent(root.first());
        return inner.length() > outer.length() && inner.startsWith(outer)
                ? inner.substring(outer.length())
                : USUAL_STEP;
    }

    private String colon() {
        if (!root.isObject() || root.isEmpty()) {
            return USUAL_COLON;
        }
        Entry first = root.entries().values().iterator().next();
        String between = document.text()
                .substring(
                        JsonSpan.endOfText(document.text(), first.from()),
                        first.value().from());
        return between.contains("\n") ? USUAL_COLON : between;
    }

    /** {@return what stands between two values of one line} */
    private String comma() {
        return colon.endsWith(":") ? "," : ", ";
    }

    /** {@return whether what an object or a list holds begins on a line of its own} */
    private boolean isSpread(JsonSpan container) {
        String text = document.text();
        return container.isEmpty()
                ? text.strip().contains("\n")
                : text.substring(container.from(), container.first()).contains("\n");
    }

    /** {@return what lines begin with within an object or a list, or null if all is on one} */
    private @Nullable String within(JsonSpan container) {
        if (!isSpread(container)) {
            return null;
        }
        return container.isEmpty() ? document.indent(container.from()) + step : document.indent(container.first());
    }

    private static List<JsonSpan> held(JsonSpan container) {
        return container.isList()
                ? container.items()
                : container.entries().values().stream().map(Entry::value).toList();
    }

    /**
     * Whether what an object or a list holds are objects or lists, the last of which takes one
     * line.
     */
    private boolean holdsLines(JsonSpan container) {
        List<JsonSpan> held = held(container);
        JsonSpan last = held.isEmpty() ? null : held.get(held.size() - 1);
        return last != null && !last.isEmpty() && !isSpread(last);
    }

    /** {@return an entry as it would stand in an object of the document} */
    String entry(String name, JsonSpan value, JsonSpan object) {
        return quoted(name) + colon + item(value, object);
    }

    /** {@return a value as it would stand in an object or a list of the document} */
    String item(JsonSpan value, JsonSpan container) {
        return holdsLines(container) ? onOneLine(value, container.last()) : printed(value, within(container), "");
    }

    /** {@return a value as it would stand in place of another of the document} */
    String inPlace(JsonSpan value, JsonSpan old) {
        boolean lines = old.isEmpty() ? isSpread(root) : isSpread(old);
        return lines ? printed(value, document.indent(old.from()), "") : onOneLine(value, old);
    }

    /** @param like another value of one line, which may have blanks within its brackets */
    private String onOneLine(JsonSpan value, JsonSpan like) {
        boolean padded = !like.isEmpty() && document.text().charAt(like.from() + 1) == ' ';
        return printed(value, null, padded ? " " : "");
    }

    /** {@return what more there is in an object or a list, with all that separates it} */
    String more(List<String> more, JsonSpan container) {
        String within = within(container);
        String between = within == null ? comma() : "," + document.lineEnd() + within;
        String all = String.join(between, more);
        if (!container.isEmpty()) {
            return between + all;
        }
        return within == null
                ? all
                : document.lineEnd() + within + all + document.lineEnd() + document.indent(container.from());
    }

    /**
     * Prints a value.
     *
     * @param indent what its own line begins with, or null if all is to be on one
     * @param pad what stands within brackets on one line
     */
    private String printed(JsonSpan value, @Nullable String indent, String pad) {
        String inner = indent == null ? null : indent + step;
        if (value.isEmpty()) {
            return value.isObject() ? "{}" : value.isList() ? "[]" : partText.substring(value.from(), value.to());
        }
        List<String> parts = new ArrayList<>();
        for (JsonSpan item : value.items()) {
            parts.add(printed(item, inner, pad));
        }
        for (Map.Entry<String, Entry> entry : value.entries().entrySet()) {
            parts.add(quoted(entry.getKey()) + colon + printed(entry.getValue().value(), inner, pad));
        }
        return value.isList() ? framed("[", parts, "]", indent, pad) : framed("{", parts, "}", indent, pad);
    }

    private String framed(String open, List<String> parts, String close, @Nullable String indent, String pad) {
        if (indent == null) {
            return open + pad + String.join(comma(), parts) + pad + close;
        }
        String line = document.lineEnd() + indent;
        return open + line + step + String.join("," + line + step, parts) + line + close;
    }

    private static String quoted(String name) {
        return '"' + new String(JsonStringEncoder.getInstance().quoteAsCharArray(name)) + '"';
    }
}
