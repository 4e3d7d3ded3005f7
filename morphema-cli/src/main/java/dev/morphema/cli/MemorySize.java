package dev.morphema.cli;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** Reads an amount of memory, such as {@code 64m}. */
final class MemorySize implements ITypeConverter<Long> {
    private static final Pattern SIZE = Pattern.compile("(\\d{1,9})([kmg]?)", Pattern.CASE_INSENSITIVE);
    private static final String UNITS = "kmg";

    @Override
    public Long convert(String written) {
        return number(written)
                .orElseThrow(() -> new TypeConversionException(
                        "'" + written + "' is no amount of memory, such as 500k, 64m or 2g"));
    }

    /** {@return a number with k, m or g for as many times 1024, or nothing if it is none} */
    static Optional<Long> number(String written) {
        Matcher matcher = SIZE.matcher(written);
        if (!matcher.matches()) {
            return Optional.empty();
        }
        String unit = matcher.group(2).toLowerCase(Locale.ROOT);
        int power = unit.isEmpty() ? 0 : UNITS.indexOf(unit) + 1;
        return Optional.of(Long.parseLong(matcher.group(1)) << 10 * power);
    }
}
