import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.jdbc.SqlSource;
import dev.morphema.jdbc.SqlTarget;

/** Databases as sources and targets of mappings: begin with {@link dev.morphema.jdbc.Database}. */
module dev.morphema.jdbc {
    requires transitive dev.morphema;
    requires transitive java.sql;
    requires dev.morphema.formats;

    exports dev.morphema.jdbc;

    provides SourceFormat with
            SqlSource;
    provides TargetFormat with
            SqlTarget;
}
