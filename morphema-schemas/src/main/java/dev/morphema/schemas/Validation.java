package dev.morphema.schemas;

import dev.morphema.DocumentCheck;
import dev.morphema.format.Input;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Looks whether documents are as a schema says: XML by XML Schema 1.0, JSON and JSON Lines by JSON
 * Schema. XML of any size, JSON Lines, and a JSON array whose schema speaks of its items one by
 * one, are read in little memory. Immutable and safe for use by many threads.
 */
public final class Validation implements DocumentCheck {
    private final int most;

    /** @param most after so many problems in a document it stops */
    public Validation(int most) {
        this.most = most;
    }

    @Override
    public List<Problem> check(Input document, String format, String schema, SchemaReader.Files files)
            throws IOException {
        List<Problem> problems = new ArrayList<>();
        SchemaPath path = SchemaPath.parse(schema);
        boolean xsd = path.file().toLowerCase(Locale.ROOT).endsWith(".xsd");
        switch (format) {
            case "xml" -> {
                require(xsd, format, schema);
                new XmlValidation(files, problems, most).validate(document, path);
            }
            case "json", "jsonl" -> {
                require(!xsd, format, schema);
                new JsonValidation(document, files, problems, most).validate(format.equals("jsonl"), path);
            }
            default ->
                throw new ProblemException(Problem.error(
                        Code.USAGE, "Documents in " + format + " are not validated, only xml, json and jsonl."));
        }
        return problems;
    }

    private static void require(boolean fits, String format, String schema) {
        if (!fits) {
            throw new ProblemException(
                    Problem.error(Code.BAD_SCHEMA, "This is not the name of a schema for " + format + ".")
                            .withValue(schema)
                            .withHelp("schemas end in .xsd for xml, in .json or .yaml for json"));
        }
    }
}
