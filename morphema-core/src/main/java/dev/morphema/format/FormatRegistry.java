package dev.morphema.format;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * The formats that a mapping can use, by name. Those that are installed beside are looked for only
 * when one is asked for that is not among the others. Safe for use by many threads.
 */
public final class FormatRegistry {
    private final Map<String, SourceFormat> sources = new LinkedHashMap<>();
    private final Map<String, TargetFormat> targets = new LinkedHashMap<>();
    private final Supplier<Map<String, SourceFormat>> allSources;
    private final Supplier<Map<String, TargetFormat>> allTargets;

    /**
     * @throws IllegalArgumentException if two formats for reading, or two for writing, have the
     *     same name
     */
    public FormatRegistry(List<SourceFormat> sources, List<TargetFormat> targets) {
        this(sources, targets, List::of, List::of);
    }

    /**
     * @param moreSources finds further formats for reading; of one whose name is known already
     *     nothing is taken
     * @param moreTargets as for reading
     * @throws IllegalArgumentException if two of the formats that are given have the same name
     */
    public FormatRegistry(
            List<SourceFormat> sources,
            List<TargetFormat> targets,
            Supplier<? extends Iterable<SourceFormat>> moreSources,
            Supplier<? extends Iterable<TargetFormat>> moreTargets) {
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
        allSources = new Once<>(() -> with(this.sources, moreSources.get(), SourceFormat::name));
        allTargets = new Once<>(() -> with(this.targets, moreTargets.get(), TargetFormat::name));
    }

    private static <F> Map<String, F> with(Map<String, F> known, Iterable<F> more, Function<F, String> name) {
        Map<String, F> all = new LinkedHashMap<>(known);
        more.forEach(format -> all.putIfAbsent(name.apply(format), format));
        return all;
    }

    /** Finds something out when it is first asked for. */
    private static final class Once<T> implements Supplier<T> {
        private final Supplier<T> finder;
        private @Nullable T found;

        Once(Supplier<T> finder) {
            this.finder = finder;
        }

        @Override
        public synchronized T get() {
            T known = found;
            if (known == null) {
                known = finder.get();
                found = known;
            }
            return known;
        }
    }

    /** {@return the format of a name that can be read} */
    public Optional<SourceFormat> source(String name) {
        SourceFormat known = sources.get(name);
        return Optional.ofNullable(known == null ? allSources.get().get(name) : known);
    }

    /** {@return the format of a name that can be written} */
    public Optional<TargetFormat> target(String name) {
        TargetFormat known = targets.get(name);
        return Optional.ofNullable(known == null ? allTargets.get().get(name) : known);
    }

    /** {@return the format that says of itself that files of such a name have it} */
    public Optional<SourceFormat> byEnding(String fileName) {
        return allSources.get().values().stream()
                .filter(format -> format.endings().stream().anyMatch(fileName::endsWith))
                .findFirst();
    }

    /** {@return the names of all formats that can be read} */
    public Collection<String> sourceNames() {
        return allSources.get().keySet();
    }

    /** {@return the names of all formats that can be written} */
    public Collection<String> targetNames() {
        return allTargets.get().keySet();
    }
}
