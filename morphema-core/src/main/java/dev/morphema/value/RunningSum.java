package dev.morphema.value;

import org.jspecify.annotations.Nullable;

/**
 * The exact sum of numbers that come one by one; makes no object for each as long as it has few
 * digits. Not thread-safe.
 */
public final class RunningSum {
    private long unscaled;
    private int scale;
    /** The sum, where it or a number had too many digits. */
    private @Nullable NumberValue large;

    /** Adds a number. */
    public void plus(NumberValue number) {
        if (large == null && number.largeDecimal() == null && number.scale() == scale) {
            long sum = unscaled + number.unscaled();
            if (NumberValue.isShort(sum)) {
                unscaled = sum;
                return;
            }
        }
        NumberValue sum = total().plus(number);
        large = sum.largeDecimal() == null ? null : sum;
        unscaled = sum.unscaled();
        scale = sum.scale();
    }

    /** {@return the sum so far, 0 without numbers} */
    public NumberValue total() {
        return large == null ? NumberValue.ofParts(unscaled, scale) : large;
    }
}
