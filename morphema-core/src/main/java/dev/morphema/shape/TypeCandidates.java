package dev.morphema.shape;

import dev.morphema.convert.TypeConverters;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Converter;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Which types all texts at a place fit so far. Not thread-safe. */
final class TypeCandidates {
    /** Longer texts are none of these. */
    private static final int LONGEST = 40;

    /** Bytes that a converter may look at beyond a text. */
    private static final int SPARE = 16;

    private static final List<String> DATES = List.of(
            "yyyy-MM-dd",
            "dd.MM.yyyy",
            "d.M.yyyy",
            "dd/MM/yyyy",
            "MM/dd/yyyy",
            "d/M/yyyy",
            "M/d/yyyy",
            "yyyy/MM/dd",
            "dd-MM-yyyy",
            "dd.MM.yy",
            "yyyyMMdd",
            "dd MMM yyyy",
            "d MMM yyyy");

    private static final List<String> TIMES = List.of("HH:mm", "HH:mm:ss", "HHmm", "HHmmss");

    private static final int LONG_CODE = 16;

    private static final int DAY = 8;

    private static final Pattern PLAUSIBLE_DAY = Pattern.compile("(19|20)[0-9]{6}");

    /**
     * A type.
     *
     * @param written as a mapping writes it
     * @param form tells quickly that a text is of the type; null if nothing does
     */
    private record Candidate(
            String written, Converter converter, @Nullable DateForm form) {
        private boolean isNumber() {
            return written.startsWith("number");
        }
    }

    private final List<Candidate> left = all();
    private boolean codes;
    private boolean days = true;

    private static List<Candidate> all() {
        List<Candidate> all = new ArrayList<>();
        add(all, null, "number");
        add(all, null, "number", ",");
        add(all, null, "number", ",", ".");
        add(all, null, "number", ".", ",");
        add(all, DateForm.of(DATES.get(0)), "date");
        DATES.forEach(pattern -> addDated(all, "date", pattern));
        add(all, DateForm.isoDatetime(), "datetime");
        for (String date : DATES.subList(0, DATES.size() - 3)) {
            TIMES.subList(0, 2).forEach(time -> addDated(all, "datetime", date + " " + time));
        }
        addDated(all, "datetime", "yyyyMMddHHmm");
        addDated(all, "datetime", "yyyyMMddHHmmss");
        TIMES.subList(0, 2).forEach(time -> addDated(all, "time", time));
        add(all, null, "boolean");
        return all;
    }

    private static void addDated(List<Candidate> all, String name, String pattern) {
        add(all, DateForm.of(pattern), name, pattern);
    }

    private static void add(List<Candidate> all, @Nullable DateForm form, String name, String... arguments) {
        String written = arguments.length == 0 ? name : name + "('" + String.join("', '", arguments) + "')";
        all.add(new Candidate(written, TypeConverters.converter(name, List.of(arguments)), form));
    }

    /** One more text, which is not blank. */
    void learn(String text) {
        if (left.isEmpty()) {
            return;
        }
        codes = codes || left.get(0).isNumber() && isCode(text.strip());
        days = days && text.length() == DAY && PLAUSIBLE_DAY.matcher(text).matches();
        Asked asked = new Asked(text);
        left.removeIf(candidate -> text.length() > LONGEST || !asked.fits(candidate));
    }

    /**
     * {@return whether it would lose something as a number: zeros in front, or digits of very many}
     */
    private static boolean isCode(String text) {
        int first = text.startsWith("-") || text.startsWith("+") ? 1 : 0;
        boolean zero = text.length() > first + 1 && text.charAt(first) == '0' && Digits.isDigit(text.charAt(first + 1));
        return zero || text.length() >= LONG_CODE && Digits.isAll(text);
    }

    /** A text, in the forms in which a converter may take it. */
    private static final class Asked {
        private final String text;
        private byte @Nullable [] bytes;
        private @Nullable TextValue value;

        Asked(String text) {
            this.text = text;
        }

        boolean fits(Candidate candidate) {
            if (candidate.form() != null && candidate.form().surelyTakes(text)) {
                return true;
            }
            if (value == null) {
                value = TextValue.of(text);
                byte[] encoded = text.getBytes(StandardCharsets.UTF_8);
                boolean ascii = encoded.length == text.length();
                bytes = ascii ? Arrays.copyOf(encoded, encoded.length + SPARE) : null;
            }
            return bytes != null && candidate.converter().read(bytes, 0, text.length()) != null
                    || TypeCandidates.fits(candidate.converter(), value);
        }
    }

    /** In general, which costs an exception where it does not. */
    private static boolean fits(Converter converter, Value value) {
        try {
            converter.convert(value);
            return true;
        } catch (ProblemException e) {
            return false;
        }
    }

    /** {@return the types that fit, the most likely first}; codes are no numbers. */
    List<String> written() {
        List<String> fitting = new ArrayList<>();
        for (Candidate candidate : left) {
            boolean number = candidate.isNumber();
            boolean packed = candidate.written().contains("yyyyMMdd")
                    && !candidate.written().contains(" ");
            if (number && (codes || days)
                    || packed && !days && !candidate.written().startsWith("datetime")) {
                continue;
            }
            fitting.add(candidate.written());
        }
        // What is written in the first way is in the others as well.
        return fitting.stream().anyMatch("number"::equals) ? List.of("number") : fitting;
    }
}
