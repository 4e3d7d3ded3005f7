package dev.morphema.formats;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.csv.CsvSource;
import dev.morphema.format.Input;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.json.JsonSource;
import dev.morphema.shape.LearnedShape;
import dev.morphema.shape.ShapeWriter;
import dev.morphema.value.FieldName;
import dev.morphema.xml.XmlSource;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** A document that passes as events shows the same as its values do. */
class EventsTest {
    static Stream<Arguments> documents() {
        return Stream.of(
                Arguments.of(
                        JsonSource.document(),
                        "{\"a\": 1, \"b\": [{\"c\": null}, {\"c\": \"x\", \"d\": []}], \"e\": true}"),
                Arguments.of(JsonSource.document(), "[{\"a\": 1}, {\"a\": [1, 2]}]"),
                Arguments.of(JsonSource.lines(), "{\"a\": 1}\n{\"b\": {\"c\": 2}}\n"),
                Arguments.of(new CsvSource(), "a,b\n1,x\n2,\n"),
                Arguments.of(
                        new XmlSource(),
                        "<r xmlns='urn:x' v='1'><a>1</a><a u='kg'>2</a><b/><m>text <i>in</i> it</m><c><d>x</d></c></r>"));
    }

    private static RecordReader open(SourceFormat format, String document) throws IOException {
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        return format.open(
                new Input() {
                    @Override
                    public String name() {
                        return "document";
                    }

                    @Override
                    public InputStream open() {
                        return new ByteArrayInputStream(bytes);
                    }
                },
                Projection.everything(),
                Options.NONE);
    }

    private static String described(LearnedShape shape, String indent) {
        StringBuilder text = new StringBuilder();
        for (FieldName name : shape.names()) {
            LearnedShape field = shape.field(name);
            if (field != null && field.present() > 0) {
                text.append(indent)
                        .append(name)
                        .append(' ')
                        .append(field.kinds())
                        .append(field.nulls());
                text.append(' ')
                        .append(field.present())
                        .append(' ')
                        .append(field.least())
                        .append(' ');
                text.append(field.most()).append(field.isList() ? " list\n" : "\n");
                text.append(described(field, indent + " "));
            }
        }
        return text.toString();
    }

    @ParameterizedTest(name = "{1}")
    @MethodSource("documents")
    @DisplayName("as values")
    void showTheSame(SourceFormat format, String document) throws IOException {
        LearnedShape byValues = LearnedShape.detailed();
        try (RecordReader reader = open(format, document)) {
            reader.remaining().forEach(byValues::learn);
        }
        LearnedShape byEvents = LearnedShape.detailed();
        try (RecordReader reader = open(format, document)) {
            reader.events(new ShapeWriter(byEvents));
        }
        assertThat(described(byEvents, "")).isNotEmpty().isEqualTo(described(byValues, ""));
        assertThat(byEvents.values()).isEqualTo(byValues.values());
    }
}
