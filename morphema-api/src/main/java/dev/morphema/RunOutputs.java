package dev.morphema;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.Program;
import dev.morphema.engine.Run;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Opens the outputs of one run. */
record RunOutputs(Program program, Map<Integer, StagedOutput> staged, boolean dry) implements Run.Writers {
    @Override
    public boolean wants(int target) {
        return dry || staged.containsKey(target);
    }

    @Override
    public DocumentWriter open(int target, Run.@Nullable Document document) throws IOException {
        CheckedMapping.Target checked = program.mapping().targets().get(target);
        StagedOutput output = staged.get(target);
        OutputStream bytes = output == null ? OutputStream.nullOutputStream() : output.bytes(document);
        return checked.format().open(bytes, new Document(checked.options(), checked.columns(), checked.prefixes()));
    }
}
