package dev.morphema.store;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.testing.ForAll;
import dev.morphema.testing.From;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Ranges are found as if each were looked at, however they lie. */
class KeyRangesProperties {
    /** A range of whole numbers; an end that is null is open. */
    private record Range(@Nullable Integer low, @Nullable Integer high) {
        boolean holds(int point) {
            return (low == null || low <= point) && (high == null || point < high);
        }

        boolean overlaps(Range other) {
            return isBelow(low, other.high) && isBelow(other.low, high);
        }

        private static boolean isBelow(@Nullable Integer low, @Nullable Integer high) {
            return low == null || high == null || low < high;
        }
    }

    @Provide
    Gen<Range> ranges() {
        Gen<Integer> ends = Gens.integers().between(-9, 40).injectNull(0.1);
        // Short ones, so that many find a place.
        Gen<Range> some = Gens.integers().between(-9, 40).map(low -> new Range(low, low + 2));
        return Gens.frequencyOf(
                Gens.weighted(5, some),
                Gens.weighted(1, Gens.combine(ends, ends).as(Range::new)));
    }

    @Property(tries = 1_000)
    void eachIsFoundAsIfAllWereLookedAt(
            @ForAll List<@From("ranges") Range> ranges, @ForAll boolean many, @ForAll boolean texts) {
        KeyRanges rows = new KeyRanges(many);
        List<Range> added = new ArrayList<>();
        for (Range range : ranges) {
            Value before = rows.add(row(range), end(range.low(), texts), end(range.high(), texts));
            boolean clashes = !many && added.stream().anyMatch(range::overlaps);
            assertThat(before != null).isEqualTo(clashes);
            if (!clashes) {
                added.add(range);
            }
        }
        for (int point = -12; point < 45; point++) {
            int asked = point;
            List<Value> expected = added.stream()
                    .filter(range -> range.holds(asked))
                    .map(KeyRangesProperties::row)
                    .toList();
            assertThat(rows.find(end(point, texts))).isEqualTo(expected);
            assertThat(rows.find(end(point, !texts))).isEqualTo(expected);
        }
        assertThat(rows.find(Missing.ABSENT)).isEmpty();
    }

    private static Value row(Range range) {
        return TextValue.of(range.toString());
    }

    private static Value end(@Nullable Integer end, boolean text) {
        if (end == null) {
            return text ? TextValue.of(" ") : Missing.ABSENT;
        }
        return text ? TextValue.of(end.toString()) : NumberValue.of(end);
    }
}
