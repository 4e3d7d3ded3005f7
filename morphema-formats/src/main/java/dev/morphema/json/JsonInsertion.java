package dev.morphema.json;

import dev.morphema.format.EditedText;
import dev.morphema.format.Insertion;
import dev.morphema.format.Insertion.Existing;
import dev.morphema.json.JsonSpan.Entry;
import dev.morphema.problem.ProblemException;
import java.util.ArrayList;
import java.util.List;
import tools.jackson.core.JacksonException;

/** Puts a JSON document into another one, laid out as what stands around it. Of use once. */
final class JsonInsertion {
    private final EditedText document;
    private final JsonSpan root;
    private final JsonSpan part;
    private final JsonLayout layout;
    private final Insertion insertion;

    private JsonInsertion(String name, String text, String part, Insertion insertion) {
        this.document = new EditedText(name, text);
        this.root = parsed(name, text);
        this.part = parsed("the result", part);
        this.layout = new JsonLayout(document, root, part);
        this.insertion = insertion;
    }

    /**
     * {@return the document with the part in it}
     *
     * @param name of the document
     * @throws ProblemException if the part cannot be put there, or the document is not well-formed
     */
    static String of(String name, String text, String part, Insertion insertion) {
        JsonInsertion inserting = new JsonInsertion(name, text, part, insertion);
        inserting.insert();
        return inserting.document.result();
    }

    private static JsonSpan parsed(String name, String text) {
        try {
            return JsonSpan.of(text);
        } catch (JacksonException e) {
            throw new ProblemException(JsonFaults.explained(e, name), e);
        }
    }

    private void insert() {
        JsonSpan at = root;
        List<String> path = insertion.path();
        for (int i = 0; i < path.size(); i++) {
            if (!at.isObject()) {
                throw insertion.noRecord(path.subList(0, i), document.location(at.from()));
            }
            String step = path.get(i);
            Entry entry = at.entries().get(step);
            if (entry == null && i < path.size() - 1) {
                throw Insertion.unknown(step, at.entries().keySet(), document.location(at.from()));
            }
            if (entry == null) {
                append(at, List.of(layout.entry(step, part, at)));
                return;
            }
            at = entry.value();
        }
        if (at.isObject() && part.isObject()) {
            intoObject(at);
        } else {
            into(path, at, part);
        }
    }

    /** Each entry of the part becomes one of the object. */
    private void intoObject(JsonSpan object) {
        List<String> more = new ArrayList<>();
        part.entries().forEach((name, entry) -> {
            Entry known = object.entries().get(name);
            if (known == null) {
                more.add(layout.entry(name, entry.value(), object));
            } else {
                List<String> path = new ArrayList<>(insertion.path());
                path.add(name);
                into(path, known.value(), entry.value());
            }
        });
        append(object, more);
    }

    /** A value comes where another one is. */
    private void into(List<String> path, JsonSpan known, JsonSpan value) {
        if (known.isNull() || insertion.existing() == Existing.REPLACED) {
            replace(known, value);
        } else if (insertion.existing() == Existing.EXTENDED && known.isList() && value.isList()) {
            append(
                    known,
                    value.items().stream().map(item -> layout.item(item, known)).toList());
        } else {
            throw insertion.refused(path, document.location(known.from()));
        }
    }

    private void replace(JsonSpan old, JsonSpan value) {
        document.replace(old.from(), old.to(), layout.inPlace(value, old));
    }

    /** Puts something behind the last of what an object or a list holds. */
    private void append(JsonSpan container, List<String> more) {
        if (more.isEmpty()) {
            return;
        }
        int from = container.isEmpty() ? container.from() + 1 : container.last().to();
        int to = container.isEmpty() ? container.to() - 1 : from;
        document.replace(from, to, layout.more(more, container));
    }
}
