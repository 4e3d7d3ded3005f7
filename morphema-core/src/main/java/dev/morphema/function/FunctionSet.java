package dev.morphema.function;

import dev.morphema.value.Converter;
import dev.morphema.value.Value;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/** Takes in functions. Not thread-safe. */
public final class FunctionSet {
    /**
     * To read all signatures takes time as well, so each is read when its function is first asked
     * for.
     */
    private final Map<String, Supplier<Function>> makers = new LinkedHashMap<>();

    private final Map<String, Function> functions = new HashMap<>();
    private final Map<String, Converter> documentTypes = new LinkedHashMap<>();

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
     * Adds a function of single values whose result depends on them alone.
     *
     * @param signature such as {@code json(text: text): any}
     * @param plain does the work; safe for use by many threads
     * @param traits what may be relied on about it; none of these: it gives absent for absent, and
     *     null for null
     * @throws IllegalArgumentException if there is a function of that name already
     */
    public void scalar(String signature, Plain plain, Trait... traits) {
        made(signature, constants -> plain.body(), traits);
    }

    /**
     * Adds a function of single values that asks the run for something.
     *
     * @param signature such as {@code json(text: text): any}
     * @param stability whether the same arguments give the same result
     * @param body does the work; safe for use by many threads
     * @param traits what else may be relied on about it
     * @throws IllegalArgumentException if there is a function of that name already
     */
    public void surrounded(String signature, Stability stability, Function.Body body, Trait... traits) {
        add(
                signature,
                () -> new Function.Scalar(Signature.parse(signature), Traits.of(stability, traits), constants -> body));
    }

    /** Adds a function that prepares something for its constant arguments. */
    void made(String signature, Function.Maker maker, Trait... traits) {
        add(signature, () -> new Function.Scalar(Signature.parse(signature), Traits.pure(traits), maker));
    }

    /** Adds a function over many values. */
    void aggregate(String signature, Function.Starter starter, Trait... traits) {
        add(signature, () -> new Function.Aggregate(Signature.parse(signature), Traits.pure(traits), starter));
    }

    /**
     * Adds a type of fields whose texts are documents of their own.
     *
     * @param name of the type
     * @param reader gives what a text holds; safe for use by many threads
     */
    public void documentType(String name, Converter reader) {
        documentTypes.put(name, reader);
    }

    Map<String, Converter> documentTypes() {
        return Collections.unmodifiableMap(documentTypes);
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
