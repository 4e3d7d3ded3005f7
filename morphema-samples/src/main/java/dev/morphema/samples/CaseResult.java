package dev.morphema.samples;

import dev.morphema.problem.Problem;
import java.util.List;
import java.util.Map;

/**
 * What became of a sample case. Immutable.
 *
 * @param sampleCase the case
 * @param differences for each target with some, where it is not as expected
 * @param problems why the case could not be run or compared
 */
public record CaseResult(SampleCase sampleCase, Map<String, List<Difference>> differences, List<Problem> problems) {
    public CaseResult {
        differences = Map.copyOf(differences);
        problems = List.copyOf(problems);
    }

    /** {@return whether all outputs are as expected} */
    public boolean passed() {
        return differences.isEmpty() && problems.isEmpty();
    }
}
