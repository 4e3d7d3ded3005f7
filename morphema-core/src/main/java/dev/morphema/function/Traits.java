package dev.morphema.function;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.Set;

/**
 * The traits of one function. Immutable.
 *
 * @param stability whether the same arguments give the same result
 * @param declared the other traits
 */
public record Traits(Stability stability, Set<Trait> declared) {
    public Traits {
        declared = Set.copyOf(declared);
    }

    /** {@return the traits of a function whose result depends on its arguments alone} */
    static Traits pure(Trait... declared) {
        return of(Stability.PURE, declared);
    }

    /** {@return the traits of a function} */
    static Traits of(Stability stability, Trait... declared) {
        EnumSet<Trait> set = EnumSet.noneOf(Trait.class);
        set.addAll(Arrays.asList(declared));
        return new Traits(stability, set);
    }

    /** {@return whether a trait is declared} */
    public boolean has(Trait trait) {
        return declared.contains(trait);
    }
}
