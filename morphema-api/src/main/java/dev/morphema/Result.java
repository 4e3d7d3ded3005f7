package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.Counts;
import dev.morphema.engine.Program;
import dev.morphema.engine.Run;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What a run came to: what was read and written, and what is not in the outputs. Immutable. */
public final class Result {
    private final Map<String, Long> read;
    private final Map<String, Long> written;
    private final List<Problem> warnings;
    private final Map<Problem, Long> kindsOfWarnings;
    private final List<LeftOut> leftOut;
    private final List<Missed> missed;

    Result(
            Map<String, Long> read,
            Map<String, Long> written,
            List<Problem> warnings,
            Map<Problem, Long> kindsOfWarnings,
            List<LeftOut> leftOut,
            List<Missed> missed) {
        this.read = Collections.unmodifiableMap(new LinkedHashMap<>(read));
        this.written = Collections.unmodifiableMap(new LinkedHashMap<>(written));
        this.warnings = List.copyOf(warnings);
        this.kindsOfWarnings = Collections.unmodifiableMap(new LinkedHashMap<>(kindsOfWarnings));
        this.leftOut = List.copyOf(leftOut);
        this.missed = List.copyOf(missed);
    }

    /** {@return how many records were read of each source, by its name} */
    public Map<String, Long> read() {
        return read;
    }

    /**
     * {@return how many records each target has, by its name}: the turns of its outermost loops, 1
     * for a document without
     */
    public Map<String, Long> written() {
        return written;
    }

    /** {@return the first 1,000 warnings, in the order they arose} */
    public List<Problem> warnings() {
        return warnings;
    }

    /** {@return how many warnings there were in all} */
    public long warningsInAll() {
        return kindsOfWarnings.values().stream().mapToLong(Long::longValue).sum();
    }

    /**
     * {@return how often there was each warning, in the order they first arose}; without the value
     * and the place in an input
     */
    public Map<Problem, Long> kindsOfWarnings() {
        return kindsOfWarnings;
    }

    /**
     * {@return for each {@code where} that has left out anything, in the order of the rules, how
     * much}
     */
    public List<LeftOut> leftOut() {
        return leftOut;
    }

    /**
     * {@return for each table in which look-ups found nothing, in the order of the tables, how
     * many}
     */
    public List<Missed> missed() {
        return missed;
    }

    /** What a {@code where} has left out. Immutable. */
    public static final class LeftOut {
        private final RuleLocation rule;
        private final String condition;
        private final long count;

        LeftOut(RuleLocation rule, String condition, long count) {
            this.rule = rule;
            this.condition = condition;
            this.count = count;
        }

        /** {@return where the condition stands} */
        public RuleLocation rule() {
            return rule;
        }

        /** {@return the condition, as it is written} */
        public String condition() {
            return condition;
        }

        /** {@return how many turns of its loop were left out}: records, in a loop over records */
        public long count() {
            return count;
        }
    }

    /** The look-ups in a table that found nothing. Immutable. */
    public static final class Missed {
        private final String table;
        private final long count;
        private final Map<String, Long> keys;

        Missed(String table, long count, Map<String, Long> keys) {
            this.table = table;
            this.count = count;
            this.keys = Collections.unmodifiableMap(new LinkedHashMap<>(keys));
        }

        /** {@return the name of the table} */
        public String table() {
            return table;
        }

        /** {@return how many look-ups there were, with a key, that found nothing} */
        public long count() {
            return count;
        }

        /**
         * {@return the keys that were missing most often, at most five, with how often, the most
         * frequent first}; exact where no more than 10,000 different ones were missing
         */
        public Map<String, Long> keys() {
            return keys;
        }
    }

    /** {@return what came of a run, as its caller is told} */
    static Result of(Program program, Run.Outcome outcome, Inputs inputs) {
        CheckedMapping mapping = program.mapping();
        List<Problem> warnings = new ArrayList<>();
        Counts counts = outcome.counts();
        for (Problem problem : counts.warnings()) {
            warnings.add(InputLines.shown(problem, inputs));
        }
        return new Result(
                counted(mapping.sources(), outcome.read()),
                counted(mapping.targets(), outcome.written()),
                warnings,
                counts.kindsOfWarnings(),
                counts.leftOut().stream()
                        .map(left -> new LeftOut(left.rule(), left.written(), left.count()))
                        .toList(),
                counts.missed().stream()
                        .map(missed -> new Missed(
                                mapping.tables()
                                        .get(missed.table())
                                        .decl()
                                        .name()
                                        .text(),
                                missed.count(),
                                missed.mostFrequent()))
                        .toList());
    }

    private static Map<String, Long> counted(List<? extends CheckedMapping.Declared> declared, List<Long> counts) {
        Map<String, Long> counted = new LinkedHashMap<>();
        for (int i = 0; i < counts.size(); i++) {
            counted.put(declared.get(i).decl().name().text(), counts.get(i));
        }
        return counted;
    }
}
