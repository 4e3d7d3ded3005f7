package dev.morphema.shape;

import dev.morphema.value.WhiteSpace;
import java.util.regex.Pattern;

/** Whether the texts at a place are numbers, as they stand or with a decimal comma. */
final class TextForms {
    private static final int NONE_YET = -1;
    private static final int DIFFERENT = -2;
    private static final Pattern LEADING_ZERO = Pattern.compile("\\s*0[0-9]+\\s*");
    private static final Pattern DECIMAL_COMMA = Pattern.compile("[-+]?[0-9][0-9.]*,[0-9]+");

    private boolean numbers;
    private boolean decimalCommas;
    private boolean words;
    /**
     * Of the texts that read as numbers: whether one begins with a superfluous zero, and their
     * length if it is the same.
     */
    private boolean leadingZeros;

    private int sameLength = NONE_YET;

    /**
     * One more text, which is not blank.
     *
     * @param number whether it reads as a number
     */
    void learn(String text, boolean number) {
        if (number) {
            numbers = true;
            leadingZeros = leadingZeros
                    || text.indexOf('0') >= 0 && LEADING_ZERO.matcher(text).matches();
            learnLength(Digits.isAll(text) ? text.length() : DIFFERENT);
        } else if (text.indexOf(',') >= 0
                && DECIMAL_COMMA.matcher(WhiteSpace.trim(text)).matches()) {
            decimalCommas = true;
        } else {
            words = true;
        }
    }

    private void learnLength(int length) {
        sameLength = sameLength == NONE_YET || sameLength == length ? length : DIFFERENT;
    }

    /** Learns what others have. */
    void merge(TextForms other) {
        numbers |= other.numbers;
        decimalCommas |= other.decimalCommas;
        words |= other.words;
        leadingZeros |= other.leadingZeros;
        if (other.sameLength != NONE_YET) {
            learnLength(other.sameLength);
        }
    }

    /** {@return whether some text is no number as it stands} */
    boolean haveOdd() {
        return words || decimalCommas;
    }

    /** {@return whether all texts are words, or numbers of which some have a decimal comma} */
    boolean areOdd() {
        return words ? !numbers && !decimalCommas : decimalCommas;
    }

    /** {@return whether the order of numbers as texts is not that of the numbers} */
    boolean areMisordered() {
        return !leadingZeros && sameLength == DIFFERENT;
    }
}
