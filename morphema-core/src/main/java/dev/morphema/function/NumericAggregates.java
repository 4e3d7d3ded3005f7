package dev.morphema.function;

import static dev.morphema.function.Trait.FORM_OF_FIRST;
import static dev.morphema.function.Trait.NUMERIC_ITEMS;
import static dev.morphema.function.Trait.ORDERS_ITEMS;
import static dev.morphema.function.Trait.READS_ITEMS;

import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;

/**
 * Functions over many values that need no more than a few numbers to be kept up; they skip absent
 * and null.
 */
final class NumericAggregates implements FunctionTable.Family {
    @Override
    public void addTo(FunctionSet functions) {
        functions.aggregate("count(items: many): number", new Tallies.Count());
        functions.aggregate("sum(items: many): number", Tallies.Sum.total(), READS_ITEMS, NUMERIC_ITEMS);
        functions.aggregate(
                "avg(items: many): number", Tallies.Sum.then(NumericAggregates::average), READS_ITEMS, NUMERIC_ITEMS);
        functions.aggregate("min(items: many): any", new Tallies.Best(-1), FORM_OF_FIRST, READS_ITEMS, ORDERS_ITEMS);
        functions.aggregate("max(items: many): any", new Tallies.Best(1), FORM_OF_FIRST, READS_ITEMS, ORDERS_ITEMS);
    }

    private static Value average(NumberValue total, long count) {
        return count == 0 ? Missing.ABSENT : total.dividedBy(NumberValue.of(count));
    }
}
