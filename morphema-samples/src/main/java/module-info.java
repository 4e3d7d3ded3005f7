/** Tests mappings by sample cases, and tells how two documents differ. */
module dev.morphema.samples {
    requires transitive dev.morphema;
    requires java.xml;

    exports dev.morphema.samples;
}
