package dev.morphema.cli;

import dev.morphema.Mapping;
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
     * @param mapping that was run
     * @param outputs where the targets were written, by name
     * @param nanos how long it took
     */
    void print(Mapping mapping, Result result, Map<String, String> outputs, long nanos) {
        result.read().forEach((source, count) -> out.println("read    " + source + ": " + counted(count, "record")));
        outputs.forEach((target, file) -> out.println("written " + target + ": "
                + counted(
                        result.written().getOrDefault(target, 0L),
                        mapping.hasManyDocuments(target) ? "document" : "record")
                + (file.equals("-") ? "" : " in " + file)));
        out.println(String.format(Locale.ROOT, "took    %.2f s", nanos / NANOS));
    }

    private static String counted(long count, String what) {
        return count == 1 ? "1 " + what : String.format(Locale.ROOT, "%,d %ss", count, what);
    }
}
