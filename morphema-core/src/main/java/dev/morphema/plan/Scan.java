package dev.morphema.plan;

import dev.morphema.value.FieldName;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One reading of a source, a record at a time.
 *
 * @param source by its index
 * @param path the fields that lead to the records; empty for the records of the format
 */
public record Scan(int source, List<FieldName> path) {
    public Scan {
        path = List.copyOf(path);
    }

    // As every record has them; but those are made when they are first called, which takes a
    // tenth of a small run.
    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Scan scan && source == scan.source && path.equals(scan.path);
    }

    @Override
    public int hashCode() {
        return source * 31 + path.hashCode();
    }
}
