package dev.morphema.engine;

import dev.morphema.syntax.Expr;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The functions over the records of sources that stream, by the reading in which they are
 * calculated.
 */
final class SourceTotals {
    private final StreamFinder streams;
    private final Map<Program.Scan, List<TotalNode>> byPass = new LinkedHashMap<>();

    SourceTotals(StreamFinder streams) {
        this.streams = streams;
    }

    /** {@return the function, calculated while its source is read if that is possible} */
    Node of(Expr.Call call, CallNodes.Aggregate aggregate) {
        StreamFinder.Total total = streams.total(call);
        if (total == null) {
            return aggregate;
        }
        TotalNode node = new TotalNode(aggregate, total);
        byPass.computeIfAbsent(total.pass(), pass -> new ArrayList<>()).add(node);
        return node;
    }

    /**
     * {@return the functions by the readings of sources for them}, each of which is for all of its
     * functions
     */
    Map<Program.Scan, List<TotalNode>> byPass() {
        return byPass;
    }
}
