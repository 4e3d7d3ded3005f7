package dev.morphema.samples;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/** Compares XML documents by what they mean. */
final class XmlDifferences {
    private final List<Difference> found = new ArrayList<>();

    private XmlDifferences() {}

    /** {@return all places at which the actual document is not the expected one} */
    static List<Difference> between(XmlTree expected, XmlTree actual) {
        XmlDifferences differences = new XmlDifferences();
        if (expected.name().equals(actual.name())) {
            differences.compare("/" + expected.name().getLocalPart(), expected, actual);
        } else {
            differences.found.add(new Difference(
                    "/", expected.name().toString(), actual.name().toString()));
        }
        return differences.found;
    }

    private void compare(String path, XmlTree expected, XmlTree actual) {
        Set<String> names = new TreeSet<>(expected.attributes().keySet());
        names.addAll(actual.attributes().keySet());
        for (String name : names) {
            texts(
                    path + "/@" + name,
                    expected.attributes().get(name),
                    actual.attributes().get(name));
        }
        if (expected.text() != null && actual.text() != null) {
            texts(path, expected.text(), actual.text());
        } else {
            parts(path, expected.parts(), actual.parts());
        }
    }

    private void texts(String path, String expected, String actual) {
        if (expected == null || !expected.equals(actual)) {
            found.add(new Difference(path, quoted(expected), quoted(actual)));
        }
    }

    private static String quoted(String text) {
        return text == null ? Difference.NOTHING : '"' + text.replace("\n", "\\n") + '"';
    }

    private void parts(String path, List<Object> expected, List<Object> actual) {
        Map<String, Integer> counts = new HashMap<>();
        for (int i = 0; i < Math.max(expected.size(), actual.size()); i++) {
            Object e = i < expected.size() ? expected.get(i) : null;
            Object a = i < actual.size() ? actual.get(i) : null;
            if (e instanceof XmlTree x && a instanceof XmlTree y && x.name().equals(y.name())) {
                compare(place(path, x, counts), x, y);
            } else if (!(e instanceof String) || !e.equals(a)) {
                String place = e instanceof XmlTree x
                        ? place(path, x, counts)
                        : a instanceof XmlTree y && e == null ? place(path, y, counts) : path;
                found.add(new Difference(place, shown(e), shown(a)));
                if (e != null && a != null) {
                    // What follows is moved against each other, so more differences would say
                    // nothing.
                    return;
                }
            }
        }
    }

    private static String place(String path, XmlTree element, Map<String, Integer> counts) {
        String name = element.name().getLocalPart();
        return path + "/" + name + "[" + counts.merge(name, 1, Integer::sum) + "]";
    }

    private static String shown(@Nullable Object part) {
        if (part == null) {
            return Difference.NOTHING;
        }
        return part instanceof XmlTree element ? "element " + element.name().getLocalPart() : quoted(part.toString());
    }
}
