package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.store.Lookup;
import dev.morphema.syntax.Span;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.Value;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * A table whose rows are asked for when they are looked up; the last that were are kept. Not
 * thread-safe.
 */
final class AskedTable implements Lookup {
    /** So many keys are remembered with what was found. */
    private static final int MOST_KEPT = 10_000;

    private final RunState run;
    private final int source;
    private final Span span;
    private final boolean many;
    private final Map<List<Value>, Value> known = new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<List<Value>, Value> eldest) {
            return size() > MOST_KEPT;
        }
    };

    /** @param many whether there may be many rows for a key */
    AskedTable(RunState run, int source, Span span, boolean many) {
        this.run = run;
        this.source = source;
        this.span = span;
        this.many = many;
    }

    @Override
    public Value find(Value[] asked) {
        for (Value key : asked) {
            if (key.isMissing()) {
                return many ? Many.NONE : Missing.ABSENT;
            }
        }
        List<Value> key = List.of(asked);
        Value found = known.get(key);
        if (found == null) {
            found = found(run.ask(source, key), asked);
            known.put(key, found);
        }
        return found;
    }

    private Value found(List<Value> rows, Value[] asked) {
        if (many) {
            return rows.isEmpty() ? Many.NONE : Many.owned(rows);
        }
        if (rows.size() > 1) {
            throw new ProblemException(
                    span.error(Code.DUPLICATE_KEY, "A key of this table has " + rows.size() + " rows.")
                            .withValue(Arrays.stream(asked).map(Value::toString).collect(Collectors.joining(", ")))
                            .withHelp("a table with many rows for a key is declared with many"));
        }
        return rows.isEmpty() ? Missing.ABSENT : rows.get(0);
    }

    @Override
    public Many rows() {
        throw new IllegalStateException("the check refuses to go through what is asked for on demand");
    }
}
