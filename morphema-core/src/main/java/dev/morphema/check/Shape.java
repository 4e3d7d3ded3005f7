package dev.morphema.check;

import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What a sample shows of one place in a source: the fields, the kinds of values, and whether there
 * are many.
 */
public final class Shape {
    private static final int MOST_EXAMPLES = 100;
    private static final int NONE_YET = -1;
    private static final int DIFFERENT = -2;
    private static final Pattern LEADING_ZERO = Pattern.compile("\\s*0[0-9]+\\s*");
    private static final Pattern DIGITS = Pattern.compile("[0-9]+");
    private static final Pattern DECIMAL_COMMA = Pattern.compile("[-+]?[0-9][0-9.]*,[0-9]+");

    private final Map<FieldName, Shape> fields = new LinkedHashMap<>();
    private final Set<Kind> kinds = EnumSet.noneOf(Kind.class);
    /** Some of the values, on which a type can be tried. */
    private final Set<Value> examples = new LinkedHashSet<>();

    /** Whether some record could be used as one value: an element of XML without child elements. */
    private boolean leaves;

    /** How many records there were here, and in how many records around there was a value here. */
    private int records;

    private int present;

    private boolean many;
    private boolean list;
    private boolean numbers;
    private boolean decimalCommas;
    private boolean words;
    /**
     * Of the texts that read as numbers: whether one begins with a superfluous zero, and their
     * length if it is the same.
     */
    private boolean leadingZeros;

    private int sameLength = NONE_YET;

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
        } else if (!value.isMissing()) {
            kinds.add(value.kind());
            if (!(value instanceof TextValue text)) {
                addExample(value);
            } else {
                addExample(value);
                if (!WhiteSpace.isBlank(text.text())) {
                    learnText(text.text());
                }
            }
        }
    }

    private void addExample(Value value) {
        if (examples.size() < MOST_EXAMPLES) {
            examples.add(value);
        }
    }

    private void learnText(String text) {
        if (NumberValue.parse(text).isPresent()) {
            numbers = true;
            leadingZeros |= LEADING_ZERO.matcher(text).matches();
            int length = DIGITS.matcher(text).matches() ? text.length() : DIFFERENT;
            sameLength = sameLength == NONE_YET || sameLength == length ? length : DIFFERENT;
        } else if (DECIMAL_COMMA.matcher(WhiteSpace.trim(text)).matches()) {
            decimalCommas = true;
        } else {
            words = true;
        }
    }

    private void learnFields(RecordValue record) {
        kinds.add(Kind.RECORD);
        leaves |= record.isElement() && !record.hasChildren();
        records++;
        for (int i = 0; i < record.layout().size(); i++) {
            Shape field = fields.computeIfAbsent(record.layout().name(i), name -> new Shape());
            Value value = record.get(i);
            if (value != Missing.ABSENT) {
                field.present++;
                field.learn(value);
            }
        }
    }

    /**
     * {@return the shape of a field by its name}; a name without namespace finds it in any, and in
     * several if there are
     */
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

    /**
     * {@return the fields that a name means}: one or none, or several that only their namespaces
     * tell apart
     */
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
        leaves |= other.leaves;
        records += other.records;
        present += other.present;
        other.examples.forEach(this::addExample);
        many |= other.many;
        list |= other.list;
        numbers |= other.numbers;
        decimalCommas |= other.decimalCommas;
        words |= other.words;
        leadingZeros |= other.leadingZeros;
        if (other.sameLength != NONE_YET) {
            sameLength = sameLength == NONE_YET || sameLength == other.sameLength ? other.sameLength : DIFFERENT;
        }
    }

    /** {@return the names of the fields, as a mapping writes them} */
    Set<FieldName> names() {
        return fields.keySet();
    }

    /** {@return the shapes of all fields of a name, at any depth below this} */
    List<Shape> below(FieldName name) {
        List<Shape> found =
                new ArrayList<>(meant(name).stream().map(fields::get).toList());
        fields.values().forEach(field -> found.addAll(field.below(name)));
        return found;
    }

    /** Adds the names of all fields, at any depth below this, as a mapping writes them. */
    void addNamesBelow(Set<String> names) {
        fields.forEach((name, field) -> {
            names.add(name.toString());
            field.addNamesBelow(names);
        });
    }

    /** {@return why a type does not take some value of the sample, or null if it takes all} */
    @Nullable
    Problem refusedBy(Converter type) {
        for (Value example : examples) {
            try {
                type.convert(example);
            } catch (ProblemException e) {
                return e.problem();
            }
        }
        Shape ownText = fields.get(FieldName.OWN_TEXT);
        return ownText == null ? null : ownText.refusedBy(type);
    }

    /** {@return whether the sample shows what is here, and no field of a name in it} */
    boolean lacks(FieldName name) {
        return (isRecord() || isScalar()) && field(name) == null;
    }

    /** {@return whether the sample shows single values here, and never fields} */
    boolean isScalar() {
        return !examples.isEmpty() && !isRecord();
    }

    /** {@return whether each record of the sample that is here has a field} */
    boolean always(FieldName name) {
        Shape field = field(name);
        return field != null && field.present >= records;
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
     * {@return whether the texts here surely are not numbers as they stand}: all are words, or
     * numbers of which some have a decimal comma. Where words and numbers are mixed, the mapping
     * may well tell them apart.
     */
    boolean hasOddText() {
        return words ? !numbers && !decimalCommas : decimalCommas;
    }

    /**
     * {@return whether texts were seen that read as numbers, and whose order as texts is not that
     * of the numbers}: codes of one length, or with leading zeros, are in order as they are, and as
     * numbers would lose their zeros
     */
    boolean isMisorderedAsText() {
        return isNumeric() && !leadingZeros && sameLength == DIFFERENT;
    }

    /** {@return whether values were seen, and all were numbers or texts that read as numbers} */
    boolean isNumeric() {
        return !kinds.isEmpty()
                && !words
                && !decimalCommas
                && !kinds.contains(Kind.RECORD)
                && !kinds.contains(Kind.BOOLEAN);
    }

    /**
     * {@return the one kind of all values that were seen, or null}; elements that can stand for
     * their text are of none
     */
    @Nullable
    Kind kind() {
        return kinds.size() == 1 && !leaves ? kinds.iterator().next() : null;
    }
}
