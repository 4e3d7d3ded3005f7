package dev.morphema.engine;

import dev.morphema.check.Binding;
import dev.morphema.check.CheckedMapping;
import dev.morphema.check.Resolution;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import dev.morphema.syntax.Stmt;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Finds the sources whose records can be read one at a time: every use of such a source is the outermost loop of some
 * target, directly or through a let of the top level. A source with any other use is kept as a whole.
 */
final class StreamFinder {
    /** The loop of a target that its source could be pushed through. */
    private record Candidate(int target, Loop loop, int source) {}

    private final CheckedMapping mapping;
    private final Resolution resolution;
    /** The references through which records are pushed. */
    private final Set<Expr.Reference> pushed = Collections.newSetFromMap(new IdentityHashMap<>());

    private final List<Candidate> candidates = new ArrayList<>();
    private final Map<Integer, Loop> loops = new HashMap<>();
    private final boolean[] streams;

    StreamFinder(CheckedMapping mapping) {
        this.mapping = mapping;
        this.resolution = mapping.resolution();
        this.streams = new boolean[mapping.sources().size()];
        for (int i = 0; i < mapping.targets().size(); i++) {
            Loop loop = outermost(mapping.targets().get(i).decl().content());
            if (loop != null) {
                int source = source(loop.first());
                if (source >= 0) {
                    candidates.add(new Candidate(i, loop, source));
                }
            }
        }
        decide();
    }

    /** {@return whether each source streams} */
    boolean[] streams() {
        return streams;
    }

    /** {@return the loop of a target that its source is pushed through, or null} */
    @Nullable
    Loop loop(int target) {
        return loops.get(target);
    }

    /** {@return the source that is pushed through a target's loop, or -1} */
    int source(int target) {
        return loops.containsKey(target) ? source(loops.get(target).first()) : -1;
    }

    /** The first loop of a target that stands directly in the document or in blocks within blocks. */
    private static @Nullable Loop outermost(Stmt.Content content) {
        if (content instanceof Stmt.Repeated repeated) {
            return repeated.loop().keyedBy() == null ? repeated.loop() : null;
        }
        return content instanceof Stmt.Nested nested ? outermost(nested.block()) : null;
    }

    private static @Nullable Loop outermost(Block block) {
        for (Stmt statement : block.statements()) {
            Loop loop = null;
            if (statement instanceof Stmt.Field field && field.presence() == Stmt.Presence.PLAIN) {
                loop = outermost(field.content());
            } else if (statement instanceof Stmt.Item item && item.content() instanceof Stmt.Repeated) {
                loop = outermost(item.content());
            }
            if (loop != null) {
                return loop;
            }
        }
        return null;
    }

    /** {@return the source that a loop goes over, also through lets, or -1} */
    private int source(Loop.Bind bind) {
        if (bind.optional() || !(bind.sequence() instanceof Expr.Reference reference)) {
            return -1;
        }
        Binding binding = resolution.binding(reference);
        if (binding instanceof Binding.Source source) {
            return source.index();
        }
        if (binding instanceof Binding.Global global
                && mapping.globals().get(global.index()).decl().value() instanceof Expr.ForEach forEach) {
            return source(forEach.loop().first());
        }
        return -1;
    }

    /** Gives up candidates until those that are left account for every use of their sources. */
    private void decide() {
        Set<Integer> refused = new HashSet<>();
        boolean changed = true;
        while (changed) {
            pushed.clear();
            candidates.stream().filter(c -> !refused.contains(c.source())).forEach(c -> push(c.loop()));
            changed = false;
            for (Candidate candidate : candidates) {
                if (!refused.contains(candidate.source()) && !accountsForAll(candidate.loop())) {
                    changed |= refused.add(candidate.source());
                }
            }
        }
        for (Candidate candidate : candidates) {
            if (!refused.contains(candidate.source())) {
                streams[candidate.source()] = true;
                loops.put(candidate.target(), candidate.loop());
            }
        }
    }

    private void push(Loop loop) {
        if (loop.first().sequence() instanceof Expr.Reference reference && pushed.add(reference)) {
            Loop next = through(reference);
            if (next != null) {
                push(next);
            }
        }
    }

    private @Nullable Loop through(Expr.Reference reference) {
        return resolution.binding(reference) instanceof Binding.Global global
                        && mapping.globals().get(global.index()).decl().value() instanceof Expr.ForEach forEach
                ? forEach.loop()
                : null;
    }

    /** Whether every use of what the loop goes over is pushed through. */
    private boolean accountsForAll(Loop loop) {
        Expr.Reference reference = (Expr.Reference) loop.first().sequence();
        Binding binding = resolution.binding(reference);
        boolean all = resolution.references().entrySet().stream()
                .filter(use -> use.getValue().equals(binding))
                .allMatch(use -> pushed.contains(use.getKey()));
        Loop next = through(reference);
        return all && (next == null || accountsForAll(next));
    }

    /** {@return whether a statement is, or leads to, the loop that streams} */
    static boolean leadsTo(Stmt statement, @Nullable Loop loop) {
        if (loop == null) {
            return false;
        }
        if (statement instanceof Stmt.Field field) {
            return leadsTo(field.content(), loop);
        }
        return statement instanceof Stmt.Item item && leadsTo(item.content(), loop);
    }

    private static boolean leadsTo(Stmt.Content content, Loop loop) {
        if (content instanceof Stmt.Repeated repeated) {
            return repeated.loop() == loop;
        }
        return content instanceof Stmt.Nested nested
                && nested.block().statements().stream().anyMatch(s -> leadsTo(s, loop));
    }
}
