package dev.morphema.format;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The formats that mappings can name. Immutable. */
public final class FormatRegistry {
    private final Map<String, SourceFormat> sources = new LinkedHashMap<>();
    private final Map<String, TargetFormat> targets = new LinkedHashMap<>();

    /**
     * @throws IllegalArgumentException if two formats for reading, or two for writing, have the
     * same name
     */
    public FormatRegistry(List<SourceFormat> sources, List<TargetFormat> targets) {
        for (SourceFormat format : sources) {
            if (this.sources.put(format.name(), format) != null) {
                throw new IllegalArgumentException("Two formats for reading are named " + format.name() + ".");
            }
        }
        for (TargetFormat format : targets) {
            if (this.targets.put(format.name(), format) != null) {
                throw new IllegalArgumentException("Two formats for writing are named " + format.name() + ".");
            }
        }
    }

    /** {@return the format of a name that can be read} */
    public Optional<SourceFormat> source(String name) {
        return Optional.ofNullable(sources.get(name));
    }

    /** {@return the format of a name that can be written} */
    public Optional<TargetFormat> target(String name) {
        return Optional.ofNullable(targets.get(name));
    }

    /** {@return the format that says of itself that files of such a name have it} */
    public Optional<SourceFormat> byEnding(String fileName) {
        return sources.values().stream()
                .filter(format -> format.endings().stream().anyMatch(fileName::endsWith))
                .findFirst();
    }

    /** {@return the names of all formats that can be read} */
    public Collection<String> sourceNames() {
        return sources.keySet();
    }

    /** {@return the names of all formats that can be written} */
    public Collection<String> targetNames() {
        return targets.keySet();
    }
}
