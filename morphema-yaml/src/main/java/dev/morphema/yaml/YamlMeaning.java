package dev.morphema.yaml;

import dev.morphema.format.Insertion;
import dev.morphema.format.Insertion.Existing;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/**
 * What nodes mean, however they are written: maps, lists, and scalars with their tags. Aliases are
 * what they stand for.
 */
final class YamlMeaning {
    private record Scalar(String tag, String text) {}

    private static final Object NOTHING = new Scalar("", "");

    private YamlMeaning() {}

    static Object of(@Nullable Node node) {
        if (node instanceof MappingNode mapping) {
            Map<Object, Object> entries = new LinkedHashMap<>();
            for (NodeTuple entry : mapping.getValue()) {
                entries.put(of(entry.getKeyNode()), of(entry.getValueNode()));
            }
            return entries;
        }
        if (node instanceof SequenceNode list) {
            return list.getValue().stream().map(YamlMeaning::of).toList();
        }
        if (node instanceof ScalarNode scalar && !YamlNodes.isNull(scalar)) {
            return new Scalar(scalar.getTag().getValue(), scalar.getValue());
        }
        return NOTHING;
    }

    /** {@return what a document means after a part was put in} */
    static Object with(Object document, Insertion insertion, Object part) {
        return with(document, insertion.path(), insertion.existing(), part);
    }

    private static Object with(Object at, List<String> path, Existing existing, Object part) {
        if (path.isEmpty()) {
            if (at instanceof Map<?, ?> record && part instanceof Map<?, ?> more) {
                Map<Object, Object> merged = new LinkedHashMap<>(record);
                more.forEach((key, value) -> merged.merge(
                        key,
                        value,
                        (known, other) -> known instanceof Map ? other : with(known, path, existing, other)));
                return merged;
            }
            if (at instanceof List<?> list && part instanceof List<?> more && existing == Existing.EXTENDED) {
                List<Object> all = new ArrayList<>(list);
                all.addAll(more);
                return all;
            }
            return part;
        }
        Map<Object, Object> record = new LinkedHashMap<>((Map<?, ?>) at);
        Object key = record.keySet().stream()
                .filter(known -> known instanceof Scalar scalar && scalar.text().equals(path.get(0)))
                .findFirst()
                .orElse(new Scalar("tag:yaml.org,2002:str", path.get(0)));
        Object known = record.get(key);
        record.put(key, known == null ? part : with(known, path.subList(1, path.size()), existing, part));
        return record;
    }
}
