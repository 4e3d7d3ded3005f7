package dev.morphema;

import dev.morphema.problem.Problem;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What a run came to. Immutable.
 *
 * @param read how many records were read of each source
 * @param written how many records each target has: the turns of its outermost loops, 1 for a document without
 * @param warnings in the order they arose
 */
public record Result(Map<String, Long> read, Map<String, Long> written, List<Problem> warnings) {
    public Result {
        read = Collections.unmodifiableMap(new LinkedHashMap<>(read));
        written = Collections.unmodifiableMap(new LinkedHashMap<>(written));
        warnings = List.copyOf(warnings);
    }
}
