/** CSV, JSON and XML for Morphema. Applications use the module {@code dev.morphema}. */
module dev.morphema.formats {
    requires transitive dev.morphema.core;
    requires de.siegmar.fastcsv;
    requires tools.jackson.core;
    requires java.xml;
    requires com.ctc.wstx;
    requires org.codehaus.stax2;

    exports dev.morphema.standard to
            dev.morphema,
            dev.morphema.http,
            dev.morphema.jdbc;
}
