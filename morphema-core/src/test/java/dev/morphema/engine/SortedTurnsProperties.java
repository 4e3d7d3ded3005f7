package dev.morphema.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.morphema.problem.ProblemException;
import dev.morphema.store.MemoryBudget;
import dev.morphema.store.SortedTurns;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.IntRange;
import dev.morphema.testing.Property;
import dev.morphema.value.Comparison;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/**
 * Turns come back in order, and equal ones as they came, whether they wait as they are, as bytes,
 * or spilled.
 */
class SortedTurnsProperties {
    private static final int MANY = 1_500;

    private static Value key(Random random, boolean numbers) {
        int n = random.nextInt(60);
        if (n < 3) {
            return n == 0 ? Missing.NULL : Missing.ABSENT;
        }
        return numbers
                ? NumberValue.parse(n + "." + random.nextInt(3) + "00001").orElseThrow()
                : TextValue.of(n % 2 == 0 ? "SKB-" + n * 1_000_003L : "søndre molo " + n);
    }

    private static Comparator<Value[]> order(boolean[] descending) {
        return (a, b) -> {
            for (int i = 0; i < a.length; i++) {
                int last = Boolean.compare(a[i].isMissing(), b[i].isMissing());
                int order = a[i].isMissing() || b[i].isMissing() ? last : Comparison.compare(a[i], b[i]);
                if (order != 0) {
                    return descending[i] && last == 0 ? -order : order;
                }
            }
            return 0;
        };
    }

    /** A record with the number of its turn. */
    private static RecordValue record(int number) {
        RecordBuilder record = RecordValue.builder(Layout.EMPTY, null);
        record.put(FieldName.of("number"), NumberValue.of(number));
        record.put(FieldName.of("remark"), TextValue.of("turn " + number));
        return record.build();
    }

    private static List<String> texts(List<SortedTurns.Turn> turns) {
        return turns.stream()
                .map(turn -> {
                    RecordValue record = (RecordValue) turn.names()[0];
                    return record.get(0) + " " + record.get(1) + " " + (turn.names()[1] == null);
                })
                .toList();
    }

    @Property(tries = 60)
    void asAListIsSorted(
            @ForAll long seed,
            @ForAll @IntRange(min = 1, max = 3) int keys,
            @ForAll boolean shared,
            @ForAll @IntRange(max = 2) int memory) {
        Random random = new Random(seed);
        boolean[] descending = new boolean[keys];
        boolean[] numbers = new boolean[keys];
        for (int i = 0; i < keys; i++) {
            descending[i] = random.nextBoolean();
            numbers[i] = random.nextBoolean();
        }
        long budget = memory == 0 ? 0 : memory == 1 ? 40_000 : Long.MAX_VALUE;
        Rehearsal.MemoryScratch scratch = new Rehearsal.MemoryScratch();
        SortedTurns turns = new SortedTurns(descending, order(descending), new MemoryBudget(budget, scratch));
        List<SortedTurns.Turn> all = new ArrayList<>();
        RecordValue around = record(-1);
        for (int number = 0; number < MANY; number++) {
            Value[] values = new Value[keys];
            for (int i = 0; i < keys; i++) {
                values[i] = key(random, numbers[i]);
            }
            SortedTurns.Turn turn = new SortedTurns.Turn(new Object[] {record(number), shared ? around : null}, values);
            turns.add(turn);
            all.add(turn);
        }
        all.sort(Comparator.comparing(SortedTurns.Turn::keys, order(descending)));
        List<SortedTurns.Turn> back = new ArrayList<>();
        turns.each(back::add);
        assertThat(texts(back)).isEqualTo(texts(all));
        if (shared && memory == 2) {
            // A record that stands around many turns is not there many times.
            assertThat(back).allMatch(turn -> turn.names()[1] == around);
        }
        assertThat(scratch.size() > 0).isEqualTo(memory < 2);
    }

    @Test
    void whoWantsNoMoreGetsNoMore() {
        boolean[] descending = {false};
        SortedTurns turns = new SortedTurns(
                descending, order(descending), new MemoryBudget(Long.MAX_VALUE, new Rehearsal.MemoryScratch()));
        for (int number = MANY; number > 0; number--) {
            turns.add(new SortedTurns.Turn(new Object[] {record(number)}, new Value[] {NumberValue.of(number)}));
        }
        List<String> taken = new ArrayList<>();
        turns.each(turn -> {
            taken.add(turn.keys()[0].toString());
            return taken.size() < 3;
        });
        assertThat(taken).containsExactly("1", "2", "3");
    }

    @Test
    void aNumberAmongManyTextsIsStillAProblem() {
        String[] rows = new String[MANY + 1];
        rows[0] = "k,v";
        for (int i = 1; i <= MANY; i++) {
            rows[i] = "text " + i + "," + i;
        }
        Rehearsal rehearsal = new Rehearsal("source rows: memory\n"
                        + "target o: events { for r in rows sort by (if r.v == \"700\" then 1 else r.k) => r.v }")
                .rows("rows", rows);
        ProblemException e = catchThrowableOfType(ProblemException.class, rehearsal::run);
        assertThat(e.problem().message()).contains("Values of unlike kinds cannot be sorted");
        assertThat(e.problem().rule()).isNotNull();
    }
}
