package dev.morphema.syntax;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A {@code for} clause.
 *
 * @param span where it stands
 * @param clauses in written order; the first is always a {@link Bind}
 */
public record Loop(Span span, List<Clause> clauses) {
    public Loop {
        clauses = List.copyOf(clauses);
    }

    /** {@return the first clause} */
    public Bind first() {
        return (Bind) clauses.get(0);
    }

    /** One clause. */
    public sealed interface Clause {
        /** {@return where it stands} */
        Span span();

        /** Calls the method of the visitor for this kind of clause. */
        void accept(Visitor visitor);
    }

    /** {@code for x in sequence}, {@code for optional x in sequence}. */
    public record Bind(Span span, boolean optional, Name name, Expr sequence) implements Clause {
        @Override
        public void accept(Visitor visitor) {
            visitor.bind(this);
        }
    }

    /** {@code where condition}. */
    public record Where(Span span, Expr condition) implements Clause {
        @Override
        public void accept(Visitor visitor) {
            visitor.where(this);
        }
    }

    /** {@code let y = expr}. */
    public record Let(Span span, Name name, Expr value) implements Clause {
        @Override
        public void accept(Visitor visitor) {
            visitor.let(this);
        }
    }

    /** {@code group by k = expr, … as members}; with runs, neighbours only. */
    public record GroupBy(Span span, boolean runs, List<Key> keys, Name members) implements Clause {
        public GroupBy {
            keys = List.copyOf(keys);
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.groupBy(this);
        }
    }

    /**
     * A key of a group.
     *
     * @param span where it stands
     * @param name its name; for a bare path, the name of the last step; null if there is none to be
     *     had
     * @param value its expression
     */
    public record Key(Span span, @Nullable Name name, Expr value) {}

    /** {@code group from condition as members}. */
    public record GroupFrom(Span span, Expr condition, Name members) implements Clause {
        @Override
        public void accept(Visitor visitor) {
            visitor.groupFrom(this);
        }
    }

    /** {@code sort by expr desc, …}. */
    public record SortBy(Span span, List<SortKey> keys) implements Clause {
        public SortBy {
            keys = List.copyOf(keys);
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.sortBy(this);
        }
    }

    /** One key of a sort. */
    public record SortKey(Expr value, boolean descending) {}

    /** {@code distinct by expr, …}. */
    public record DistinctBy(Span span, List<Expr> keys) implements Clause {
        public DistinctBy {
            keys = List.copyOf(keys);
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.distinctBy(this);
        }
    }

    /** {@code numbered n}, {@code numbered n by key, …}. */
    public record Numbered(Span span, Name name, List<Expr> keys) implements Clause {
        public Numbered {
            keys = List.copyOf(keys);
        }

        @Override
        public void accept(Visitor visitor) {
            visitor.numbered(this);
        }
    }

    /** {@code take n}. */
    public record Take(Span span, Expr count) implements Clause {
        @Override
        public void accept(Visitor visitor) {
            visitor.take(this);
        }
    }

    /** {@code keyed by expr}. */
    public record KeyedBy(Span span, Expr key) implements Clause {
        @Override
        public void accept(Visitor visitor) {
            visitor.keyedBy(this);
        }
    }

    /** Does one thing for each kind of clause. */
    public interface Visitor {
        void bind(Bind bind);

        void where(Where where);

        void let(Let let);

        void groupBy(GroupBy groupBy);

        void groupFrom(GroupFrom groupFrom);

        void sortBy(SortBy sortBy);

        void distinctBy(DistinctBy distinctBy);

        void numbered(Numbered numbered);

        void take(Take take);

        void keyedBy(KeyedBy keyedBy);
    }

    /** {@return the key that makes an object of the loop, or null if it makes a list} */
    public @Nullable KeyedBy keyedBy() {
        for (Clause clause : clauses) {
            if (clause instanceof KeyedBy keyed) {
                return keyed;
            }
        }
        return null;
    }
}
