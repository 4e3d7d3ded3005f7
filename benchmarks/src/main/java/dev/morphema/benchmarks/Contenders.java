package dev.morphema.benchmarks;

import dev.morphema.benchmarks.hand.G1;
import dev.morphema.benchmarks.hand.G2;
import dev.morphema.benchmarks.hand.G3;
import dev.morphema.benchmarks.hand.J1;
import dev.morphema.benchmarks.hand.S1;
import dev.morphema.benchmarks.hand.S2;
import dev.morphema.benchmarks.hand.S3;
import dev.morphema.benchmarks.hand.S4;

/** Finds who does a workload. */
final class Contenders {
    private Contenders() {}

    /** {@return the mapping of a workload, or a program for it} */
    static Contender of(Workload workload, String name) {
        return switch (name) {
            case "morphema" -> Morphemas.of(workload);
            case "hand" -> hand(workload);
            default -> throw new IllegalArgumentException("no such contender: " + name);
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
