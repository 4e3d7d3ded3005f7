package dev.morphema.convert;

import dev.morphema.problem.Code;
import dev.morphema.value.Converter;
import dev.morphema.value.Kind;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.math.RoundingMode;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * The types that a field, a parameter or a rule can be given: their names, arguments and
 * conversions.
 */
public final class TypeConverters {
    /** The names of all types. */
    public static final List<String> NAMES =
            List.of("text", "number", "integer", "boolean", "date", "time", "datetime");

    private TypeConverters() {}

    /**
     * {@return the conversion to a type}
     *
     * @param name one of {@link #NAMES}
     * @param arguments the texts that stand in its parentheses
     * @throws IllegalArgumentException if the arguments do not fit; the message is for the author
     */
    public static Converter converter(String name, List<String> arguments) {
        return switch (name) {
            case "text" -> {
                most(name, arguments, 0);
                yield TypeConverters::text;
            }
            case "integer" -> {
                most(name, arguments, 0);
                yield new NumberConverter(TypeConverters::integer, '.', true);
            }
            case "number" -> number(arguments);
            case "boolean" -> booleans(arguments);
            case "date" -> {
                most(name, arguments, 1);
                DatePattern pattern = pattern(arguments);
                yield new DateConverter(Kind.DATE, value -> Dates.date(value, pattern), pattern, Dates::date);
            }
            case "time" -> {
                most(name, arguments, 1);
                DatePattern pattern = pattern(arguments);
                yield new DateConverter(Kind.TIME, value -> Dates.time(value, pattern), pattern, Dates::time);
            }
            case "datetime" -> datetime(arguments);
            default -> throw new IllegalArgumentException("There is no type " + name + ".");
        };
    }

    /** {@return the kind of value that a type gives} */
    public static Kind kind(String name) {
        return name.equals("integer") ? Kind.NUMBER : Kind.valueOf(name.toUpperCase(Locale.ROOT));
    }

    private static Converter number(List<String> arguments) {
        most("number", arguments, 2);
        if (arguments.isEmpty()) {
            return new NumberConverter(value -> Numbers.number(value, ".", ""), '.', false);
        }
        String decimal = mark(arguments.get(0));
        String grouping = arguments.size() > 1 ? mark(arguments.get(1)) : "";
        if (decimal.equals(grouping)) {
            throw new IllegalArgumentException("The decimal mark and the grouping mark are the same.");
        }
        char point = decimal.charAt(0);
        Converter general = value -> Numbers.number(value, decimal, grouping);
        return point < 0x80 ? new NumberConverter(general, point, false) : general;
    }

    private static String mark(String mark) {
        if (mark.codePointCount(0, mark.length()) != 1 || Character.isDigit(mark.charAt(0))) {
            throw new IllegalArgumentException(
                    "A mark in a number is one character and no digit, as in number(',', '.').");
        }
        return mark;
    }

    private static Converter booleans(List<String> arguments) {
        if (arguments.isEmpty()) {
            return value -> Booleans.read(value, "true", "false");
        }
        if (arguments.size() != 2) {
            throw new IllegalArgumentException("boolean takes two texts, that for true and that for false.");
        }
        String yes = arguments.get(0);
        String no = arguments.get(1);
        if (yes.equals(no)) {
            throw new IllegalArgumentException("The texts for true and for false are the same.");
        }
        return value -> Booleans.read(value, yes, no);
    }

    private static Converter datetime(List<String> arguments) {
        most("datetime", arguments, 2);
        ZoneId zone = arguments.size() > 1 ? Dates.zone(arguments.get(1)) : null;
        String first = arguments.isEmpty() ? "iso" : arguments.get(0);
        if (first.equals("epoch") || first.equals("epoch ms")) {
            boolean milliseconds = first.equals("epoch ms");
            return value -> zone == null
                    ? Dates.epoch(value, milliseconds)
                    : Dates.inZone(Dates.epoch(value, milliseconds), zone);
        }
        DatePattern pattern = pattern(arguments);
        return new DateConverter(
                zone == null ? Kind.DATETIME : null,
                value -> Dates.datetime(value, pattern, zone),
                pattern,
                parsed -> Dates.datetime(parsed, zone));
    }

    private static @Nullable DatePattern pattern(List<String> arguments) {
        return arguments.isEmpty() || arguments.get(0).equals("iso") ? null : new DatePattern(arguments.get(0));
    }

    private static void most(String name, List<String> arguments, int most) {
        if (arguments.size() > most) {
            throw new IllegalArgumentException(
                    most == 0
                            ? "The type " + name + " takes nothing in parentheses."
                            : "The type " + name + " takes at most " + most + " in parentheses.");
        }
    }

    private static Value text(Value value) {
        return value instanceof TextValue ? value : TextValue.of(value.toString());
    }

    /**
     * {@return a value as a whole number}; one that is written with a fraction of zeros loses it
     */
    public static NumberValue integer(Value value) {
        NumberValue number = Numbers.number(value, ".", "");
        if (!number.isWhole()) {
            throw Faults.fault(Code.NOT_A_NUMBER, "This is not a whole number.", value, "round(x, 0) makes it one");
        }
        return number.rounded(0, RoundingMode.UNNECESSARY);
    }
}
