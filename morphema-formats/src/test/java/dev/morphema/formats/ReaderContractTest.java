package dev.morphema.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import dev.morphema.csv.CsvSource;
import dev.morphema.format.Input;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.json.JsonSource;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.Missing;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import dev.morphema.xml.XmlSource;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What all readers have in common, whatever the format. */
class ReaderContractTest {
    private static final FieldName A = FieldName.of("a");
    private static final FieldName B = FieldName.of("b");

    /** Opens a reader of the records of a document. */
    private interface Opening {
        RecordReader open(Input input, Projection projection) throws IOException;
    }

    /** A format with a document of two records. */
    enum Format {
        CSV("a,b\n1,x\n2,\"ü, y\"\n", (i, p) -> new CsvSource().open(i, p, Options.NONE)),
        JSON(
                "[\n{\"a\":\"1\",\"b\":\"x\"},\n{\"a\":\"2\",\"b\":\"ü, y\"}\n]\n",
                (i, p) -> JsonSource.document().open(i, p, Options.NONE)),
        JSON_LINES(
                "{\"a\":\"1\",\"b\":\"x\"}\n{\"a\":\"2\",\"b\":\"ü, y\"}\n",
                (i, p) -> JsonSource.lines().open(i, p, Options.NONE)),
        XML(
                "<d>\n<r><a>1</a><b>x</b></r>\n<r><a>2</a><b>ü, y</b></r>\n</d>\n",
                (i, p) -> new XmlSource()
                        .openAt(
                                i,
                                List.of(FieldName.of("d"), FieldName.of("r")),
                                fields("d", fields("r", p)),
                                Options.NONE));

        private final byte[] document;
        private final Opening opening;

        Format(String document, Opening opening) {
            this.document = document.getBytes(StandardCharsets.UTF_8);
            this.opening = opening;
        }

        RecordReader open(InputStream bytes, Projection projection) throws IOException {
            return opening.open(new GivenInput(bytes), projection);
        }

        List<Value> read(byte[] bytes) throws IOException {
            try (RecordReader reader = open(new ByteArrayInputStream(bytes), Projection.everything())) {
                return reader.remaining();
            }
        }
    }

    private record GivenInput(InputStream stream) implements Input {
        @Override
        public String name() {
            return "given";
        }

        @Override
        public InputStream open() {
            return stream;
        }
    }

    private static Projection fields(String name, Projection projection) {
        return new Projection(false, Map.of(FieldName.of(name), projection), null, Map.of());
    }

    private static String text(Value record, FieldName field) {
        return ((RecordValue) record).get(field).toString();
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("records come in order, each with its place; after the last there is none, however often asked")
    void order(Format format) throws IOException {
        try (RecordReader reader = format.open(new ByteArrayInputStream(format.document), Projection.everything())) {
            assertThat(reader.isSequence()).isTrue();
            List<Value> records = reader.remaining();
            assertThat(records).extracting(r -> text(r, A)).containsExactly("1", "2");
            assertThat(records).extracting(r -> text(r, B)).containsExactly("x", "ü, y");
            assertThat(records)
                    .extracting(r -> ((RecordValue) r).origin().record())
                    .containsExactly(1L, 2L);
            assertThat(records)
                    .extracting(r -> ((RecordValue) r).origin().input())
                    .containsOnly("given");
            assertThat(((RecordValue) records.get(1)).origin().line())
                    .isGreaterThan(((RecordValue) records.get(0)).origin().line());
            assertThat(reader.next()).isNull();
            assertThat(reader.next()).isNull();
        }
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("a projection keeps what it names and nothing else")
    void projection(Format format) throws IOException {
        try (RecordReader reader =
                format.open(new ByteArrayInputStream(format.document), fields("b", Projection.everything()))) {
            RecordValue first = (RecordValue) reader.next();
            assertThat(first.get(B)).hasToString("x");
            assertThat(first.get(A)).isSameAs(Missing.ABSENT);
            assertThat(first.layout().size()).isEqualTo(1);
        }
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("closing a reader closes the stream")
    void closes(Format format) throws IOException {
        boolean[] closed = {false};
        InputStream stream = new ByteArrayInputStream(format.document) {
            @Override
            public void close() {
                closed[0] = true;
            }
        };
        format.open(stream, Projection.everything()).close();
        assertThat(closed[0]).isTrue();
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("a byte order mark is no part of the data")
    void byteOrderMark(Format format) throws IOException {
        String document = "\uFEFF" + new String(format.document, StandardCharsets.UTF_8);
        assertThat(format.read(document.getBytes(StandardCharsets.UTF_8)))
                .extracting(r -> text(r, A))
                .containsExactly("1", "2");
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("bytes that are no characters are told with their place")
    void badEncoding(Format format) {
        byte[] latin = new String(format.document, StandardCharsets.UTF_8).getBytes(StandardCharsets.ISO_8859_1);
        assertThatThrownBy(() -> format.read(latin)).isInstanceOfSatisfying(ProblemException.class, e -> {
            assertThat(e.problem().code()).isEqualTo(Code.BAD_ENCODING);
            assertThat(e.problem().input().input()).isEqualTo("given");
        });
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("a stream that fails is no fault of the document")
    void brokenStream(Format format) {
        InputStream failing = new InputStream() {
            private int at;

            @Override
            public int read() throws IOException {
                if (at == format.document.length / 2) {
                    throw new IOException("the line is dead");
                }
                return format.document[at++];
            }

            @Override
            public int read(byte[] bytes, int offset, int length) throws IOException {
                if (length == 0) {
                    return 0;
                }
                bytes[offset] = (byte) read();
                return 1;
            }
        };
        assertThatThrownBy(() -> {
                    try (RecordReader reader = format.open(failing, Projection.everything())) {
                        reader.remaining();
                    }
                })
                .isInstanceOf(IOException.class)
                .hasMessageContaining("the line is dead");
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("a document cut off anywhere gives its first records or a located problem, never anything else")
    void cutOff(Format format) {
        for (int length = 0; length < format.document.length; length++) {
            located(format, Arrays.copyOf(format.document, length));
        }
    }

    @ParameterizedTest
    @EnumSource
    @DisplayName("a damaged document gives records or a located problem, never anything else")
    void damaged(Format format) {
        Random random = new Random(1);
        for (int i = 0; i < 2_000; i++) {
            byte[] document = format.document.clone();
            for (int damage = 0; damage <= i % 3; damage++) {
                document[random.nextInt(document.length)] = (byte) random.nextInt(256);
            }
            located(format, document);
        }
    }

    private static void located(Format format, byte[] document) {
        List<Value> records = new ArrayList<>();
        Throwable thrown = catchThrowable(() -> records.addAll(format.read(document)));
        if (thrown != null) {
            assertThat(thrown).as(new String(document, StandardCharsets.UTF_8)).isInstanceOf(ProblemException.class);
            assertThat(((ProblemException) thrown).problem().input()).isNotNull();
            assertThat(((ProblemException) thrown).problem().message()).endsWith(".");
        }
    }
}
