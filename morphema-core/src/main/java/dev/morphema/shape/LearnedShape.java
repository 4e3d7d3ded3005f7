package dev.morphema.shape;

import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.value.WhiteSpace;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What samples show of one place in data: the fields, how often there is what, and what the values
 * look like. Not thread-safe while it learns.
 */
public final class LearnedShape implements Shape {
    private static final int MOST_EXAMPLES = 100;

    private final Map<FieldName, LearnedShape> fields = new LinkedHashMap<>();
    /** How many values of each kind there were. */
    private final Map<Kind, Long> kinds = new EnumMap<>(Kind.class);
    /**
     * Some of the values, on which a type can be tried, each with where the first such stood, if
     * that is known.
     */
    private final Map<Value, @Nullable Origin> examples = new LinkedHashMap<>();

    /** Where the first that was learned stood; of several side by side, if there were such. */
    private @Nullable Origin first;

    /** Where the first text stood that is no number. */
    private @Nullable Origin firstOdd;

    /** Whether some record could be used as one value: an element of XML without child elements. */
    private boolean leaves;

    /** In how many records around there was a value here. */
    private long present;

    private long missing;
    /** How many values there were in a record around that has any. */
    private long least = Long.MAX_VALUE;

    private long most;
    /** What the single values look like, if somebody wants to know. */
    private final @Nullable ValueProfile profile;

    private boolean many;
    private boolean list;
    /** How many of the values in records around were lists. */
    private long lists;

    private final TextForms texts = new TextForms();

    private LearnedShape(boolean detailed) {
        profile = detailed ? new ValueProfile() : null;
    }

    /** {@return an empty shape, which learns from values} */
    public static LearnedShape unknown() {
        return new LearnedShape(false);
    }

    /** {@return an empty shape, which also learns what the single values look like} */
    public static LearnedShape detailed() {
        return new LearnedShape(true);
    }

    /** Learns from one more value. */
    public void learn(Value value) {
        learn(value, null);
    }

    /** @param origin of the record around, if that is known */
    private void learn(Value value, @Nullable Origin origin) {
        first = first == null ? origin : first;
        if (value instanceof Many repeated) {
            first = many ? first : origin;
            many = true;
            repeated.items().forEach(item -> learn(item, origin));
        } else if (value instanceof ListValue array) {
            learnList();
            array.items().forEach(item -> learn(item, origin));
        } else if (value instanceof RecordValue record) {
            learnFields(record, record.origin() == null ? origin : record.origin());
        } else if (value.isMissing()) {
            missing++;
        } else {
            kinds.merge(value.kind(), 1L, Long::sum);
            if (profile == null || !profile.isKnown(value)) {
                learnNew(value, origin);
            }
        }
    }

    private void learnNew(Value value, @Nullable Origin origin) {
        addExample(value, origin);
        NumberValue number = ValueProfile.number(value);
        if (profile != null) {
            profile.learnNew(value, number);
        }
        if (value instanceof TextValue text && !WhiteSpace.isBlank(text.text())) {
            texts.learn(text.text(), number != null);
            firstOdd = firstOdd == null && texts.haveOdd() ? origin : firstOdd;
        }
    }

    private void addExample(Value value, @Nullable Origin origin) {
        if (examples.size() < MOST_EXAMPLES) {
            examples.putIfAbsent(value, origin);
        }
    }

    private void learnFields(RecordValue record, @Nullable Origin origin) {
        first = first == null ? origin : first;
        learnRecord();
        leaves |= record.isElement() && !record.hasChildren();
        for (int i = 0; i < record.layout().size(); i++) {
            LearnedShape field = fieldOf(
                    record.layout().name(i), i == 0 ? null : record.layout().name(i - 1));
            Value value = record.get(i);
            if (value != Missing.ABSENT) {
                field.learn(value, origin);
                field.learnPresence(count(value));
            }
        }
    }

    private static long count(Value value) {
        return value instanceof Many several
                ? several.items().size()
                : value instanceof ListValue array ? array.items().size() : 1;
    }

    /** There is one more record here. */
    void learnRecord() {
        kinds.merge(Kind.RECORD, 1L, Long::sum);
    }

    /**
     * A record here has a text of its own, which is what it looks like where others are single
     * values.
     */
    void learnOwn(Value text) {
        if (profile != null) {
            profile.learn(text);
        }
    }

    /** There is a list here. */
    void learnList() {
        list = true;
        lists++;
    }

    /** One more record around has so many values here. */
    void learnPresence(long values) {
        present++;
        least = Math.min(least, values);
        most = Math.max(most, values);
        many |= values > 1 && !list;
    }

    /**
     * {@return the shape of a field of exactly that name}; one that is new stands behind another.
     *
     * @param before the field that came before it in the record; null if it is the first
     */
    LearnedShape fieldOf(FieldName name, @Nullable FieldName before) {
        LearnedShape known = fields.get(name);
        if (known != null) {
            return known;
        }
        LearnedShape made = new LearnedShape(profile != null);
        Map<FieldName, LearnedShape> behind = new LinkedHashMap<>();
        boolean passed = before == null;
        for (Map.Entry<FieldName, LearnedShape> field : fields.entrySet()) {
            if (passed) {
                behind.put(field.getKey(), field.getValue());
            }
            passed |= field.getKey().equals(before);
        }
        fields.keySet().removeAll(behind.keySet());
        fields.put(name, made);
        fields.putAll(behind);
        return made;
    }

    /** {@return the shape of a field of exactly that name}, which is known from now on. */
    LearnedShape fieldOf(FieldName name) {
        return fields.computeIfAbsent(name, n -> new LearnedShape(profile != null));
    }

    /**
     * {@return the shape of a field by its name}; a name without namespace finds it in any, and in
     * several if there are
     */
    @Override
    @Nullable
    public LearnedShape field(FieldName name) {
        List<FieldName> meant = meant(name);
        if (meant.size() < 2) {
            return meant.isEmpty() ? null : fields.get(meant.get(0));
        }
        LearnedShape all = new LearnedShape(false);
        meant.forEach(field -> all.merge(fields.get(field)));
        all.many = true;
        return all;
    }

    private void merge(LearnedShape other) {
        other.fields.forEach((name, field) ->
                fields.computeIfAbsent(name, n -> new LearnedShape(false)).merge(field));
        other.kinds.forEach((kind, count) -> kinds.merge(kind, count, Long::sum));
        leaves |= other.leaves;
        present += other.present;
        missing += other.missing;
        least = Math.min(least, other.least);
        most = Math.max(most, other.most);
        other.examples.forEach(this::addExample);
        first = first == null ? other.first : first;
        firstOdd = firstOdd == null ? other.firstOdd : firstOdd;
        many |= other.many;
        list |= other.list;
        lists += other.lists;
        texts.merge(other.texts);
    }

    @Override
    public String origin() {
        return "sample";
    }

    @Override
    public @Nullable InputLocation place() {
        Origin shown = firstOdd == null || many ? first : firstOdd;
        return shown == null ? null : shown.location(null);
    }

    /** A sample shows what there is, and never that there cannot be more. */
    @Override
    public boolean isClosed() {
        return false;
    }

    @Override
    public Set<FieldName> names() {
        return fields.keySet();
    }

    /** {@return the shapes of all fields of a name, at any depth below this} */
    @Override
    public List<LearnedShape> below(FieldName name) {
        List<LearnedShape> found =
                new ArrayList<>(meant(name).stream().map(fields::get).toList());
        fields.values().forEach(field -> found.addAll(field.below(name)));
        return found;
    }

    /** Adds the names of all fields, at any depth below this, as a mapping writes them. */
    @Override
    public void addNamesBelow(Set<String> names) {
        fields.forEach((name, field) -> {
            names.add(name.toString());
            field.addNamesBelow(names);
        });
    }

    /** {@return why a type does not take some value of the sample, or null if it takes all} */
    @Override
    @Nullable
    public Problem refusedBy(Converter type) {
        for (Map.Entry<Value, @Nullable Origin> example : examples.entrySet()) {
            try {
                type.convert(example.getKey());
            } catch (ProblemException e) {
                Origin origin = example.getValue();
                return e.problem().in(origin == null ? null : origin.location(null));
            }
        }
        LearnedShape ownText = fields.get(FieldName.OWN_TEXT);
        return ownText == null ? null : ownText.refusedBy(type);
    }

    /** {@return whether the sample shows what is here, and no field of a name in it} */
    @Override
    public boolean lacks(FieldName name) {
        return (isRecord() || isScalar()) && field(name) == null;
    }

    /** {@return whether the sample shows single values here, and never fields} */
    @Override
    public boolean isScalar() {
        return !examples.isEmpty() && !isRecord();
    }

    /** {@return whether each value of the sample that is here is a record with a field} */
    @Override
    public boolean always(FieldName name) {
        LearnedShape field = field(name);
        return field != null && field.present >= values();
    }

    /** {@return whether the sample shows several values side by side} */
    @Override
    public boolean isMany() {
        return many;
    }

    /** {@return whether the sample shows a list} */
    @Override
    public boolean isList() {
        return list;
    }

    /** {@return whether the sample shows fields below this place} */
    @Override
    public boolean isRecord() {
        return kinds.containsKey(Kind.RECORD);
    }

    /**
     * {@return whether the texts here surely are not numbers as they stand}: all are words, or
     * numbers of which some have a decimal comma. Where words and numbers are mixed, the mapping
     * may well tell them apart.
     */
    @Override
    public boolean hasOddText() {
        return texts.areOdd();
    }

    /**
     * {@return whether texts were seen that read as numbers, and whose order as texts is not that
     * of the numbers}: codes of one length, or with leading zeros, are in order as they are, and as
     * numbers would lose their zeros
     */
    @Override
    public boolean isMisorderedAsText() {
        return isNumeric() && texts.areMisordered();
    }

    /** {@return whether values were seen, and all were numbers or texts that read as numbers} */
    @Override
    public boolean isNumeric() {
        return !kinds.isEmpty()
                && !texts.haveOdd()
                && !kinds.containsKey(Kind.RECORD)
                && !kinds.containsKey(Kind.BOOLEAN);
    }

    /**
     * {@return the one kind of all values that were seen, or null}; elements that can stand for
     * their text are of none
     */
    @Override
    @Nullable
    public Kind kind() {
        return kinds.size() == 1 && !leaves ? kinds.keySet().iterator().next() : null;
    }

    @Override
    public @Nullable Kind form() {
        return isNumeric() ? Kind.NUMBER : null;
    }

    /** {@return how many values of each kind there were} */
    public Map<Kind, Long> kinds() {
        return new EnumMap<>(kinds);
    }

    /** {@return how many values there were here, of whatever kind} */
    public long values() {
        return kinds.values().stream().mapToLong(Long::longValue).sum() + missing;
    }

    /** {@return how many of the records around have a value here} */
    public long present() {
        return present;
    }

    /** {@return how many lists there were here} */
    public long lists() {
        return lists;
    }

    /** {@return how many values are null} */
    public long nulls() {
        return missing;
    }

    /** {@return the fewest values in a record around that has any, 0 if none has} */
    public long least() {
        return most == 0 ? 0 : least;
    }

    /** {@return the most values in a record around} */
    public long most() {
        return most;
    }

    /** {@return what the single values look like}; empty if that was not to be learned. */
    public Optional<ValueProfile> profile() {
        return Optional.ofNullable(profile);
    }
}
