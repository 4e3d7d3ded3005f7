package dev.morphema.xlsx;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.TargetFormat;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;

/**
 * Writes a workbook: a list of records is a sheet, a record of such lists one sheet for each of its
 * fields. Rows leave the memory as they come.
 */
public final class XlsxTarget implements TargetFormat {
    @Override
    public String name() {
        return XlsxSource.NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                OptionSpec.of("sheet", Form.TEXT),
                OptionSpec.of("header", Form.SWITCH),
                OptionSpec.of("freeze", Form.SWITCH),
                OptionSpec.of("widths", Form.SWITCH));
    }

    @Override
    public Traits traits() {
        return new Traits(Root.ANY, false, false);
    }

    @Override
    public boolean joins() {
        return true;
    }

    @Override
    public DocumentWriter open(OutputStream out, Document document) throws IOException {
        return new WorkbookWriter(out, document.options());
    }
}
