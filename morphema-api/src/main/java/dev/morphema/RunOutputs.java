package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.Program;
import dev.morphema.engine.Writers;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.output.StagedOutputs;
import dev.morphema.problem.ProblemException;
import dev.morphema.problem.RuleLocation;
import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** Opens the outputs of one run. */
record RunOutputs(Program program, StagedOutputs staged, boolean dry) implements Writers {
    @Override
    public boolean wants(int target) {
        return dry || staged.has(target);
    }

    @Override
    public DocumentWriter open(int target, Writers.@Nullable Document document) throws IOException {
        CheckedMapping.Target checked = program.mapping().targets().get(target);
        RuleLocation declared = checked.decl().format().span().location();
        try {
            return staged.writer(
                    target,
                    document,
                    checked.format(),
                    new TargetFormat.Document(checked.options(), checked.columns(), checked.prefixes(), declared));
        } catch (ProblemException e) {
            throw new ProblemException(e.problems().stream()
                    .map(problem -> problem.rule() == null ? problem.at(declared) : problem)
                    .toList());
        }
    }
}
