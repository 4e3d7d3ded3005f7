package dev.morphema.examples;

import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.Result;
import java.nio.file.Path;

/** Converts a manifest into an arrival notice: two files in, one file out. */
public final class ConvertManifest {
    private ConvertManifest() {}

    /** Takes three words: the mapping, the manifest and the notice that is to be written. */
    public static void main(String[] args) {
        Mapping mapping = Morphema.standard().load(Path.of(args[0]));
        Result result =
                mapping.run(Inputs.file("manifest", Path.of(args[1])), Outputs.file("notice", Path.of(args[2])));
        System.out.println(result.read().get("manifest") + " rows became "
                + result.written().get("notice") + " calls");
    }
}
