package dev.morphema.xlsx;

import dev.morphema.format.Options;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.DateTimeValue;
import dev.morphema.value.DateValue;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TimeValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.dhatim.fastexcel.Worksheet;
import org.jspecify.annotations.Nullable;

/**
 * Writes the rows of one sheet. The first ones wait, for what columns there are and how wide they
 * are. Not thread-safe.
 */
final class SheetWriter {
    private static final int ROWS_TO_LOOK_AT = 200;
    private static final int ROWS_TO_KEEP = 500;
    private static final int NARROWEST = 8;
    private static final int WIDEST = 60;
    private static final int LONGEST_TEXT = 32_767;
    /** Numbers of more digits would be rounded. */
    private static final int DIGITS = 15;

    private static final double SECONDS_OF_DAY = 86_400;

    private final Worksheet sheet;
    private final Options options;
    private final Map<String, Integer> columns = new LinkedHashMap<>();
    private final List<Map<String, Value>> waiting = new ArrayList<>();
    private boolean begun;
    private int next;

    SheetWriter(Worksheet sheet, Options options) {
        this.sheet = sheet;
        this.options = options;
    }

    /** @param cells by column, in order; the writer's to keep */
    void row(Map<String, Value> cells) {
        if (!begun) {
            cells.keySet().forEach(name -> columns.putIfAbsent(name, columns.size()));
            waiting.add(cells);
            if (waiting.size() == ROWS_TO_LOOK_AT) {
                begin();
            }
            return;
        }
        write(cells);
    }

    private void begin() {
        begun = true;
        boolean header = options.isOn("header", true);
        if (header) {
            columns.forEach((name, column) -> {
                sheet.inlineString(0, column, name);
                sheet.style(0, column).bold().set();
            });
            next = 1;
            if (options.isOn("freeze", true)) {
                sheet.freezePane(0, 1);
            }
        }
        if (options.isOn("widths", true)) {
            columns.forEach((name, column) -> sheet.width(column, width(name)));
        }
        waiting.forEach(this::write);
        waiting.clear();
    }

    private double width(String column) {
        int longest = Math.max(NARROWEST, column.length());
        for (Map<String, Value> row : waiting) {
            Value value = row.get(column);
            longest = Math.max(
                    longest,
                    value == null || value.isMissing() ? 0 : value.toString().length());
        }
        return Math.min(WIDEST, longest) + 2.0;
    }

    private void write(Map<String, Value> cells) {
        if (next >= Worksheet.MAX_ROWS) {
            throw refused(
                    "A sheet has at most " + Worksheet.MAX_ROWS + " rows.", null, "part the rows into several sheets");
        }
        cells.forEach((name, value) -> {
            Integer column = columns.get(name);
            if (column == null) {
                throw refused(
                        "A field appears first in row " + (next + 1) + ", when the header was written already.",
                        name,
                        "write it in each row, with null where it has no value");
            }
            if (!value.isMissing()) {
                cell(column, value);
            }
        });
        next++;
        if (next % ROWS_TO_KEEP == 0) {
            flush();
        }
    }

    private void cell(int column, Value value) {
        if (value instanceof NumberValue number) {
            number(column, number);
        } else if (value instanceof BooleanValue truth) {
            sheet.value(next, column, truth.isTrue());
        } else if (value instanceof DateValue date) {
            sheet.value(next, column, date.date());
            sheet.style(next, column).format("yyyy-mm-dd").set();
        } else if (value instanceof TimeValue time) {
            sheet.value(next, column, time.time().toSecondOfDay() / SECONDS_OF_DAY);
            sheet.style(next, column).format("hh:mm:ss").set();
        } else if (value instanceof DateTimeValue time && time.offset() == null) {
            sheet.value(next, column, time.local());
            sheet.style(next, column).format("yyyy-mm-dd hh:mm:ss").set();
        } else {
            text(column, value.toString());
        }
    }

    /** A number that a spreadsheet would round stays a text. */
    private void number(int column, NumberValue number) {
        BigDecimal decimal = number.decimal();
        if (decimal.stripTrailingZeros().precision() > DIGITS) {
            text(column, number.toString());
            return;
        }
        sheet.value(next, column, decimal);
        if (decimal.scale() > 0) {
            sheet.style(next, column).format("0." + "0".repeat(decimal.scale())).set();
        }
    }

    /** A time with an offset, and all else that cells have no kind for, is a text too. */
    private void text(int column, String text) {
        if (text.length() > LONGEST_TEXT) {
            throw refused("A cell holds at most " + LONGEST_TEXT + " characters.", text, null);
        }
        sheet.inlineString(next, column, text);
    }

    private static ProblemException refused(String message, @Nullable String value, @Nullable String help) {
        return new ProblemException(
                Problem.error(Code.NOT_WRITABLE, message).withValue(value).withHelp(help));
    }

    private void flush() {
        try {
            sheet.flush();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    void finish() {
        if (!begun) {
            begin();
        }
        try {
            sheet.finish();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
