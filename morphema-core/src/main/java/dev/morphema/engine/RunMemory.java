package dev.morphema.engine;

import dev.morphema.plan.Scan;
import dev.morphema.store.Membership;
import dev.morphema.value.Value;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** What one run has calculated of what is the same all through it. Not thread-safe. */
final class RunMemory {
    private final RunState run;
    private final Program program;
    private final RunState.Sources reading;
    private final Map<Node, Value> once = new HashMap<>();
    private final Map<TotalNode, TotalNode.Result> totals = new HashMap<>();
    /** The readings for totals that were begun and are not at their end. */
    private final Set<Scan> underWay = new HashSet<>();

    private final Map<KeyedItems, OnDemand<KeyedItems.Index>> indexes = new HashMap<>();
    private final Map<OperatorNodes.In, OnDemand<Membership>> members = new HashMap<>();

    RunMemory(RunState run, Program program, RunState.Sources reading) {
        this.run = run;
        this.program = program;
        this.reading = reading;
    }

    /** {@return what a rule gives} */
    Value once(Node rule, Frame frame) {
        Value value = once.get(rule);
        if (value == null) {
            value = rule.eval(frame);
            once.put(rule, value);
        }
        return value;
    }

    /**
     * {@return the values of a sequence by their keys, once they are asked for again; null if they
     * cannot be found so}
     */
    KeyedItems.@Nullable Index index(KeyedItems items, Supplier<KeyedItems.@Nullable Index> making) {
        return indexes.computeIfAbsent(items, of -> new OnDemand<>()).get(making);
    }

    /**
     * {@return the items that an {@code in} looks among, once they are asked for again; null if one
     * has none}
     */
    @Nullable
    Membership members(OperatorNodes.In in, Supplier<@Nullable Membership> making) {
        return members.computeIfAbsent(in, of -> new OnDemand<>()).get(making);
    }

    /**
     * {@return what a function came to in a reading of its source for it and others, or null if the
     * source is kept}
     */
    TotalNode.@Nullable Result total(TotalNode total, Scan pass) {
        if (!totals.containsKey(total) && reading.streams(pass)) {
            if (underWay.add(pass)) {
                calculate(pass, program.totals(pass));
                underWay.remove(pass);
            } else {
                // One that is needed to calculate another is calculated by itself.
                calculate(pass, List.of(total));
            }
        }
        return totals.get(total);
    }

    private void calculate(Scan pass, List<TotalNode> all) {
        List<TotalNode.Result> results = all.stream()
                .map(total -> total.start(new Frame(run, program.mostSlots())))
                .toList();
        run.units().apart(() -> {
            read(pass, results);
            return results;
        });
        results.forEach(TotalNode.Result::end);
        for (int i = 0; i < all.size(); i++) {
            totals.put(all.get(i), results.get(i));
        }
    }

    private void read(Scan pass, List<TotalNode.Result> results) {
        reading.each(pass, record -> {
            run.units().takeUp(() -> results.forEach(result -> result.take(record)));
            return results.stream().anyMatch(TotalNode.Result::wantsMore);
        });
    }
}
