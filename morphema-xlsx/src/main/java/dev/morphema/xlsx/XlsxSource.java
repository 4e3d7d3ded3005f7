package dev.morphema.xlsx;

import dev.morphema.format.Input;
import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Reads the rows of a sheet, or of several as one sequence. Rows are read one at a time; the texts
 * that a workbook shares among its cells are kept.
 */
public final class XlsxSource implements SourceFormat {
    static final String NAME = "xlsx";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public List<OptionSpec> options() {
        return List.of(
                OptionSpec.of("sheet", Form.TEXT_OR_TEXTS),
                OptionSpec.of("sheet-field", Form.TEXT),
                OptionSpec.of("range", Form.TEXT),
                OptionSpec.of("skip", Form.COUNT),
                OptionSpec.choice("merged", "first", "repeat"),
                OptionSpec.of("header", Form.SWITCH),
                OptionSpec.of("columns", Form.TEXTS));
    }

    @Override
    public @Nullable String faultOf(Options options) {
        return options.text("range").isPresent()
                        && CellRange.parse(options.text("range").orElseThrow()) == null
                ? "The option range is two corners, such as \"B3:H200\", or columns, such as \"B:H\"."
                : null;
    }

    @Override
    public List<String> endings() {
        return List.of(".xlsx", ".xlsm");
    }

    @Override
    public Traits traits() {
        return new Traits(false, true, false);
    }

    @Override
    public RecordReader open(Input input, Projection projection, Options options) throws IOException {
        return new SheetReader(WorkbookFile.open(input, options.limits()), projection, options);
    }
}
