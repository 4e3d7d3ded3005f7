/** Drafts mappings from samples and schemas of both sides. */
module dev.morphema.draft {
    requires transitive dev.morphema;
    requires transitive dev.morphema.samples;

    exports dev.morphema.draft;
}
