package dev.morphema.standard;

import dev.morphema.csv.CsvSource;
import dev.morphema.csv.CsvTarget;
import dev.morphema.fixed.FixedSource;
import dev.morphema.fixed.FixedTarget;
import dev.morphema.format.Input;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.function.FunctionSet;
import dev.morphema.function.FunctionTable;
import dev.morphema.function.Stability;
import dev.morphema.json.JsonSource;
import dev.morphema.json.JsonTarget;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.xml.XmlSource;
import dev.morphema.xml.XmlTarget;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** The formats that come with Morphema. */
public final class StandardFormats {
    /** A text has no bytes, so what a document says of its encoding is of no matter. */
    private static final Options AS_TEXT = Options.NONE.with("encoding", StandardCharsets.UTF_8.name());

    private StandardFormats() {}

    /** {@return csv, json, jsonl, xml and fixed, for reading} */
    public static List<SourceFormat> sources() {
        return List.of(new CsvSource(), JsonSource.document(), JsonSource.lines(), new XmlSource(), new FixedSource());
    }

    /** {@return one of the formats by its name, for reading} */
    public static SourceFormat source(String name) {
        return sources().stream()
                .filter(format -> format.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /** {@return csv, json, jsonl, xml and fixed, for writing} */
    public static List<TargetFormat> targets() {
        return List.of(new CsvTarget(), JsonTarget.document(), JsonTarget.lines(), new XmlTarget(), new FixedTarget());
    }

    /**
     * {@return the functions of the language, with those that read a text in one of the formats}
     */
    public static FunctionTable functions() {
        return FunctionTable.standard().with(StandardFormats::addTo);
    }

    private static void addTo(FunctionSet functions) {
        add(functions, "json(text: text): any", JsonSource.document());
        add(functions, "xml(text: text): any", new XmlSource());
        functions.documentType("json", value -> document(JsonSource.document(), value));
        functions.documentType("xml", value -> document(new XmlSource(), value));
        functions.scalar("jsonText(value: any): text", arguments -> DocumentTexts.json(arguments[0]));
        functions.scalar("xmlText(value: record): text", arguments -> DocumentTexts.xml(arguments[0]));
    }

    /** What is no text is what the document around has made of it already. */
    private static Value document(SourceFormat format, Value value) {
        return value instanceof TextValue text ? parsed(format, Projection.everything(), text.text()) : value;
    }

    private static void add(FunctionSet functions, String signature, SourceFormat format) {
        functions.surrounded(
                signature,
                Stability.PURE,
                (a, run) ->
                        parsed(format, run.kept(Projection.class, signature, Projection::everything), a[0].toString()));
    }

    /**
     * {@return what a document holds that stands as a text in another one}
     *
     * @param format json or xml
     * @param projection what is used of it
     * @throws ProblemException if it is not well-formed
     */
    public static Value parsed(String format, Projection projection, String text) {
        return parsed(source(format), projection, text);
    }

    /** A document that stands as a text in another: what a source of the format would be. */
    private static Value parsed(SourceFormat format, Projection projection, String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        Input input = new Input() {
            @Override
            public String name() {
                return "the text";
            }

            @Override
            public InputStream open() {
                return new ByteArrayInputStream(bytes);
            }
        };
        try (RecordReader reader = format.open(input, projection, AS_TEXT)) {
            return reader.whole();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (ProblemException e) {
            // The place within the text is of use; that of the record around it is added by who
            // calls.
            InputLocation place = e.problem().input();
            String where =
                    place == null ? "" : " (line " + place.line() + ", column " + place.column() + " of the text)";
            throw new ProblemException(
                    Problem.error(e.problem().code(), e.problem().message() + where)
                            .withHelp(e.problem().help()),
                    e);
        }
    }
}
