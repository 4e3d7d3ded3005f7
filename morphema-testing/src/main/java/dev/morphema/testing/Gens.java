package dev.morphema.testing;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Supplier;

/**
 * What makes values of common types. Values at the ends of what there is come more often than
 * others.
 */
public final class Gens {
    /** So often, of a hundred, a value is one at the end of what there is. */
    private static final int EDGES = 10;

    private Gens() {}

    static boolean atEdge(Random random) {
        return random.nextInt(100) < EDGES;
    }

    static int size(Random random, int least, int most) {
        if (atEdge(random)) {
            return random.nextBoolean() ? least : most;
        }
        return least + random.nextInt(most - least + 1);
    }

    /** {@return one of some values} */
    @SafeVarargs
    public static <T> Gen<T> of(T... values) {
        return random -> values[random.nextInt(values.length)];
    }

    /** {@return one of some values} */
    public static <T> Gen<T> of(Collection<T> values) {
        List<T> all = new ArrayList<>(values);
        return random -> all.get(random.nextInt(all.size()));
    }

    /** {@return a value of one of some kinds} */
    @SafeVarargs
    public static <T> Gen<T> oneOf(Gen<? extends T>... kinds) {
        return random -> kinds[random.nextInt(kinds.length)].next(random);
    }

    /**
     * {@return as {@link #oneOf}, of kinds that are made only when they are asked for, so that they
     * can hold one another}
     */
    @SafeVarargs
    public static <T> Gen<T> lazyOf(Supplier<Gen<T>>... kinds) {
        return random -> kinds[random.nextInt(kinds.length)].get().next(random);
    }

    /** {@return a kind that is made only when it is asked for} */
    public static <T> Gen<T> lazy(Supplier<Gen<T>> kind) {
        return random -> kind.get().next(random);
    }

    /** One of several kinds, and how often it comes in relation to the others. */
    public record Weighted<T>(int weight, Gen<? extends T> gen) {}

    public static <T> Weighted<T> weighted(int weight, Gen<? extends T> gen) {
        return new Weighted<>(weight, gen);
    }

    /** {@return a value of one of some kinds, each as often as it says} */
    @SafeVarargs
    public static <T> Gen<T> frequencyOf(Weighted<? extends T>... kinds) {
        return random -> {
            int all = 0;
            for (Weighted<? extends T> kind : kinds) {
                all += kind.weight();
            }
            int at = random.nextInt(all);
            for (Weighted<? extends T> kind : kinds) {
                at -= kind.weight();
                if (at < 0) {
                    return kind.gen().next(random);
                }
            }
            throw new IllegalStateException();
        };
    }

    /** {@return booleans} */
    public static Gen<Boolean> booleans() {
        return Random::nextBoolean;
    }

    /** {@return bytes} */
    public static Gen<Byte> bytes() {
        return longs().between(Byte.MIN_VALUE, Byte.MAX_VALUE).map(Long::byteValue);
    }

    /** {@return whole numbers, small ones more often} */
    public static Integers integers() {
        return new Integers(longs().between(Integer.MIN_VALUE, Integer.MAX_VALUE));
    }

    /** {@return whole numbers, small ones more often} */
    public static Longs longs() {
        return new Longs(Long.MIN_VALUE, Long.MAX_VALUE);
    }

    /** {@return whole numbers of up to 40 digits} */
    public static BigIntegers bigIntegers() {
        BigInteger most = BigInteger.TEN.pow(40);
        return new BigIntegers(most.negate(), most);
    }

    /** {@return decimals with two digits after the point, unless said otherwise} */
    public static Decimals bigDecimals() {
        return new Decimals(BigDecimal.valueOf(Long.MIN_VALUE), BigDecimal.valueOf(Long.MAX_VALUE), 2);
    }

    /** {@return texts of any characters} */
    public static Strings strings() {
        return new Strings(null, 0, 20);
    }

    /** {@return maps of such keys and values} */
    public static <K, V> Gen.Many<Map<K, V>> maps(Gen<K> keys, Gen<V> values) {
        return new Gen.Many<>((random, size) -> {
            Map<K, V> map = new LinkedHashMap<>();
            for (int tries = 0; map.size() < size && tries < size * 100; tries++) {
                map.put(keys.next(random), values.next(random));
            }
            return map;
        });
    }

    /** Whole numbers between two, both included. */
    public static final class Longs implements Gen<Long> {
        private final long least;
        private final long most;

        private Longs(long least, long most) {
            this.least = least;
            this.most = most;
        }

        public Longs between(long newLeast, long newMost) {
            return new Longs(newLeast, newMost);
        }

        @Override
        public Long next(Random random) {
            if (atEdge(random)) {
                long[] edges = {least, most, 0, 1, -1, least + 1, most - 1};
                long edge = edges[random.nextInt(edges.length)];
                return edge < least || edge > most ? least : edge;
            }
            // Half of them are small, where the range allows that.
            long near = random.nextLong() >> random.nextInt(Long.SIZE - 1);
            if (random.nextBoolean() && near >= least && near <= most) {
                return near;
            }
            if (most - least < 0 || most - least == Long.MAX_VALUE) {
                long any = random.nextLong();
                return any < least || any > most ? least : any;
            }
            return least + Math.floorMod(random.nextLong(), most - least + 1);
        }
    }

    /** As {@link Longs}, of fewer digits. */
    public static final class Integers implements Gen<Integer> {
        private final Longs longs;

        private Integers(Longs longs) {
            this.longs = longs;
        }

        public Integers between(int least, int most) {
            return new Integers(longs.between(least, most));
        }

        @Override
        public Integer next(Random random) {
            return longs.next(random).intValue();
        }
    }

    /** Whole numbers of many digits between two, both included. */
    public static final class BigIntegers implements Gen<BigInteger> {
        private final BigInteger least;
        private final BigInteger most;

        private BigIntegers(BigInteger least, BigInteger most) {
            this.least = least;
            this.most = most;
        }

        public BigIntegers between(BigInteger newLeast, BigInteger newMost) {
            return new BigIntegers(newLeast, newMost);
        }

        @Override
        public BigInteger next(Random random) {
            if (atEdge(random)) {
                return random.nextBoolean() ? least : most;
            }
            BigInteger any = new BigInteger(1 + random.nextInt(most.bitLength() + 1), random);
            BigInteger signed = random.nextBoolean() ? any : any.negate();
            return signed.max(least).min(most);
        }
    }

    /** Decimals between two, both included. */
    public static final class Decimals implements Gen<BigDecimal> {
        private final BigDecimal least;
        private final BigDecimal most;
        private final int scale;

        private Decimals(BigDecimal least, BigDecimal most, int scale) {
            this.least = least;
            this.most = most;
            this.scale = scale;
        }

        public Decimals between(BigDecimal newLeast, BigDecimal newMost) {
            return new Decimals(newLeast, newMost, scale);
        }

        public Decimals ofScale(int newScale) {
            return new Decimals(least, most, newScale);
        }

        @Override
        public BigDecimal next(Random random) {
            BigInteger from = least.movePointRight(scale).toBigInteger();
            BigInteger range =
                    most.movePointRight(scale).toBigInteger().subtract(from).add(BigInteger.ONE);
            BigInteger any =
                    new BigInteger(range.bitLength() + 8, random).mod(range).add(from);
            long small = random.nextInt(2_001) - 1_000;
            BigInteger near = BigInteger.valueOf(small);
            boolean fits = near.compareTo(from) >= 0 && near.compareTo(from.add(range)) < 0;
            return new BigDecimal(fits && random.nextBoolean() ? near : any, scale);
        }
    }

    /** Texts of some characters. */
    public static final class Strings implements Gen<String> {
        private static final int[] ODD = {0, 9, 10, 13, 31, 32, 127, 128, 255, 0x3B1, 0x20AC, 0xFFFD, 0xFFFE, 0x1F600};

        private final String chars;
        private final int least;
        private final int most;

        private Strings(String chars, int least, int most) {
            this.chars = chars;
            this.least = least;
            this.most = Math.max(least, most);
        }

        public Strings withChars(String newChars) {
            return new Strings((chars == null ? "" : chars) + newChars, least, most);
        }

        public Strings withCharRange(char from, char to) {
            StringBuilder all = new StringBuilder();
            for (int c = from; c <= to; c++) {
                all.append((char) c);
            }
            return withChars(all.toString());
        }

        public Strings ascii() {
            return withCharRange('\0', '\u007F');
        }

        public Strings ofLength(int length) {
            return new Strings(chars, length, length);
        }

        public Strings ofMinLength(int length) {
            return new Strings(chars, length, most);
        }

        public Strings ofMaxLength(int length) {
            return new Strings(chars, least, length);
        }

        @Override
        public String next(Random random) {
            int length = size(random, least, most);
            StringBuilder text = new StringBuilder();
            while (text.codePointCount(0, text.length()) < length) {
                text.appendCodePoint(
                        chars != null
                                ? chars.codePointAt(chars.offsetByCodePoints(
                                        0, random.nextInt(chars.codePointCount(0, chars.length()))))
                                : any(random));
            }
            return text.toString();
        }

        private static int any(Random random) {
            int kind = random.nextInt(10);
            if (kind < 5) {
                return ' ' + random.nextInt(95);
            }
            if (kind < 7) {
                return ODD[random.nextInt(ODD.length)];
            }
            int code = random.nextInt(kind < 9 ? 0x10000 : Character.MAX_CODE_POINT + 1);
            return code >= Character.MIN_SURROGATE && code <= Character.MAX_SURROGATE ? 'x' : code;
        }
    }

    // --- several values that become one

    /** Makes one of two. */
    @FunctionalInterface
    public interface F2<A, B, R> {
        R of(A a, B b);
    }

    /** Makes one of three. */
    @FunctionalInterface
    public interface F3<A, B, C, R> {
        R of(A a, B b, C c);
    }

    /** Makes one of four. */
    @FunctionalInterface
    public interface F4<A, B, C, D, R> {
        R of(A a, B b, C c, D d);
    }

    /** Makes one of five. */
    @FunctionalInterface
    public interface F5<A, B, C, D, E, R> {
        R of(A a, B b, C c, D d, E e);
    }

    /** Two values that become one. */
    public record Two<A, B>(Gen<A> a, Gen<B> b) {
        public <R> Gen<R> as(F2<? super A, ? super B, ? extends R> to) {
            return random -> to.of(a.next(random), b.next(random));
        }
    }

    /** Three values that become one. */
    public record Three<A, B, C>(Gen<A> a, Gen<B> b, Gen<C> c) {
        public <R> Gen<R> as(F3<? super A, ? super B, ? super C, ? extends R> to) {
            return random -> to.of(a.next(random), b.next(random), c.next(random));
        }
    }

    /** Four values that become one. */
    public record Four<A, B, C, D>(Gen<A> a, Gen<B> b, Gen<C> c, Gen<D> d) {
        public <R> Gen<R> as(F4<? super A, ? super B, ? super C, ? super D, ? extends R> to) {
            return random -> to.of(a.next(random), b.next(random), c.next(random), d.next(random));
        }
    }

    /** Five values that become one. */
    public record Five<A, B, C, D, E>(Gen<A> a, Gen<B> b, Gen<C> c, Gen<D> d, Gen<E> e) {
        public <R> Gen<R> as(F5<? super A, ? super B, ? super C, ? super D, ? super E, ? extends R> to) {
            return random -> to.of(a.next(random), b.next(random), c.next(random), d.next(random), e.next(random));
        }
    }

    public static <A, B> Two<A, B> combine(Gen<A> a, Gen<B> b) {
        return new Two<>(a, b);
    }

    public static <A, B, C> Three<A, B, C> combine(Gen<A> a, Gen<B> b, Gen<C> c) {
        return new Three<>(a, b, c);
    }

    public static <A, B, C, D> Four<A, B, C, D> combine(Gen<A> a, Gen<B> b, Gen<C> c, Gen<D> d) {
        return new Four<>(a, b, c, d);
    }

    public static <A, B, C, D, E> Five<A, B, C, D, E> combine(Gen<A> a, Gen<B> b, Gen<C> c, Gen<D> d, Gen<E> e) {
        return new Five<>(a, b, c, d, e);
    }
}
