package dev.morphema.function;

import dev.morphema.value.Nothing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;

/** Functions over many values that need no more than a few numbers to be kept up; they skip absent and null. */
final class Totals implements FunctionTable.Family {
    @Override
    public void addTo(FunctionSet functions) {
        functions.aggregate("count(items: many): number", false, false, new Tallies.Count());
        functions.aggregate("sum(items: many): number", false, true, Tallies.Sum.total());
        functions.aggregate("avg(items: many): number", false, true, Tallies.Sum.then(Totals::average));
        functions.aggregate("min(items: many): any", true, true, new Tallies.Best(-1));
        functions.aggregate("max(items: many): any", true, true, new Tallies.Best(1));
    }

    private static Value average(NumberValue total, long count) {
        return count == 0 ? Nothing.ABSENT : total.dividedBy(NumberValue.of(count));
    }
}
