package dev.morphema.benchmarks;

import dev.morphema.benchmarks.hand.G1;
import dev.morphema.benchmarks.hand.G2;
import dev.morphema.benchmarks.hand.G3;
import dev.morphema.benchmarks.hand.G4;
import dev.morphema.benchmarks.hand.G5;
import dev.morphema.benchmarks.hand.J1;
import dev.morphema.benchmarks.hand.Limit;
import dev.morphema.benchmarks.hand.S1;
import dev.morphema.benchmarks.hand.S2;
import dev.morphema.benchmarks.hand.S3;
import dev.morphema.benchmarks.hand.S4;
import dev.morphema.benchmarks.hand.S5;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Finds who does a workload. */
final class Contenders {
    /** Reads and writes, but converts nothing, so its output is another one. */
    static final String LIMIT = "limit";

    private Contenders() {}

    /** {@return the mapping of a workload, or a program for it} */
    static Contender of(Workload workload, String name) {
        return switch (name) {
            case "morphema" -> Morphemas.of(workload);
            case "hand" -> hand(workload);
            case "plain" -> plain(workload);
            case LIMIT -> Objects.requireNonNull(limit(workload));
            default -> throw new IllegalArgumentException("no such contender: " + name);
        };
    }

    /** {@return whether there is such a contender for a workload} */
    static boolean has(Workload workload, String name) {
        return !name.equals(LIMIT) || limit(workload) != null;
    }

    private static @Nullable Contender limit(Workload workload) {
        return switch (workload) {
            case S1 -> Limit::s1;
            case S2 -> Limit::s2;
            case S3 -> Limit::s3;
            case S4 -> Limit::s4;
            case S5, G1, G2, G3, G4, G5, J1 -> null;
        };
    }

    private static Contender plain(Workload workload) {
        return switch (workload) {
            case S1 -> dev.morphema.benchmarks.plain.S1::run;
            case S2 -> dev.morphema.benchmarks.plain.S2::run;
            case S3 -> dev.morphema.benchmarks.plain.S3::run;
            case S4 -> dev.morphema.benchmarks.plain.S4::run;
            case S5 -> dev.morphema.benchmarks.plain.S5::run;
            case G1 -> dev.morphema.benchmarks.plain.G1::run;
            case G2 -> dev.morphema.benchmarks.plain.G2::run;
            case G3 -> dev.morphema.benchmarks.plain.G3::run;
            case G4 -> dev.morphema.benchmarks.plain.G4::run;
            case G5 -> dev.morphema.benchmarks.plain.G5::run;
            case J1 -> dev.morphema.benchmarks.plain.J1::run;
        };
    }

    private static Contender hand(Workload workload) {
        return switch (workload) {
            case S1 -> S1::run;
            case S2 -> S2::run;
            case S3 -> S3::run;
            case S4 -> S4::run;
            case S5 -> S5::run;
            case G1 -> G1::run;
            case G2 -> G2::run;
            case G3 -> G3::run;
            case G4 -> G4::run;
            case G5 -> G5::run;
            case J1 -> J1::run;
        };
    }
}
