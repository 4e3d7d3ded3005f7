package dev.morphema.check;

import dev.morphema.format.OptionSpec;
import dev.morphema.format.Options;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaReader;
import dev.morphema.shape.SchemaShape;
import dev.morphema.syntax.FormatRef;
import dev.morphema.syntax.Span;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Finds the schema that a source or target names. */
final class SchemaFinder {
    /** The option that names it. */
    static final OptionSpec OPTION = OptionSpec.of(CheckedMapping.SCHEMA, OptionSpec.Form.TEXT);

    private final Checker checker;
    /** Both sides of a mapping often name one schema, which may be large. */
    private final Map<List<Object>, SchemaShape> known = new HashMap<>();

    SchemaFinder(Checker checker) {
        this.checker = checker;
    }

    private Optional<SchemaShape> read(List<SchemaReader> readers, String path, String format, Span span)
            throws IOException {
        List<Object> key = List.of(span.source(), path, format);
        if (known.containsKey(key)) {
            return Optional.of(known.get(key));
        }
        Optional<SchemaShape> shape = SchemaReader.first(
                readers, path, format, file -> checker.environment().files().find(span.source(), file));
        shape.ifPresent(found -> known.put(key, found));
        return shape;
    }

    /** {@return what the schema says; empty if none is named, or it cannot be read} */
    Optional<SchemaShape> find(FormatRef ref, Options options) {
        String path = options.text(OPTION.name()).orElse(null);
        if (path == null) {
            return Optional.empty();
        }
        Span span = SourceChecker.valueOf(ref, OPTION.name());
        List<SchemaReader> readers = checker.environment().schemas().get();
        if (readers.isEmpty()) {
            checker.report(
                    span.warning(Code.BAD_SCHEMA, "Nothing here reads schemas, so nothing is checked against this one.")
                            .withHelp("the module morphema-schemas does, once it is on the class path"));
            return Optional.empty();
        }
        try {
            Optional<SchemaShape> shape = read(readers, path, ref.name(), span);
            if (shape.isPresent()) {
                return shape;
            }
            checker.report(span.error(Code.BAD_SCHEMA, "This is not the name of a schema for " + ref.name() + ".")
                    .withHelp("schemas end in .xsd for xml, in .json or .yaml for json, in .json or .csv for csv"));
        } catch (IOException e) {
            // As with a sample: a mapping that runs elsewhere can do without.
            checker.report(
                    span.warning(Code.FILE_NOT_FOUND, "The schema cannot be read, so nothing is checked against it."));
        } catch (ProblemException e) {
            checker.report(e.problem().at(span.location()));
        }
        return Optional.empty();
    }
}
