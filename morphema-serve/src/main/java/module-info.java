/** Mappings behind HTTP: begin with {@link dev.morphema.serve.MappingServer}. */
module dev.morphema.serve {
    requires transitive dev.morphema;
    requires org.eclipse.jetty.server;
    requires micrometer.core;
    requires micrometer.registry.prometheus;
    requires tools.jackson.core;

    exports dev.morphema.serve;
}
