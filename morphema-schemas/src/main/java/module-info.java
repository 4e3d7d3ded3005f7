import dev.morphema.schemas.StandardSchemas;
import dev.morphema.shape.SchemaReader;

/**
 * JSON Schema, XSD, OpenAPI and CSVW for Morphema, found by itself on the class or module path.
 * Xerces has a package that the module {@code jdk.xml.dom} of Java has too: an application on the
 * module path does without that one.
 */
module dev.morphema.schemas {
    requires transitive dev.morphema;
    requires com.ctc.wstx;
    requires com.networknt.schema;
    requires de.siegmar.fastcsv;
    requires org.codehaus.stax2;
    requires tools.jackson.databind;
    requires tools.jackson.dataformat.yaml;
    // It has no name of its own, so its file gives it one.
    requires xercesImpl;

    exports dev.morphema.schemas;

    provides SchemaReader with
            StandardSchemas;
}
