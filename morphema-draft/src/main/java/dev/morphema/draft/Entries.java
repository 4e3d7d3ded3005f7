package dev.morphema.draft;

import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Records whose names are data: each field is an entry with a key and a value. */
final class Entries {
    static final String KEY = "key";
    static final String VALUE = "value";

    /** Names that people give to fields. */
    private static final String FIELD_LIKE = "[a-z][A-Za-z]*([_-][A-Za-z]+)*[0-9]?";

    private Entries() {}

    /**
     * {@return whether the names of some records seem to be data, as their values are all alike}
     */
    static boolean areLikely(List<Item> records) {
        return areLikely(records, Set.of());
    }

    /** @param texts of other data: names that are all among them are data too */
    static boolean areLikely(List<Item> records, Set<String> texts) {
        Set<String> names = new LinkedHashSet<>();
        List<Item> values = new ArrayList<>();
        boolean alike = true;
        boolean differ = false;
        boolean lists = true;
        for (Item record : records) {
            differ |= !names.isEmpty() && !names.equals(record.fields().keySet());
            for (Map.Entry<String, List<Item>> field : record.fields().entrySet()) {
                boolean list = record.isList(field.getKey());
                alike &= !field.getKey().startsWith("@")
                        && (list || field.getValue().size() < 2);
                lists &= list;
                names.add(field.getKey());
                values.addAll(field.getValue());
            }
            alike &= record.cell() == null;
        }
        if (!alike || names.size() < 2 || values.size() < 2) {
            return false;
        }
        if (values.stream().allMatch(Item::isRecord)) {
            return shareNames(values);
        }
        Set<Kind> kinds = kinds(values);
        boolean odd = names.stream().anyMatch(name -> !name.matches(FIELD_LIKE));
        boolean numbered = names.stream().allMatch(name -> Character.isDigit(name.charAt(0)));
        boolean data = texts.containsAll(names) || differ || lists || numbered || odd && !kinds.contains(Kind.TEXT);
        return values.stream().noneMatch(Item::isRecord) && kinds.size() == 1 && data;
    }

    private static boolean shareNames(List<Item> records) {
        Set<String> all = new HashSet<>();
        Set<String> common = new HashSet<>(records.get(0).fields().keySet());
        for (Item record : records) {
            all.addAll(record.fields().keySet());
            common.retainAll(record.fields().keySet());
        }
        return 2 * common.size() >= all.size();
    }

    private static Set<Kind> kinds(List<Item> values) {
        Set<Kind> kinds = new HashSet<>();
        values.forEach(value ->
                kinds.add(value.cell() == null ? Kind.NULL : value.cell().kind()));
        return kinds;
    }

    /** {@return all single values in some items, at any depth} */
    static Set<String> texts(List<Item> items) {
        Set<String> texts = new HashSet<>();
        for (Item item : items) {
            if (item.cell() != null) {
                texts.add(item.cell().text());
            }
            item.fields().values().forEach(held -> texts.addAll(texts(held)));
        }
        return texts;
    }

    /** {@return the entries of a record, as the function of that name gives them} */
    static List<Item> of(Item record) {
        List<Item> entries = new ArrayList<>();
        record.fields().forEach((name, held) -> {
            Item.Builder entry = Item.builder(null);
            entry.add(FieldName.of(KEY), Item.builder(Cell.text(name)).build(), false);
            held.forEach(value -> entry.add(FieldName.of(VALUE), value, record.isList(name)));
            entries.add(entry.build());
        });
        return entries;
    }
}
