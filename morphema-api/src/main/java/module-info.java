/** Checks, loads and runs mappings: begin with {@link dev.morphema.Morphema}. */
module dev.morphema {
    requires transitive dev.morphema.core;
    requires dev.morphema.formats;

    exports dev.morphema;
    exports dev.morphema.output to
            dev.morphema.cli,
            dev.morphema.http;

    uses dev.morphema.format.SourceFormat;
    uses dev.morphema.format.TargetFormat;
    uses dev.morphema.shape.SchemaReader;
}
