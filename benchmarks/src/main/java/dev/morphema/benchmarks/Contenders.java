package dev.morphema.benchmarks;

import dev.morphema.benchmarks.hand.G1;
import dev.morphema.benchmarks.hand.G2;
import dev.morphema.benchmarks.hand.G3;
import dev.morphema.benchmarks.hand.J1;
import dev.morphema.benchmarks.hand.S1;
import dev.morphema.benchmarks.hand.S2;
import dev.morphema.benchmarks.hand.S3;
import dev.morphema.benchmarks.hand.S4;
import org.jspecify.annotations.Nullable;

/** Finds who does a workload. */
final class Contenders {
    private Contenders() {}

    /** {@return the mapping of a workload, or a program for it} */
    static Contender of(Workload workload, String name) {
        return switch (name) {
            case "morphema" -> Morphemas.of(workload);
            case "hand" -> hand(workload);
            case "plain" -> plain(workload);
            default -> throw new IllegalArgumentException("no such contender: " + name);
        };
    }

    /** {@return whether there is such a contender for a workload} */
    static boolean has(Workload workload, String name) {
        return !name.equals("plain") || plain(workload) != null;
    }

    private static @Nullable Contender plain(Workload workload) {
        return switch (workload) {
            case S1 -> dev.morphema.benchmarks.plain.S1::run;
            case S2 -> dev.morphema.benchmarks.plain.S2::run;
            case G2 -> dev.morphema.benchmarks.plain.G2::run;
            case S3, S4, G1, G3, J1 -> null;
        };
    }

    private static Contender hand(Workload workload) {
        return switch (workload) {
            case S1 -> S1::run;
            case S2 -> S2::run;
            case S3 -> S3::run;
            case S4 -> S4::run;
            case G1 -> G1::run;
            case G2 -> G2::run;
            case G3 -> G3::run;
            case J1 -> J1::run;
        };
    }
}
