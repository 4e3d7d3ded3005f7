package dev.morphema.function;

import dev.morphema.value.Converter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The functions of the language by name. Safe for use by many threads; what it finds never changes.
 *
 * <p>To make all functions takes as long as a small run. So families of them are made one after the
 * other, until one has the function that is asked for.
 */
public final class FunctionTable {
    /** Those that most mappings use come first. */
    private static final FunctionTable STANDARD = new FunctionTable(List.of(
            new NumericAggregates(),
            new NumberFunctions(),
            new Aggregates(),
            new ValueFunctions(),
            new TextFunctions(),
            new Formatting(),
            new TimeFunctions(),
            new Patterns(),
            new RecordFunctions(),
            new Elements(),
            new CodeFunctions()));

    /** Functions that are about the same. */
    @FunctionalInterface
    public interface Family {
        /** Adds all of them to a set. */
        void addTo(FunctionSet functions);
    }

    private final List<Family> families;
    private final FunctionSet made = new FunctionSet();
    private int familiesMade;

    private FunctionTable(List<Family> families) {
        this.families = List.copyOf(families);
    }

    /** {@return all functions that come with the language} */
    public static FunctionTable standard() {
        return STANDARD;
    }

    /**
     * {@return this table with further functions}; a name that is there already is found to be so
     * when it is asked for
     */
    public FunctionTable with(Family family) {
        List<Family> more = new ArrayList<>(families);
        more.add(family);
        return new FunctionTable(more);
    }

    /**
     * {@return this table with one more function, of single values}
     *
     * @param signature such as {@code json(text: text): any}
     * @param stability whether the same arguments give the same result
     * @param body does the work; safe for use by many threads
     * @param traits what else may be relied on about it
     * @throws IllegalArgumentException if that is no signature, or there is a function of that name
     *     already
     */
    public FunctionTable with(String signature, Stability stability, Function.Body body, Trait... traits) {
        Signature parsed = Signature.parse(signature);
        if (parsed.parameters().stream().anyMatch(p -> p.kind() == ParameterKind.MANY)) {
            throw new IllegalArgumentException("A function of your own takes single values, not many: " + signature);
        }
        FunctionTable more = with(functions -> functions.surrounded(signature, stability, body, traits));
        more.names();
        return more;
    }

    /** {@return the function of a name} */
    public synchronized Optional<Function> find(String name) {
        while (!made.has(name) && familiesMade < families.size()) {
            families.get(familiesMade++).addTo(made);
        }
        return made.find(name);
    }

    /** {@return the types of fields whose texts are documents of their own, by name} */
    public synchronized Map<String, Converter> documentTypes() {
        names();
        return made.documentTypes();
    }

    /** {@return the names of all functions, grouped by what they are about} */
    public synchronized Collection<String> names() {
        while (familiesMade < families.size()) {
            families.get(familiesMade++).addTo(made);
        }
        return made.names();
    }
}
