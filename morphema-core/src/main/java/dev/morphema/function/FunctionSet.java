package dev.morphema.function;

import dev.morphema.value.Value;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/** Takes in functions. Not thread-safe. */
public final class FunctionSet {
    /** To read all signatures takes time as well, so each is read when its function is first asked for. */
    private final Map<String, Supplier<Function>> makers = new LinkedHashMap<>();

    private final Map<String, Function> functions = new HashMap<>();

    FunctionSet() {}

    /** What most functions are made of: they look at their arguments and nothing else. */
    @FunctionalInterface
    public interface Plain {
        /** {@return the result for arguments that are already of the wanted kinds} */
        Value apply(Value[] arguments);

        /** {@return the same, for who asks for nothing more} */
        default Function.Body body() {
            return (arguments, run) -> apply(arguments);
        }
    }

    /**
     * Adds a function that gives absent for absent, and null for null.
     *
     * @param signature such as {@code json(text: text): any}
     * @param plain does the work; safe for use by many threads
     * @throws IllegalArgumentException if there is a function of that name already
     */
    public void scalar(String signature, Plain plain) {
        made(signature, false, constants -> plain.body());
    }

    /** A function that is called with absent and null too. */
    void accepting(String signature, Plain plain) {
        made(signature, true, constants -> plain.body());
    }

    /** A function that asks the run for something. */
    void surrounded(String signature, Stability stability, Function.Body body) {
        add(signature, () -> new Function.Scalar(Signature.parse(signature), false, stability, constants -> body));
    }

    /** A function that prepares something for its constant arguments. */
    void made(String signature, boolean acceptsNothing, Function.Maker maker) {
        add(signature, () -> new Function.Scalar(Signature.parse(signature), acceptsNothing, Stability.PURE, maker));
    }

    /** A function over many values. */
    void aggregate(String signature, boolean passesThrough, boolean readsItems, Function.Starter starter) {
        add(
                signature,
                () -> new Function.Aggregate(Signature.parse(signature), passesThrough, readsItems, false, starter));
    }

    /** A function that tells whether there is any value. */
    void presence(String signature, Function.Starter starter) {
        add(signature, () -> new Function.Aggregate(Signature.parse(signature), false, false, true, starter));
    }

    private void add(String signature, Supplier<Function> maker) {
        String name = signature.substring(0, signature.indexOf('('));
        if (makers.putIfAbsent(name, maker) != null) {
            throw new IllegalArgumentException("There is a function " + name + " already.");
        }
    }

    boolean has(String name) {
        return makers.containsKey(name);
    }

    Optional<Function> find(String name) {
        Supplier<Function> maker = makers.get(name);
        return maker == null ? Optional.empty() : Optional.of(functions.computeIfAbsent(name, n -> maker.get()));
    }

    Collection<String> names() {
        return List.copyOf(makers.keySet());
    }
}
