package dev.morphema.value;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What encoded values name by a number and leave in memory, since it is few and comes again and
 * again: layouts, names of elements, names of inputs. Not thread-safe.
 */
public final class ValueNames {
    /** By identity, which is the equality of layouts. */
    private final Map<Layout, Integer> layoutNumbers = new HashMap<>();

    private final List<Layout> layouts = new ArrayList<>();
    private final Map<FieldName, Integer> nameNumbers = new HashMap<>();
    private final List<FieldName> names = new ArrayList<>();
    private final Map<String, Integer> inputNumbers = new HashMap<>();
    private final List<String> inputs = new ArrayList<>();

    int number(Layout layout) {
        return number(layout, layoutNumbers, layouts);
    }

    int number(FieldName name) {
        return number(name, nameNumbers, names);
    }

    int number(String input) {
        return number(input, inputNumbers, inputs);
    }

    private static <T> int number(T one, Map<T, Integer> numbers, List<T> all) {
        Integer known = numbers.get(one);
        if (known != null) {
            return known;
        }
        numbers.put(one, all.size());
        all.add(one);
        return all.size() - 1;
    }

    Layout layout(int number) {
        return layouts.get(number);
    }

    FieldName name(int number) {
        return names.get(number);
    }

    String input(int number) {
        return inputs.get(number);
    }
}
