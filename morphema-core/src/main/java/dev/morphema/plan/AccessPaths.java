package dev.morphema.plan;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** How sequences come to their items. */
final class AccessPaths {
    /**
     * The way from a source to the items of a sequence.
     *
     * @param scan the source, and the steps from it down to them
     * @param names the source and the lets on the way, as they are used there
     */
    record AccessPath(Scan scan, List<Term> names) {
        int source() {
            return scan.source();
        }
    }

    private final Plan plan;

    AccessPaths(Plan plan) {
        this.plan = plan;
    }

    /** {@return the way to what a loop goes through, or null} */
    @Nullable
    AccessPath to(Pipeline loop) {
        return loop.optional() ? null : to(loop.sequence());
    }

    /** {@return the way to the items of a sequence, also through lets, or null} */
    @Nullable
    AccessPath to(Term sequence) {
        if (sequence instanceof Term.Source source) {
            return new AccessPath(new Scan(source.index(), List.of()), List.of(source));
        }
        if (sequence instanceof Term.Step step && step.isToField()) {
            AccessPath base = to(step.base());
            // A step from what a let filters or makes is no place in the source any more.
            return base == null || isMade(step.base()) || !hasPaths(base.source())
                    ? null
                    : new AccessPath(new Scan(base.source(), with(base.scan().path(), step.name())), base.names());
        }
        if (!(sequence instanceof Term.Global global)) {
            return null;
        }
        Term let = plan.globals().get(global.index()).term();
        AccessPath path = let instanceof Term.Each each ? to(each.loop()) : to(let);
        return path == null ? null : new AccessPath(path.scan(), with(path.names(), global));
    }

    private boolean hasPaths(int source) {
        return plan.mapping().sources().get(source).format().traits().paths();
    }

    private boolean isMade(Term base) {
        if (base instanceof Term.Step step) {
            return isMade(step.base());
        }
        return base instanceof Term.Each
                || base instanceof Term.Global global
                        && isMade(plan.globals().get(global.index()).term());
    }

    private static <T> List<T> with(List<? extends T> list, T item) {
        List<T> longer = new ArrayList<>(list);
        longer.add(item);
        return longer;
    }
}
