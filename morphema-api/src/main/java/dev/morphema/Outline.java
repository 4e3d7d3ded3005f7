package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.shape.Shape;
import java.util.Optional;

/**
 * What a mapping takes and gives, as far as it is known before a run: for descriptions that others
 * go by. Immutable, thread-safe. Names that the mapping does not have are known of nothing.
 */
public final class Outline {
    private final CheckedMapping mapping;

    Outline(CheckedMapping mapping) {
        this.mapping = mapping;
    }

    /** {@return what the documents of a source are like, by its samples and its schema} */
    public Optional<Shape> source(String name) {
        return Optional.ofNullable(mapping.source(name)).map(CheckedMapping.Source::shape);
    }

    /** {@return whether a source is a sequence of records} */
    public boolean isSequence(String source) {
        return Optional.ofNullable(mapping.source(source))
                .map(found -> found.isSequence()
                        || found.shape() != null && found.shape().isList())
                .orElse(false);
    }

    /** {@return the schema of a source, as the mapping names it} */
    public Optional<String> schemaOf(String source) {
        return Optional.ofNullable(mapping.source(source)).flatMap(CheckedMapping.Source::schema);
    }

    /** {@return what the documents of a target are like, by its schema} */
    public Optional<Shape> target(String name) {
        return mapping.targets().stream()
                .filter(target -> target.decl().name().text().equals(name))
                .findFirst()
                .map(CheckedMapping.Target::shape);
    }

    /** {@return the name of the type of a parameter, such as {@code number}} */
    public Optional<String> typeOf(String param) {
        return param(param).map(found -> found.decl().type().name());
    }

    /** {@return whether a run must be given a value of a parameter, since it has none by itself} */
    public boolean requires(String param) {
        return param(param).filter(found -> found.decl().fallback() == null).isPresent();
    }

    private Optional<CheckedMapping.Param> param(String name) {
        return mapping.params().stream()
                .filter(param -> param.decl().name().text().equals(name))
                .findFirst();
    }
}
