import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.xlsx.XlsxSource;
import dev.morphema.xlsx.XlsxTarget;

/** Workbooks as a format of sources and targets, found by itself on the class or module path. */
module dev.morphema.xlsx {
    requires transitive dev.morphema;
    requires java.xml;
    requires org.dhatim.fastexcel;
    requires org.dhatim.fastexcel.reader;

    exports dev.morphema.xlsx;

    provides SourceFormat with
            XlsxSource;
    provides TargetFormat with
            XlsxTarget;
}
