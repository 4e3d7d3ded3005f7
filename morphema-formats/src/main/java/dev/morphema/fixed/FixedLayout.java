package dev.morphema.fixed;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.OptionSpec.Form;
import dev.morphema.format.Options;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Where the fields of lines stand. Lines are all alike or, where a code stands at some place of
 * each, of several kinds. Immutable.
 */
final class FixedLayout {
    static final OptionSpec COLUMNS = OptionSpec.of("columns", Form.TEXTS);
    static final OptionSpec CODE = OptionSpec.of("code", Form.TEXT);

    private static final String EXAMPLE = "\"name 1-10\", counted from 1";

    private final @Nullable FixedColumn code;
    private final Map<String, List<FixedColumn>> byCode;

    private FixedLayout(@Nullable FixedColumn code, Map<String, List<FixedColumn>> byCode) {
        this.code = code;
        this.byCode = byCode;
    }

    /** {@return the layout that options tell, which have no {@link #faultOf fault}} */
    static FixedLayout of(Options options) {
        Map<String, List<FixedColumn>> byCode = new LinkedHashMap<>();
        for (String written : options.texts(COLUMNS.name()).orElse(List.of())) {
            FixedColumn column = Objects.requireNonNull(FixedColumn.parse(written));
            byCode.computeIfAbsent(column.code() == null ? "" : column.code(), c -> new ArrayList<>())
                    .add(column);
        }
        FixedColumn code = options.text(CODE.name())
                .map(place -> FixedColumn.parse("code " + place))
                .orElse(null);
        return new FixedLayout(code, byCode);
    }

    /**
     * {@return what is wrong with the options, as a sentence, or null}
     *
     * @param written whether lines are written, so that no two columns may overlap
     */
    static @Nullable String faultOf(Options options, boolean written) {
        List<String> columns = options.texts(COLUMNS.name()).orElse(List.of());
        if (columns.isEmpty()) {
            return "The format fixed needs the option columns, a list of texts such as " + EXAMPLE + ".";
        }
        boolean coded = options.text(CODE.name()).isPresent();
        List<FixedColumn> parsed = new ArrayList<>();
        for (String column : columns) {
            FixedColumn one = FixedColumn.parse(column);
            if (one == null) {
                return "\"" + column + "\" is no column; one is written " + EXAMPLE + ".";
            }
            if (coded != (one.code() != null)) {
                return coded
                        ? "\"" + column + "\" has no code; with the option code each column has: \"L." + column + "\"."
                        : "\"" + column + "\" has a code; the option code says where it stands: code = \"1-1\".";
            }
            for (FixedColumn other : parsed) {
                boolean same = Objects.equals(one.code(), other.code());
                if (same && one.name().equals(other.name())) {
                    return "The column " + one.name() + " is named twice.";
                }
                if (written && same && one.overlaps(other)) {
                    return "The columns " + other.name() + " and " + one.name() + " overlap.";
                }
            }
            parsed.add(one);
        }
        if (coded && FixedColumn.parse("code " + options.text(CODE.name()).orElseThrow()) == null) {
            return "The option code is the place of the code, such as \"1-2\".";
        }
        return null;
    }

    /** {@return where the code of a line stands, or null if all lines are alike} */
    @Nullable
    FixedColumn code() {
        return code;
    }

    /** {@return the columns of lines with a code, the empty one where all are alike; or null} */
    @Nullable
    List<FixedColumn> columns(String ofCode) {
        return byCode.get(ofCode);
    }

    /** {@return the codes that lines can have} */
    List<String> codes() {
        return List.copyOf(byCode.keySet());
    }
}
