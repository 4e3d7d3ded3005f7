/**
 * The language, the planner and the engine of Morphema, without files and formats. Applications use
 * the module {@code dev.morphema}, which shows what they need of this one.
 */
module dev.morphema.core {
    // It has no name of its own, so its file gives it one.
    requires re2j;
    requires static transitive org.jspecify;

    // What applications see of values, problems and limits, and what a format implements.
    exports dev.morphema.format;
    exports dev.morphema.problem;
    exports dev.morphema.shape;
    exports dev.morphema.value;
    exports dev.morphema.check to
            dev.morphema;
    exports dev.morphema.event to
            dev.morphema;
    exports dev.morphema.engine to
            dev.morphema;
    exports dev.morphema.function to
            dev.morphema,
            dev.morphema.formats;
    exports dev.morphema.plan to
            dev.morphema;
    exports dev.morphema.store to
            dev.morphema;
    exports dev.morphema.syntax to
            dev.morphema,
            dev.morphema.draft;
}
