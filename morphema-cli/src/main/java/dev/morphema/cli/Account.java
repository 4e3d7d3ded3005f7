package dev.morphema.cli;

import dev.morphema.Result;
import java.io.PrintWriter;
import java.util.Locale;
import java.util.Map;

/** Says in a few lines what a run has read and written. */
final class Account {
    private static final double NANOS = 1e9;

    private final PrintWriter out;

    Account(PrintWriter out) {
        this.out = out;
    }

    /**
     * Prints the account.
     *
     * @param outputs where the targets were written, by name
     * @param nanos how long it took
     */
    void print(Result result, Map<String, String> outputs, long nanos) {
        result.read().forEach((source, count) -> out.println("read    " + source + ": " + records(count)));
        outputs.forEach((target, file) -> out.println("written " + target + ": "
                + records(result.written().getOrDefault(target, 0L)) + (file.equals("-") ? "" : " in " + file)));
        out.println(String.format(Locale.ROOT, "took    %.2f s", nanos / NANOS));
    }

    private static String records(long count) {
        return count == 1 ? "1 record" : String.format(Locale.ROOT, "%,d records", count);
    }
}
