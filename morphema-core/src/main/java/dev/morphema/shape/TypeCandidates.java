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

    /** A number that would lose something if it were one: a code. */
    private static final Pattern CODE = Pattern.compile("[-+]?0[0-9]+.*|[0-9]{16,}");

    private static final Pattern PLAUSIBLE_DAY = Pattern.compile("(19|20)[0-9]{6}");

    /**
     * A type.
     *
     * @param written as a mapping writes it
     */
    private record Candidate(String written, Converter converter) {}

    private final List<Candidate> left = all();
    private boolean codes;
    private boolean days = true;

    private static List<Candidate> all() {
        List<Candidate> all = new ArrayList<>();
        add(all, "number");
        add(all, "number", ",");
        add(all, "number", ",", ".");
        add(all, "number", ".", ",");
        add(all, "date");
        DATES.forEach(pattern -> add(all, "date", pattern));
        add(all, "datetime");
        for (String date : DATES.subList(0, DATES.size() - 3)) {
            TIMES.subList(0, 2).forEach(time -> add(all, "datetime", date + " " + time));
        }
        add(all, "datetime", "yyyyMMddHHmm");
        add(all, "datetime", "yyyyMMddHHmmss");
        TIMES.subList(0, 2).forEach(time -> add(all, "time", time));
        add(all, "boolean");
        return all;
    }

    private static void add(List<Candidate> all, String name, String... arguments) {
        String written = arguments.length == 0 ? name : name + "('" + String.join("', '", arguments) + "')";
        all.add(new Candidate(written, TypeConverters.converter(name, List.of(arguments))));
    }

    /** One more text, which is not blank. */
    void learn(String text) {
        if (left.isEmpty()) {
            return;
        }
        codes = codes || CODE.matcher(text.strip()).matches();
        days = days && PLAUSIBLE_DAY.matcher(text).matches();
        TextValue value = TextValue.of(text);
        byte[] bytes = Arrays.copyOf(text.getBytes(StandardCharsets.UTF_8), text.length() + SPARE);
        boolean plain = value.isPlain();
        left.removeIf(candidate -> text.length() > LONGEST
                || !(plain && candidate.converter().read(bytes, 0, text.length()) != null)
                        && !fits(candidate.converter(), value));
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
            boolean number = candidate.written().startsWith("number");
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
