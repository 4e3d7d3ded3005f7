package dev.morphema.engine;

import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Counts what is not in the outputs of a run: warnings, look-ups that found nothing, records that
 * were left out. Not thread-safe.
 */
public final class Counts {
    /** More warnings are counted but not kept. */
    private static final int MOST_WARNINGS = 1_000;
    /** So many different keys are counted each for itself. */
    private static final int MOST_KEYS = 10_000;

    private static final int MOST_SHOWN = 5;

    private final List<Problem> warnings = new ArrayList<>();
    private final Map<Problem, Long> kinds = new LinkedHashMap<>();
    /** By where the condition stands: it may be compiled several times, for calls of a define. */
    private final Map<RuleLocation, LeftOut> leftOut = new HashMap<>();

    private final @Nullable Missed[] byTable;

    Counts(int tables) {
        byTable = new Missed[tables];
    }

    /** What a condition has left out. */
    public static final class LeftOut {
        private final Node condition;
        private long count;

        private LeftOut(Node condition) {
            this.condition = condition;
        }

        void add() {
            count++;
        }

        /** {@return where the condition stands} */
        public RuleLocation rule() {
            return condition.span().location();
        }

        /** {@return the condition as it is written} */
        public String written() {
            return condition.written();
        }

        /** {@return how many turns of a loop, mostly records, were left out} */
        public long count() {
            return count;
        }
    }

    /** The look-ups in a table that found nothing. */
    public static final class Missed {
        private final int table;
        private final Map<String, Long> keys = new LinkedHashMap<>();
        private long count;
        private long last = -1;
        private Value[] lastKey = {};

        private Missed(int table) {
            this.table = table;
        }

        private void add(Value[] key, long moment) {
            if (moment == last && Arrays.equals(key, lastKey)) {
                return;
            }
            last = moment;
            lastKey = key;
            count++;
            String written = Arrays.stream(key).map(Value::toString).collect(Collectors.joining(", "));
            if (keys.size() < MOST_KEYS || keys.containsKey(written)) {
                keys.merge(written, 1L, Long::sum);
            }
        }

        /** {@return the number of the table in the mapping, counted from 0} */
        public int table() {
            return table;
        }

        /** {@return how many there were} */
        public long count() {
            return count;
        }

        /** {@return the keys that came most often, and how often, the most frequent first} */
        public Map<String, Long> mostFrequent() {
            Map<String, Long> most = new LinkedHashMap<>();
            keys.entrySet().stream()
                    .sorted(Map.Entry.<String, Long>comparingByValue(Comparator.reverseOrder()))
                    .limit(MOST_SHOWN)
                    .forEach(key -> most.put(key.getKey(), key.getValue()));
            return most;
        }
    }

    void warn(Problem warning) {
        kinds.merge(warning.withValue(null).in(null), 1L, Long::sum);
        if (warnings.size() < MOST_WARNINGS) {
            warnings.add(warning);
        }
    }

    /**
     * A look-up has found nothing. Several with the same key in one turn of a loop count once: they
     * are for the fields of one row.
     *
     * @param moment another number for each turn
     */
    void miss(int table, Value[] key, long moment) {
        for (Value part : key) {
            if (part.isMissing()) {
                return;
            }
        }
        Missed missed = byTable[table];
        if (missed == null) {
            missed = new Missed(table);
            byTable[table] = missed;
        }
        missed.add(key, moment);
    }

    /** {@return what counts the turns that a condition leaves out} */
    LeftOut leftOutBy(Node condition) {
        return leftOut.computeIfAbsent(condition.span().location(), place -> new LeftOut(condition));
    }

    /** The first warnings, to which the places of records may still be added. */
    List<Problem> keptWarnings() {
        return warnings;
    }

    /** {@return the first warnings, in the order they arose} */
    public List<Problem> warnings() {
        return List.copyOf(warnings);
    }

    /** {@return how often there was each warning, whatever the record and value} */
    public Map<Problem, Long> kindsOfWarnings() {
        return new LinkedHashMap<>(kinds);
    }

    /**
     * {@return what was left out, for each condition that has left out anything, in the order of
     * the rules}
     */
    public List<LeftOut> leftOut() {
        return leftOut.values().stream()
                .filter(left -> left.count > 0)
                .sorted(Comparator.comparing((LeftOut left) -> left.rule().file())
                        .thenComparing(left -> left.rule().line())
                        .thenComparing(left -> left.rule().column()))
                .toList();
    }

    /** {@return the look-ups that found nothing, for each table with any} */
    public List<Missed> missed() {
        List<Missed> all = new ArrayList<>();
        for (Missed missed : byTable) {
            if (missed != null) {
                all.add(missed);
            }
        }
        return all;
    }
}
