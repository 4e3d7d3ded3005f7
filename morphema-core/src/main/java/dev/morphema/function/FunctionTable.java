package dev.morphema.function;

import dev.morphema.value.Value;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;

/** The functions of the language by name. Immutable, and safe for use by many threads. */
public final class FunctionTable {
    private static final FunctionTable STANDARD = new FunctionTable();

    /** To read all signatures takes as long as a small run, so each is read when its function is first asked for. */
    private final Map<String, Supplier<Function>> makers = new LinkedHashMap<>();

    private final Map<String, Function> functions = new ConcurrentHashMap<>();

    private FunctionTable() {
        TextFunctions.addTo(this);
        NumberFunctions.addTo(this);
        Formatting.addTo(this);
        Aggregates.addTo(this);
        TimeFunctions.addTo(this);
        Patterns.addTo(this);
        RecordFunctions.addTo(this);
        Elements.addTo(this);
        CodeFunctions.addTo(this);
        ValueFunctions.addTo(this);
    }

    /** {@return all functions that come with the language} */
    public static FunctionTable standard() {
        return STANDARD;
    }

    /**
     * {@return this table with one more function, of single values}
     *
     * @param signature such as {@code json(text: text): any}
     * @param acceptsNothing whether it is called with absent and null; if not, it gives absent for absent, and null for null
     * @param body does the work; safe for use by many threads
     * @throws IllegalArgumentException if that is no signature, or there is a function of that name already
     */
    public FunctionTable with(String signature, boolean acceptsNothing, Function.Body body) {
        Function added = new Function.Scalar(Signature.parse(signature), acceptsNothing, constants -> body);
        String name = added.signature().name();
        if (makers.containsKey(name)) {
            throw new IllegalArgumentException("There is a function " + name + " already.");
        }
        if (added.signature().parameters().stream().anyMatch(p -> p.want() == Want.MANY)) {
            throw new IllegalArgumentException("A function of your own takes single values, not many: " + signature);
        }
        FunctionTable more = new FunctionTable();
        more.makers.putAll(makers);
        more.makers.put(name, () -> added);
        return more;
    }

    /** {@return the function of a name} */
    public Optional<Function> find(String name) {
        Supplier<Function> maker = makers.get(name);
        return maker == null ? Optional.empty() : Optional.of(functions.computeIfAbsent(name, n -> maker.get()));
    }

    /** {@return the names of all functions, grouped by what they are about} */
    public Collection<String> names() {
        return makers.keySet();
    }

    /** What most functions are made of: they look at their arguments and nothing else. */
    @FunctionalInterface
    interface Plain {
        Value apply(Value[] arguments);

        default Function.Body body() {
            return (arguments, run) -> apply(arguments);
        }
    }

    /** A function that gives absent for absent, and null for null. */
    void scalar(String signature, Plain plain) {
        made(signature, false, constants -> plain.body());
    }

    /** A function that is called with absent and null too. */
    void accepting(String signature, Plain plain) {
        made(signature, true, constants -> plain.body());
    }

    /** A function that asks the run for something. */
    void surrounded(String signature, Function.Body body) {
        made(signature, false, constants -> body);
    }

    /** A function that prepares something for its constant arguments. */
    void made(String signature, boolean acceptsNothing, Function.Maker maker) {
        add(signature, () -> new Function.Scalar(Signature.parse(signature), acceptsNothing, maker));
    }

    /** A function over many values. */
    void aggregate(String signature, boolean passesThrough, boolean readsItems, Function.Starter starter) {
        add(signature, () -> new Function.Aggregate(Signature.parse(signature), passesThrough, readsItems, starter));
    }

    private void add(String signature, Supplier<Function> maker) {
        makers.put(signature.substring(0, signature.indexOf('(')), maker);
    }
}
