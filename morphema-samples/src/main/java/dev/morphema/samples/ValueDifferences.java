package dev.morphema.samples;

import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Compares values: numbers by value, records without regard to the order of their fields, lists
 * item by item.
 */
final class ValueDifferences {
    private static final int MOST_SHOWN = 60;

    private final List<Difference> found = new ArrayList<>();

    private ValueDifferences() {}

    /** {@return all places at which the actual value is not the expected one} */
    static List<Difference> between(Value expected, Value actual) {
        ValueDifferences differences = new ValueDifferences();
        differences.compare("", expected, actual);
        return differences.found;
    }

    private void compare(String path, Value expected, Value actual) {
        if (expected instanceof RecordValue e && actual instanceof RecordValue a) {
            compareFields(path, e, a);
        } else if (isList(expected) && isList(actual)) {
            compareItems(path, items(expected), items(actual));
        } else if (!same(expected, actual)) {
            found.add(new Difference(path.isEmpty() ? "/" : path, shown(expected), shown(actual)));
        }
    }

    private static boolean same(Value expected, Value actual) {
        return expected instanceof NumberValue || expected instanceof TextValue
                ? expected.equals(actual)
                : expected == actual;
    }

    private void compareFields(String path, RecordValue expected, RecordValue actual) {
        Set<FieldName> names = new LinkedHashSet<>();
        for (RecordValue record : List.of(expected, actual)) {
            for (int i = 0; i < record.layout().size(); i++) {
                names.add(record.layout().name(i));
            }
        }
        for (FieldName name : names) {
            compare(path + "/" + name, expected.get(name), actual.get(name));
        }
    }

    private void compareItems(String path, List<Value> expected, List<Value> actual) {
        for (int i = 0; i < Math.max(expected.size(), actual.size()); i++) {
            compare(
                    path + "[" + (i + 1) + "]",
                    i < expected.size() ? expected.get(i) : Missing.ABSENT,
                    i < actual.size() ? actual.get(i) : Missing.ABSENT);
        }
    }

    private static boolean isList(Value value) {
        return value instanceof ListValue || value instanceof Many;
    }

    private static List<Value> items(Value value) {
        return value instanceof ListValue list ? list.items() : ((Many) value).items();
    }

    private static String shown(Value value) {
        if (value == Missing.ABSENT) {
            return Difference.NOTHING;
        }
        if (value instanceof RecordValue) {
            return "a record";
        }
        if (isList(value)) {
            return "a list of " + items(value).size();
        }
        if (value instanceof TextValue text) {
            String quoted = '"' + text.text().replace("\n", "\\n") + '"';
            return quoted.length() > MOST_SHOWN ? quoted.substring(0, MOST_SHOWN) + "…" : quoted;
        }
        return value == Missing.NULL ? "null" : value.toString();
    }
}
