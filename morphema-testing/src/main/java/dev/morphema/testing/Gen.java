package dev.morphema.testing;

import java.lang.reflect.Array;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * Makes values at random. Immutable.
 *
 * @param <T> what it makes
 */
@FunctionalInterface
public interface Gen<T> {
    /** {@return the next value} */
    T next(Random random);

    /** {@return what each value is made into} */
    default <U> Gen<U> map(Function<? super T, ? extends U> to) {
        return random -> to.apply(next(random));
    }

    /** {@return a value of what each value says how to make} */
    default <U> Gen<U> flatMap(Function<? super T, ? extends Gen<? extends U>> to) {
        return random -> to.apply(next(random)).next(random);
    }

    /** {@return the values for which a condition holds, which must be some of many} */
    default Gen<T> filter(Predicate<? super T> wanted) {
        return random -> {
            for (int tries = 0; tries < 10_000; tries++) {
                T value = next(random);
                if (wanted.test(value)) {
                    return value;
                }
            }
            throw new IllegalStateException("the condition holds for next to no value");
        };
    }

    /** {@return null at times, with a probability from 0 to 1} */
    default Gen<T> injectNull(double probability) {
        return random -> random.nextDouble() < probability ? null : next(random);
    }

    /** {@return lists of such values} */
    default Many<List<T>> list() {
        return new Many<>((random, size) -> {
            List<T> list = new ArrayList<>(size);
            for (int i = 0; i < size; i++) {
                list.add(next(random));
            }
            return list;
        });
    }

    /** {@return sets of such values; smaller than asked for where the values repeat} */
    default Many<Set<T>> set() {
        return new Many<>((random, size) -> {
            Set<T> set = new LinkedHashSet<>();
            for (int tries = 0; set.size() < size && tries < size * 100; tries++) {
                set.add(next(random));
            }
            return set;
        });
    }

    /** {@return arrays of such values} */
    default <A> Many<A> array(Class<A> type) {
        return new Many<>((random, size) -> {
            Object array = Array.newInstance(type.getComponentType(), size);
            for (int i = 0; i < size; i++) {
                Array.set(array, i, next(random));
            }
            return type.cast(array);
        });
    }

    /**
     * Collections of some size, empty and full ones more often.
     *
     * @param <C> what they are
     */
    final class Many<C> implements Gen<C> {
        private static final int USUALLY_AT_MOST = 20;

        /** Makes a collection of a size. */
        @FunctionalInterface
        interface Maker<C> {
            C make(Random random, int size);
        }

        private final Maker<C> maker;
        private final int least;
        private final int most;

        Many(Maker<C> maker) {
            this(maker, 0, USUALLY_AT_MOST);
        }

        private Many(Maker<C> maker, int least, int most) {
            this.maker = maker;
            this.least = least;
            this.most = Math.max(least, most);
        }

        public Many<C> ofSize(int size) {
            return new Many<>(maker, size, size);
        }

        public Many<C> ofMinSize(int size) {
            return new Many<>(maker, size, most);
        }

        public Many<C> ofMaxSize(int size) {
            return new Many<>(maker, least, size);
        }

        @Override
        public C next(Random random) {
            return maker.make(random, Gens.size(random, least, most));
        }
    }
}
