package dev.morphema.schemas;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.xml.sax.Attributes;
import org.xml.sax.SAXException;
import org.xml.sax.helpers.XMLFilterImpl;

/** Knows which element of a document is being read. Not thread-safe. */
final class ElementPlaces extends XMLFilterImpl {
    /** An element that is open, with how many children of each name it has had. */
    private record Open(String step, Map<String, Integer> children) {}

    private final Deque<Open> open = new ArrayDeque<>();

    /**
     * {@return the path to the element, such as {@code /Notice/Call[2]/Eta}; null outside of any}
     */
    @Nullable
    String path() {
        if (open.isEmpty()) {
            return null;
        }
        List<String> steps = new ArrayList<>();
        open.forEach(element -> steps.add(element.step()));
        Collections.reverse(steps);
        return "/" + String.join("/", steps);
    }

    @Override
    public void startElement(String uri, String local, String name, Attributes attributes) throws SAXException {
        Open around = open.peek();
        int number = around == null ? 1 : around.children().merge(local, 1, Integer::sum);
        open.push(new Open(number == 1 ? local : local + "[" + number + "]", new HashMap<>()));
        super.startElement(uri, local, name, attributes);
    }

    @Override
    public void endElement(String uri, String local, String name) throws SAXException {
        super.endElement(uri, local, name);
        open.pop();
    }
}
