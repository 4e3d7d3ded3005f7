package dev.morphema.check;

import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Nothing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** What a sample shows of one place in a source: the fields, the kinds of values, and whether there are many. */
public final class Shape {
    private static final Pattern DECIMAL_COMMA = Pattern.compile("[-+]?[0-9][0-9.]*,[0-9]+");

    private final Map<FieldName, Shape> fields = new LinkedHashMap<>();
    private final Set<Kind> kinds = EnumSet.noneOf(Kind.class);
    private boolean many;
    private boolean list;
    private boolean numbers;
    private boolean decimalCommas;
    private boolean words;

    /** {@return an empty shape, which learns from values} */
    static Shape unknown() {
        return new Shape();
    }

    /** Learns from one more value. */
    void learn(Value value) {
        if (value instanceof Many repeated) {
            many = true;
            repeated.items().forEach(this::learn);
        } else if (value instanceof ListValue array) {
            list = true;
            array.items().forEach(this::learn);
        } else if (value instanceof RecordValue record) {
            learnFields(record);
        } else if (!value.isNothing()) {
            kinds.add(value.kind());
            if (value instanceof TextValue text && !WhiteSpace.isBlank(text.text())) {
                learnText(text.text());
            }
        }
    }

    private void learnText(String text) {
        if (NumberValue.parse(text).isPresent()) {
            numbers = true;
        } else if (DECIMAL_COMMA.matcher(WhiteSpace.trim(text)).matches()) {
            decimalCommas = true;
        } else {
            words = true;
        }
    }

    private void learnFields(RecordValue record) {
        kinds.add(Kind.RECORD);
        for (int i = 0; i < record.layout().size(); i++) {
            Shape field = fields.computeIfAbsent(record.layout().name(i), name -> new Shape());
            Value value = record.get(i);
            if (value != Nothing.ABSENT) {
                field.learn(value);
            }
        }
    }

    /** {@return the shape of a field by its name}; a name without namespace finds it in any, and in several if there are */
    @Nullable
    Shape field(FieldName name) {
        List<FieldName> meant = meant(name);
        if (meant.size() < 2) {
            return meant.isEmpty() ? null : fields.get(meant.get(0));
        }
        Shape all = new Shape();
        meant.forEach(field -> all.merge(fields.get(field)));
        all.many = true;
        return all;
    }

    /** {@return the fields that a name means}: one or none, or several that only their namespaces tell apart */
    List<FieldName> meant(FieldName name) {
        if (fields.containsKey(name) && (name.namespace() != null || name.attribute())) {
            return List.of(name);
        }
        return fields.keySet().stream()
                .filter(known -> name.namespace() == null
                        && known.local().equals(name.local())
                        && known.attribute() == name.attribute()
                        && !(known.attribute() && known.namespace() != null))
                .toList();
    }

    private void merge(Shape other) {
        other.fields.forEach(
                (name, field) -> fields.computeIfAbsent(name, n -> new Shape()).merge(field));
        kinds.addAll(other.kinds);
        many |= other.many;
        list |= other.list;
        numbers |= other.numbers;
        decimalCommas |= other.decimalCommas;
        words |= other.words;
    }

    /** {@return the names of the fields, as a mapping writes them} */
    Set<FieldName> names() {
        return fields.keySet();
    }

    /** {@return whether the sample shows several values side by side} */
    boolean isMany() {
        return many;
    }

    /** {@return whether the sample shows a list} */
    boolean isList() {
        return list;
    }

    /** {@return whether the sample shows fields below this place} */
    boolean isRecord() {
        return kinds.contains(Kind.RECORD);
    }

    /**
     * {@return whether the texts here surely are not numbers as they stand}: all are words, or numbers of which some have a
     * decimal comma. Where words and numbers are mixed, the mapping may well tell them apart.
     */
    boolean hasOddText() {
        return words ? !numbers && !decimalCommas : decimalCommas;
    }

    /** {@return whether values were seen, and all were numbers or texts that read as numbers} */
    boolean isNumeric() {
        return !kinds.isEmpty()
                && !words
                && !decimalCommas
                && !kinds.contains(Kind.RECORD)
                && !kinds.contains(Kind.BOOLEAN);
    }

    /** {@return the one kind of all values that were seen, or null} */
    @Nullable
    Kind kind() {
        return kinds.size() == 1 ? kinds.iterator().next() : null;
    }
}
