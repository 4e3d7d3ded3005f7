package dev.morphema.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import dev.morphema.csv.CsvSource;
import dev.morphema.csv.CsvTarget;
import dev.morphema.format.EventWriter;
import dev.morphema.format.Input;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.format.SourceFormat;
import dev.morphema.format.TargetFormat;
import dev.morphema.format.TargetFormat.Document;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.json.JsonSource;
import dev.morphema.json.JsonTarget;
import dev.morphema.value.BooleanValue;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.Missing;
import dev.morphema.value.NumberValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import dev.morphema.xml.XmlSource;
import dev.morphema.xml.XmlTarget;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What all writers have in common, whatever the format: what is written reads back equal. */
class WriterContractTest {
    private static final FieldName A = FieldName.of("a");
    private static final FieldName B = FieldName.of("b");
    private static final List<String> ODD = List.of(
            "plain",
            " blanks ",
            "comma, \"quote\" ; 'tick'",
            "a\nb\r\nc\td",
            "<&>]]>",
            "äöü€😀\u00A0\u2028",
            "=1+1",
            "\\u0041 {x}",
            "-");

    enum Format {
        CSV(new CsvTarget(), new CsvSource()),
        JSON(JsonTarget.document(), JsonSource.document()),
        JSON_LINES(JsonTarget.lines(), JsonSource.lines()),
        XML(new XmlTarget(), new XmlSource());

        private final TargetFormat target;
        private final SourceFormat source;

        Format(TargetFormat target, SourceFormat source) {
            this.target = target;
            this.source = source;
        }

        DocumentWriter open(OutputStream out) throws IOException {
            return target.open(out, new Document(Options.NONE, List.of("a", "b"), Map.of()));
        }

        /** Begins a list of records; XML has elements around it. */
        void begin(EventWriter writer) {
            if (this == XML) {
                writer.beginRecord();
                writer.field(FieldName.of("d"));
                writer.beginRecord();
                writer.field(FieldName.of("r"));
            }
            writer.beginList();
        }

        void end(EventWriter writer) {
            writer.endList();
            if (this == XML) {
                writer.endRecord();
                writer.endRecord();
            }
        }

        List<Value> read(byte[] document) throws IOException {
            Input input = new Input() {
                @Override
                public String name() {
                    return "written";
                }

                @Override
                public InputStream open() {
                    return new ByteArrayInputStream(document);
                }
            };
            try (RecordReader reader = source.open(input, Projection.everything(), Options.NONE)) {
                Value whole = reader.whole();
                if (this == XML) {
                    Value root = ((RecordValue) whole).get(FieldName.of("d"));
                    whole = root instanceof RecordValue record ? record.get(FieldName.of("r")) : Many.NONE;
                }
                return whole instanceof Many many
                        ? many.items()
                        : whole instanceof ListValue list ? list.items() : List.of(whole);
            }
        }
    }

    private static void record(EventWriter writer, Value a, Value b) {
        writer.beginRecord();
        field(writer, A, a);
        field(writer, B, b);
        writer.endRecord();
    }

    private static void field(EventWriter writer, FieldName name, Value value) {
        if (value != Missing.ABSENT) {
            writer.field(name);
            writer.value(value);
        }
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("every text reads back as it was")
    void texts(Format format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        DocumentWriter writer = format.open(out);
        format.begin(writer);
        ODD.forEach(text -> record(writer, TextValue.of(text), TextValue.of("x")));
        format.end(writer);
        writer.finish();
        assertThat(format.read(out.toByteArray()))
                .extracting(r -> ((RecordValue) r).get(A).toString())
                .containsExactlyElementsOf(ODD);
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("numbers keep their digits, booleans are true and false, a missing field stays missing")
    void otherValues(Format format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        DocumentWriter writer = format.open(out);
        format.begin(writer);
        record(writer, NumberValue.of(new BigDecimal("1E+3")), BooleanValue.TRUE);
        record(writer, NumberValue.of(new BigDecimal("-0.500")), Missing.ABSENT);
        record(writer, Missing.ABSENT, NumberValue.of(Long.MIN_VALUE));
        format.end(writer);
        writer.finish();
        List<Value> records = format.read(out.toByteArray());
        assertThat(records)
                .extracting(r -> ((RecordValue) r).get(A).toString())
                .containsExactly("1000", "-0.500", Missing.ABSENT.toString());
        assertThat(records)
                .extracting(r -> ((RecordValue) r).get(B).toString())
                .containsExactly("true", Missing.ABSENT.toString(), "-9223372036854775808");
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("a document without records is well-formed and empty")
    void empty(Format format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        DocumentWriter writer = format.open(out);
        format.begin(writer);
        format.end(writer);
        writer.finish();
        assertThat(format.read(out.toByteArray())).isEmpty();
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("the stream stays open for who opened it, and its failures are failures to write")
    void stream(Format format) throws IOException {
        boolean[] closed = {false};
        OutputStream broken = new OutputStream() {
            @Override
            public void write(int b) throws IOException {
                throw new IOException("the disk is full");
            }

            @Override
            public void close() {
                closed[0] = true;
            }
        };
        Throwable thrown = catchThrowable(() -> {
            DocumentWriter writer = format.open(broken);
            format.begin(writer);
            for (int i = 0; i < 100_000; i++) {
                record(writer, TextValue.of("some text"), TextValue.of("x"));
            }
            format.end(writer);
            writer.finish();
        });
        Throwable cause = thrown instanceof UncheckedIOException ? thrown.getCause() : thrown;
        assertThat(cause).isInstanceOf(IOException.class).hasMessageContaining("the disk is full");
        assertThat(closed[0]).isFalse();
    }
}
