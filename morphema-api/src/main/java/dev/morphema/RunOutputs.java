package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.Program;
import dev.morphema.engine.Run;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.output.StagedOutputs;
import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** Opens the outputs of one run. */
record RunOutputs(Program program, StagedOutputs staged, boolean dry) implements Run.Writers {
    @Override
    public boolean wants(int target) {
        return dry || staged.has(target);
    }

    @Override
    public DocumentWriter open(int target, Run.@Nullable Document document) throws IOException {
        CheckedMapping.Target checked = program.mapping().targets().get(target);
        return checked.format()
                .open(
                        staged.bytes(target, document),
                        new Document(checked.options(), checked.columns(), checked.prefixes()));
    }
}
