package dev.morphema.format;

import dev.morphema.value.Value;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The options that a mapping gave a format, already checked against what the format takes.
 * Immutable.
 */
public final class Options {
    /** No options: everything at its default. */
    public static final Options NONE = new Options(Map.of());

    /**
     * The option of a source that says what becomes of an input that has nothing that the mapping
     * reads.
     */
    public static final String MISMATCH = "mismatch";

    /** The value of {@link #MISMATCH} by which such an input is taken. */
    public static final String MISMATCH_ALLOW = "allow";

    private final Map<String, Object> values;
    private final Limits limits;
    private final Map<String, Value> parameters;

    /** @param values texts, integers, booleans or lists of texts, by the option's name */
    public Options(Map<String, Object> values) {
        this(values, Limits.DEFAULT, Map.of());
    }

    private Options(Map<String, Object> values, Limits limits, Map<String, Value> parameters) {
        this.values = Map.copyOf(values);
        this.limits = limits;
        this.parameters = parameters;
    }

    /** {@return these options with limits for what is read} */
    public Options within(Limits others) {
        return limits == others ? this : new Options(values, others, parameters);
    }

    /** {@return how much an input may have}; no option of a mapping, but of who runs it */
    public Limits limits() {
        return limits;
    }

    /** {@return these options with the values of the mapping's parameters in a run} */
    public Options withParameters(Map<String, Value> ofRun) {
        return new Options(values, limits, Map.copyOf(ofRun));
    }

    /** {@return the values of the mapping's parameters; none outside of a run} */
    public Map<String, Value> parameters() {
        return parameters;
    }

    /** {@return these options with one more, or another value for it} */
    public Options with(String name, Object value) {
        Map<String, Object> more = new HashMap<>(values);
        more.put(name, value);
        return new Options(more, limits, parameters);
    }

    /** {@return these options without one} */
    public Options without(String name) {
        Map<String, Object> fewer = new HashMap<>(values);
        fewer.remove(name);
        return new Options(fewer, limits, parameters);
    }

    /** {@return the text of an option, if it was given} */
    public Optional<String> text(String name) {
        return Optional.ofNullable((String) values.get(name));
    }

    /** {@return the text of an option, or its default} */
    public String text(String name, String fallback) {
        return text(name).orElse(fallback);
    }

    /** {@return the number of an option, or its default} */
    public int count(String name, int fallback) {
        return values.get(name) instanceof Integer count ? count : fallback;
    }

    /** {@return whether a switch is on} */
    public boolean isOn(String name, boolean fallback) {
        return values.get(name) instanceof Boolean on ? on : fallback;
    }

    /** {@return the texts of an option, if it was given} */
    public Optional<List<String>> texts(String name) {
        return values.get(name) instanceof List<?> list
                ? Optional.of(list.stream().map(String.class::cast).toList())
                : Optional.empty();
    }

    /** {@return the encoding, UTF-8 if none was given} */
    public Charset encoding() {
        return text("encoding").map(Charset::forName).orElse(StandardCharsets.UTF_8);
    }

    /** {@return whether an input without any field that the mapping uses is taken} */
    public boolean allowsMismatch() {
        return text(MISMATCH, "").equals(MISMATCH_ALLOW);
    }
}
