package dev.morphema.engine;

import dev.morphema.check.Binding;
import dev.morphema.check.CheckedMapping;
import dev.morphema.check.Resolution;
import dev.morphema.format.Projection;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Finds the sources whose records can be read one at a time: such a source, or a path into it, is
 * the outermost loop of some target, directly or through a let of the top level. Other uses of the
 * source must be of other parts of it, which are then read for themselves; if there is any use of
 * the same part, the source is kept as a whole.
 */
final class StreamFinder {
    private record Candidate(int target, Loop loop, AccessPaths.AccessPath way) {}

    /**
     * How a function over the records of a source is calculated.
     *
     * @param pass in which the records are read
     * @param steps how many steps lead from a record down to what the function takes
     */
    record Total(Program.Scan pass, int steps) {}

    private final CheckedMapping mapping;
    private final Resolution resolution;
    private final AccessPaths ways;
    private final List<Candidate> candidates = new ArrayList<>();
    private final Map<Integer, Candidate> streaming = new HashMap<>();
    private final Map<Expr.Call, Total> totals = new HashMap<>();
    private final boolean[] kept;
    /** For each source that is kept as a whole, why, and what would let it stream. */
    private final String[] reasons;
    /** For each source the name of the table that it fills, if it is used for nothing else. */
    private final @Nullable String[] filling;

    StreamFinder(CheckedMapping mapping) {
        this.mapping = mapping;
        this.resolution = mapping.resolution();
        this.ways = new AccessPaths(mapping);
        this.kept = new boolean[mapping.sources().size()];
        this.reasons = new String[kept.length];
        this.filling = new String[kept.length];
        for (int i = 0; i < mapping.targets().size(); i++) {
            Decl.Target target = mapping.targets().get(i).decl();
            Loop loop = target.split() == null ? outermost(target.content()) : target.split();
            AccessPaths.AccessPath way = loop == null ? null : ways.to(loop.first());
            if (loop != null && way != null) {
                candidates.add(new Candidate(i, loop, way));
            }
        }
        for (int source = 0; source < kept.length; source++) {
            decide(source);
        }
    }

    /** {@return the loop of a target that records are pushed through, or null} */
    @Nullable
    Loop loop(int target) {
        Candidate candidate = streaming.get(target);
        return candidate == null ? null : candidate.loop();
    }

    /** {@return what is read one at a time for a target, or null} */
    Program.@Nullable Scan pass(int target) {
        Candidate candidate = streaming.get(target);
        return candidate == null
                ? null
                : new Program.Scan(candidate.way().source(), candidate.way().path());
    }

    /**
     * {@return how a function over many is calculated while its source is read, or null if that is
     * not possible}
     */
    @Nullable
    Total total(Expr.Call call) {
        return totals.get(call);
    }

    /**
     * {@return for each source whether it, or what no loop streams of it, is read as a whole; not
     * if nothing uses it}
     */
    boolean[] kept() {
        return kept;
    }

    /** {@return for each source that is kept as a whole why that is; for others null} */
    @Nullable
    String[] reasons() {
        return reasons;
    }

    /**
     * {@return for each source the name of the table that it fills, if it is used for nothing else;
     * else null}
     */
    @Nullable
    String[] filling() {
        return filling;
    }

    private static @Nullable Loop outermost(Stmt.Content content) {
        Stmt.Repeated found = outermost(content, loop -> true);
        return found == null ? null : found.loop();
    }

    /**
     * {@return the first loop of some kind that stands directly in a document, or a turn, or in
     * blocks within blocks; or null}
     */
    static Stmt.@Nullable Repeated outermost(Stmt.Content content, Predicate<Loop> wanted) {
        if (content instanceof Stmt.Repeated repeated) {
            return wanted.test(repeated.loop()) ? repeated : null;
        }
        return content instanceof Stmt.Nested nested ? outermost(nested.block(), wanted) : null;
    }

    private static Stmt.@Nullable Repeated outermost(Block block, Predicate<Loop> wanted) {
        for (Stmt statement : block.statements()) {
            Stmt.Repeated found = null;
            if (statement instanceof Stmt.Field field && field.presence() == Stmt.Presence.PLAIN) {
                found = mayBeCopied(field, block) ? null : outermost(field.content(), wanted);
            } else if (statement instanceof Stmt.Item item && item.content() instanceof Stmt.Repeated) {
                found = outermost(item.content(), wanted);
            }
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    /** Whether a copy in the same block may write the field, in place of the one that it copies. */
    private static boolean mayBeCopied(Stmt.Field field, Block block) {
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.Copy copy) {
                boolean named = copy.names().stream()
                        .anyMatch(name -> name.text().equals(field.name().text()));
                if (copy.choice() == Stmt.Copy.Choice.ALL || named == (copy.choice() == Stmt.Copy.Choice.ONLY)) {
                    return true;
                }
            }
        }
        return false;
    }

    /**
     * All loops over one source stream, or none: what they go over must be used nowhere else, but
     * for totals.
     */
    private void decide(int source) {
        List<Candidate> here = new ArrayList<>();
        Set<List<FieldName>> paths = new HashSet<>();
        for (Candidate candidate : candidates) {
            if (candidate.way().source() == source) {
                here.add(candidate);
                paths.add(candidate.way().path());
            }
        }
        List<Expr.Reference> others = usesBeside(source, references(ways(here, List.of())));
        filling[source] = here.isEmpty() && others.size() == 1 ? filledFrom(source, others.get(0)) : null;
        if (here.isEmpty() && others.isEmpty()) {
            return;
        }
        List<TotalFinder.Found> found = new TotalFinder(mapping, ways).over(source, paths);
        if (stream(source, here, found) != null) {
            String reason = stream(source, here, List.of());
            kept[source] |= reason != null;
            reasons[source] = reason;
        }
    }

    /**
     * Lets a source stream through loops, and once more for totals, if it can; gives why it
     * cannot, or null.
     */
    private @Nullable String stream(int source, List<Candidate> here, List<TotalFinder.Found> found) {
        List<AccessPaths.AccessPath> all = ways(here, found);
        Set<Expr.Reference> pushed = references(all);
        List<Expr.Reference> others = usesBeside(source, pushed);
        if (here.isEmpty() && (found.isEmpty() || !others.isEmpty())) {
            return "why: no target's outermost loop goes over it";
        }
        String reason = reason(all, pushed, others);
        if (reason == null) {
            for (Candidate candidate : here) {
                streaming.put(candidate.target(), candidate);
            }
            for (TotalFinder.Found total : found) {
                Program.Scan pass = new Program.Scan(source, total.way().path());
                totals.put(total.call(), new Total(pass, total.steps()));
            }
            kept[source] = !others.isEmpty();
        }
        return reason;
    }

    private static List<AccessPaths.AccessPath> ways(List<Candidate> loops, List<TotalFinder.Found> totals) {
        List<AccessPaths.AccessPath> all = new ArrayList<>();
        for (Candidate loop : loops) {
            all.add(loop.way());
        }
        for (TotalFinder.Found total : totals) {
            all.add(total.way());
        }
        return all;
    }

    private static Set<Expr.Reference> references(List<AccessPaths.AccessPath> ways) {
        Set<Expr.Reference> all = Collections.newSetFromMap(new IdentityHashMap<>());
        for (AccessPaths.AccessPath way : ways) {
            all.addAll(way.references());
        }
        return all;
    }

    private List<Expr.Reference> usesBeside(int source, Set<Expr.Reference> pushed) {
        List<Expr.Reference> uses =
                usesOf(binding -> binding instanceof Binding.Source other && other.index() == source);
        uses.removeAll(pushed);
        return uses;
    }

    /** {@return the name of the table whose loop goes over a source by some use of it, or null} */
    private @Nullable String filledFrom(int source, Expr.Reference use) {
        if (!mapping.sources().get(source).isSequence()) {
            return null;
        }
        for (CheckedMapping.Table table : mapping.tables()) {
            if (table.decl() instanceof Decl.LoopTable loop
                    && loop.loop().first().sequence() == use) {
                return table.decl().name().text();
            }
        }
        return null;
    }

    /** {@return why nothing of a source can stream, or null if it can} */
    private @Nullable String reason(
            List<AccessPaths.AccessPath> here, Set<Expr.Reference> pushed, List<Expr.Reference> others) {
        for (AccessPaths.AccessPath goes : here) {
            if (isTyped(goes)) {
                return "why: the records themselves have a declared type";
            }
            for (Expr.Reference way : goes.references()) {
                Binding binding = resolution.binding(way);
                for (Expr.Reference use :
                        binding instanceof Binding.Global global ? usesOf(global) : List.<Expr.Reference>of()) {
                    if (!pushed.contains(use)) {
                        return "why: " + use.name() + " is used on line " + usedOn(use);
                    }
                }
            }
            for (Expr.Reference other : others) {
                if (!areApart(goes.path(), pathFrom(other))) {
                    return "why: it is used on line " + usedOn(other);
                }
            }
        }
        return null;
    }

    private static String usedOn(Expr.Reference use) {
        return use.span().line()
                + ", beside the outermost loop of a target\ntry: without that use, or with it in a loop of a target of its own, its records would be read one at a time";
    }

    /**
     * Whether the records themselves are converted to a declared type, which the record around them
     * does.
     */
    private boolean isTyped(AccessPaths.AccessPath way) {
        Projection at = mapping.sources().get(way.source()).projection();
        for (FieldName step : way.path()) {
            at = at.child(step);
        }
        return at.isTyped();
    }

    private List<Expr.Reference> usesOf(Binding.Global global) {
        return usesOf(binding -> binding instanceof Binding.Global other && other.index() == global.index());
    }

    private List<Expr.Reference> usesOf(Predicate<Binding> meant) {
        List<Expr.Reference> uses = new ArrayList<>();
        for (Map.Entry<Expr.Reference, Binding> use : resolution.references().entrySet()) {
            if (meant.test(use.getValue())) {
                uses.add(use.getKey());
            }
        }
        return uses;
    }

    /** {@return the steps down that are written after a name} */
    private List<FieldName> pathFrom(Expr.Reference reference) {
        List<FieldName> path = new ArrayList<>();
        for (Expr.Step step = resolution.stepFrom(reference); step != null; step = resolution.stepFrom(step)) {
            path.add(resolution.fieldName(step.name(), step.axis() == Expr.Axis.ATTRIBUTE));
        }
        return path;
    }

    /** Whether two paths part before either ends, so that nothing belongs to both. */
    private static boolean areApart(List<FieldName> a, List<FieldName> b) {
        for (int i = 0; i < Math.min(a.size(), b.size()); i++) {
            if (!a.get(i).local().equals(b.get(i).local())
                    || a.get(i).attribute() != b.get(i).attribute()) {
                return true;
            }
        }
        return false;
    }

    /** {@return whether a statement is, or leads to, the loop that streams} */
    static boolean leadsTo(Stmt statement, Loop loop) {
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
