package dev.morphema.engine;

import dev.morphema.check.Binding;
import dev.morphema.check.CheckedMapping;
import dev.morphema.check.Resolution;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** How sequences come to their items. */
final class AccessPaths {
    /**
     * The way from a source to the items of a sequence.
     *
     * @param path the steps from the source down to them
     * @param references the names on the way
     */
    record AccessPath(int source, List<FieldName> path, List<Expr.Reference> references) {}

    private final CheckedMapping mapping;
    private final Resolution resolution;

    AccessPaths(CheckedMapping mapping) {
        this.mapping = mapping;
        this.resolution = mapping.resolution();
    }

    /** {@return the way to what a loop goes through, or null} */
    @Nullable
    AccessPath to(Loop.Bind bind) {
        return bind.optional() ? null : to(bind.sequence());
    }

    /** {@return the way to the items of a sequence, also through lets, or null} */
    @Nullable
    AccessPath to(Expr sequence) {
        if (sequence instanceof Expr.Step step && step.axis() == Expr.Axis.FIELD) {
            AccessPath base = to(step.base());
            // A step from what a let filters or makes is no place in the source any more.
            return base == null || isMade(step.base()) || !hasPaths(base.source())
                    ? null
                    : new AccessPath(
                            base.source(),
                            with(base.path(), resolution.fieldName(step.name(), false)),
                            base.references());
        }
        if (!(sequence instanceof Expr.Reference reference)) {
            return null;
        }
        Binding binding = resolution.binding(reference);
        if (binding instanceof Binding.Source source) {
            return new AccessPath(source.index(), List.of(), List.of(reference));
        }
        Expr let = let(reference);
        AccessPath way =
                let instanceof Expr.ForEach forEach ? to(forEach.loop().first()) : let == null ? null : to(let);
        return way == null ? null : new AccessPath(way.source(), way.path(), with(way.references(), reference));
    }

    private boolean hasPaths(int source) {
        return mapping.sources().get(source).format().traits().paths();
    }

    private boolean isMade(Expr base) {
        if (base instanceof Expr.Step step) {
            return isMade(step.base());
        }
        Expr let = base instanceof Expr.Reference reference ? let(reference) : null;
        return let instanceof Expr.ForEach || let != null && isMade(let);
    }

    private @Nullable Expr let(Expr.Reference reference) {
        return resolution.binding(reference) instanceof Binding.Global global
                ? mapping.globals().get(global.index()).decl().value()
                : null;
    }

    private static <T> List<T> with(List<T> list, T item) {
        List<T> longer = new ArrayList<>(list);
        longer.add(item);
        return longer;
    }
}
