package dev.morphema.xlsx;

import dev.morphema.value.BooleanValue;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Locale;
import java.util.regex.Pattern;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.jspecify.annotations.Nullable;

/**
 * What stands in cells: numbers in the shortest form that is the same, dates and times by the
 * format of the cell, formulas by the value that was calculated last. An empty cell is absent.
 */
final class CellValue {
    private static final Pattern ERROR = Pattern.compile("#(?:DIV/0!|N/A|NAME\\?|NULL!|NUM!|REF!|VALUE!|SPILL!|CALC!)");
    /** What in a format is shown as it stands. */
    private static final Pattern LITERAL = Pattern.compile("\"[^\"]*\"|\\\\.|_.|\\[(?![hms]+])[^]]*]");

    private static final LocalDate START = LocalDate.of(1899, 12, 30);
    private static final LocalDate START_1904 = LocalDate.of(1904, 1, 1);
    private static final long SECONDS_OF_DAY = 86_400;

    private final boolean from1904;

    /** @param from1904 whether days count from 1904 on */
    CellValue(boolean from1904) {
        this.from1904 = from1904;
    }

    /** {@return the error that a cell shows, or null} */
    static @Nullable String error(Cell cell) {
        boolean mayBe = cell.getType() == CellType.ERROR || cell.getType() == CellType.FORMULA;
        String text = String.valueOf(cell.getRawValue());
        return mayBe && (cell.getType() == CellType.ERROR || ERROR.matcher(text).matches()) ? text : null;
    }

    /** {@return the value of a cell without an error} */
    Value of(@Nullable Cell cell) {
        Object value = cell == null ? null : cell.getValue();
        if (value instanceof BigDecimal number) {
            String format = cell.getDataFormatString();
            return format == null ? number(number) : numberOrTime(number, format);
        } else if (value instanceof Boolean truth) {
            return BooleanValue.of(truth);
        } else if (value == null || value.toString().isBlank()) {
            return Missing.ABSENT;
        }
        return TextValue.of(value.toString());
    }

    /** Cells hold binary numbers, of which some are written with all their digits. */
    private static NumberValue number(BigDecimal number) {
        String shortest = Double.toString(number.doubleValue());
        BigDecimal exact = new BigDecimal(shortest).stripTrailingZeros();
        return NumberValue.of(exact.scale() < 0 ? exact.setScale(0) : exact);
    }

    private Value numberOrTime(BigDecimal number, String format) {
        String shown = LITERAL.matcher(format).replaceAll("").toLowerCase(Locale.ROOT);
        int positive = shown.indexOf(';');
        String first = positive < 0 ? shown : shown.substring(0, positive);
        boolean date = first.indexOf('y') >= 0 || first.indexOf('d') >= 0;
        boolean time = first.indexOf('h') >= 0 || first.indexOf('s') >= 0;
        boolean month = !time && first.indexOf('m') >= 0;
        if (first.contains("general") || !date && !time && !month) {
            return number(number);
        }
        return time(number, time, date || month);
    }

    private Value time(BigDecimal number, boolean hasTime, boolean hasDate) {
        double serial = number.doubleValue();
        long days = (long) Math.floor(serial);
        long second = Math.round((serial - days) * SECONDS_OF_DAY);
        if (second == SECONDS_OF_DAY) {
            days++;
            second = 0;
        }
        LocalTime ofDay = LocalTime.ofSecondOfDay(second);
        if (!hasDate && days == 0) {
            return new TimeValue(ofDay);
        }
        // The first spreadsheets took 1900 for a leap year, and all others do so since.
        boolean before = !from1904 && days > 0 && days < 60;
        LocalDate day = (from1904 ? START_1904 : START).plusDays(before ? days + 1 : days);
        return hasTime && hasDate || second != 0
                ? new DateTimeValue(LocalDateTime.of(day, ofDay), null)
                : new DateValue(day);
    }
}
