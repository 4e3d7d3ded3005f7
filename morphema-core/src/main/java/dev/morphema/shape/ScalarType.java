package dev.morphema.shape;

import dev.morphema.convert.TypeConverters;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.Kind;
import dev.morphema.value.NumberValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * What a schema says of single values. Immutable.
 *
 * @param kind what a reader gives: a text, a number or a boolean
 * @param form what a text reads as, such as a date; the kind itself where nothing more is said
 * @param whole whether numbers have no decimals
 * @param codes the only values there are; empty where all of the form are
 * @param facets what else holds of each value
 */
public record ScalarType(Kind kind, Kind form, boolean whole, List<String> codes, List<Facet> facets) {
    public ScalarType {
        codes = List.copyOf(codes);
        facets = List.copyOf(facets);
    }

    /**
     * A condition of a schema that values keep.
     *
     * @param words what it asks for, such as {@code at most 35 characters}
     * @param holds whether a value, as it is written, keeps it
     */
    public record Facet(String words, Predicate<String> holds) {
        /** {@return a text of at least so many characters} */
        public static Facet shortest(int length) {
            return new Facet("at least " + characters(length), text -> size(text) >= length);
        }

        /** {@return a text of at most so many characters} */
        public static Facet longest(int length) {
            return new Facet("at most " + characters(length), text -> size(text) <= length);
        }

        /** {@return a number within a bound} */
        public static Facet bound(boolean upper, boolean inclusive, BigDecimal limit) {
            String words = (upper ? "at most " : "at least ") + limit.toPlainString();
            String beside = (upper ? "below " : "above ") + limit.toPlainString();
            return new Facet(
                    inclusive ? words : beside,
                    text -> NumberValue.parse(text)
                            .map(number -> {
                                int order = number.decimal().compareTo(limit);
                                return order == 0 ? inclusive : upper == order < 0;
                            })
                            .orElse(true));
        }

        /** {@return a number with at most so many decimals} */
        public static Facet decimals(int most) {
            return new Facet(
                    "at most " + most + (most == 1 ? " decimal" : " decimals"),
                    text -> NumberValue.parse(text)
                            .map(number -> number.decimal().stripTrailingZeros().scale() <= most)
                            .orElse(true));
        }

        private static String characters(int length) {
            return length + (length == 1 ? " character" : " characters");
        }

        private static int size(String text) {
            return text.codePointCount(0, text.length());
        }
    }

    /** {@return a type of which nothing but the kind is known} */
    public static ScalarType of(Kind kind) {
        return new ScalarType(kind, kind, false, List.of(), List.of());
    }

    /** {@return a text that reads as something else} */
    public static ScalarType text(Kind form) {
        return new ScalarType(Kind.TEXT, form, false, List.of(), List.of());
    }

    /** {@return whether values of a kind, written where this type stands, may be of it} */
    public boolean takes(Kind written, boolean textual) {
        if (kind == Kind.TEXT && (textual || isTime(written))) {
            return written == Kind.TEXT || form == Kind.TEXT || form == written;
        }
        return written == kind;
    }

    private static boolean isTime(Kind kind) {
        return kind == Kind.DATE || kind == Kind.TIME || kind == Kind.DATETIME;
    }

    /**
     * {@return what is wrong with a value that is always the same, as the end of a sentence that
     * begins with «The schema wants»; empty if it is fine}
     */
    public Optional<String> faultOf(Value value, boolean textual) {
        String text = value.toString();
        if (!takes(value.kind(), textual) || !isOfForm(text)) {
            return Optional.of(words());
        }
        if (!codes.isEmpty()) {
            return codes.contains(text) ? Optional.empty() : Optional.of("one of " + NearNames.listed(codes));
        }
        return facets.stream()
                .filter(facet -> !facet.holds().test(text))
                .map(Facet::words)
                .findFirst();
    }

    private boolean isOfForm(String text) {
        return switch (form) {
            case NUMBER ->
                NumberValue.parse(text)
                        .map(number ->
                                !whole || number.decimal().stripTrailingZeros().scale() <= 0)
                        .orElse(false);
            case BOOLEAN -> List.of("true", "false", "1", "0").contains(text);
            case DATE, TIME, DATETIME ->
                converts(TypeConverters.converter(form.name().toLowerCase(Locale.ROOT), List.of()), text);
            default -> true;
        };
    }

    private static boolean converts(Converter type, String text) {
        try {
            type.convert(TextValue.of(text));
            return true;
        } catch (ProblemException e) {
            return false;
        }
    }

    /** {@return some values of this type, as they are read} */
    List<Value> examples() {
        if (!codes.isEmpty()) {
            return codes.stream().map(this::read).toList();
        }
        return switch (form) {
            case NUMBER -> whole ? List.of(read("12")) : List.of(read("12.5"));
            case DATE -> List.of(read("2026-01-31"));
            case DATETIME -> List.of(read("2026-01-31T13:05:00Z"));
            case TIME -> List.of(read("13:05:00"));
            default -> List.of();
        };
    }

    private Value read(String text) {
        Optional<NumberValue> number = kind == Kind.NUMBER ? NumberValue.parse(text) : Optional.empty();
        return number.isPresent() ? number.get() : TextValue.of(text);
    }

    /** {@return the kind of value, as a message names it} */
    public String words() {
        return whole ? "a whole number" : form.words();
    }

    /** {@return the type with other codes} */
    public ScalarType withCodes(List<String> others) {
        return new ScalarType(kind, form, whole, others, facets);
    }

    /** {@return the type with one more facet} */
    public ScalarType with(@Nullable Facet facet) {
        if (facet == null) {
            return this;
        }
        List<Facet> more = new ArrayList<>(facets);
        more.add(facet);
        return new ScalarType(kind, form, whole, codes, more);
    }
}
