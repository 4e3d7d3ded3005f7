package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.lenient;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;
import org.mockito.stubbing.Answer;

/** Streams that fail or stall, and what a run asks of its surroundings. */
@ExtendWith(MockitoExtension.class)
class FailingPartsTest {
    private static final String COPIES = "source m: csv\ntarget o: csv { for r in m { n = r.n } }";

    @TempDir
    private Path folder;

    @Mock
    private InputStream input;

    @Mock
    private OutputStream output;

    private ProblemException failure(Inputs inputs, Outputs outputs, RunOptions options) {
        return catchThrowableOfType(
                ProblemException.class, () -> Language.load(COPIES).run(inputs, outputs, options));
    }

    /** Gives some bytes, then does something else. */
    private void gives(String text, Answer<Integer> then) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        int[] at = {0};
        when(input.read(any(byte[].class), anyInt(), anyInt())).thenAnswer(call -> {
            if (at[0] == bytes.length) {
                return then.answer(call);
            }
            int count = Math.min(bytes.length - at[0], call.getArgument(2, Integer.class));
            System.arraycopy(bytes, at[0], call.getArgument(0), call.getArgument(1, Integer.class), count);
            at[0] += count;
            return count;
        });
    }

    @Test
    @DisplayName("an input that breaks off in the middle leaves the output as it was")
    void inputBreaksOff() throws IOException {
        gives("n\n1\n2\n", call -> {
            throw new IOException("the line went dead");
        });
        Path place = Files.writeString(folder.resolve("o.csv"), "before");
        ProblemException thrown = failure(Inputs.stream("m", input), Outputs.file("o", place), RunOptions.DEFAULT);
        assertThat(thrown.problem().code()).isEqualTo(Code.NOT_READABLE);
        assertThat(thrown.problem().message()).contains("the line went dead");
        assertThat(place).hasContent("before");
        try (var files = Files.list(folder)) {
            assertThat(files).containsExactly(place);
        }
        verify(input, never()).close();
    }

    @Test
    @DisplayName("an output that cannot be written is a problem with its reason")
    void outputFails() throws IOException {
        doThrow(new IOException("the disk is full")).when(output).write(any(byte[].class), anyInt(), anyInt());
        ProblemException thrown = failure(Inputs.text("m", "n\n1\n"), Outputs.stream("o", output), RunOptions.DEFAULT);
        assertThat(thrown.problem().code()).isEqualTo(Code.NOT_WRITTEN);
        assertThat(thrown.problem().message()).contains("the disk is full");
        verify(output, never()).close();
    }

    @Test
    @DisplayName("documents are handed over only when the run has succeeded, and a taker may refuse")
    void documents() throws IOException {
        String each = "source m: csv { n: number }\ntarget o: json(indent = 0) for r in m into \"{r.n}\" { n = r.n }";
        Outputs.Documents taker = mock(Outputs.Documents.class);
        catchThrowableOfType(
                ProblemException.class,
                () -> Language.load(each).run(Inputs.text("m", "n\n1\nx\n"), Outputs.documents("o", taker)));
        verify(taker, never()).take(any(), any());
        lenient().doThrow(new IOException("no more room")).when(taker).take(eq("2"), any());
        ProblemException thrown = catchThrowableOfType(
                ProblemException.class,
                () -> Language.load(each).run(Inputs.text("m", "n\n1\n2\n3\n"), Outputs.documents("o", taker)));
        assertThat(thrown.problem().message()).contains("no more room");
        verify(taker, times(1)).take(eq("1"), any());
        verify(taker, never()).take(eq("3"), any());
    }

    @Test
    @DisplayName("a run asks its clock once")
    void clock() {
        Clock clock = mock(Clock.class);
        when(clock.instant()).thenReturn(Instant.parse("2026-03-05T12:00:00Z"));
        String times = Language.run(
                "source m: csv\ntarget o: csv { for r in m { a = now()  b = today() } }",
                Inputs.text("m", "n\n1\n2\n"),
                RunOptions.DEFAULT.clock(clock));
        assertThat(times).isEqualTo("a,b\n2026-03-05T12:00:00Z,2026-03-05\n2026-03-05T12:00:00Z,2026-03-05\n");
        verify(clock, times(1)).instant();
    }

    @Test
    @DisplayName("a run that stalls is stopped from another thread, and writes nothing")
    void cancelled() throws IOException {
        RunControl control = new RunControl();
        // The second half of the input never comes; somebody gives up.
        gives("n\n" + "1\n".repeat(1_000_000), call -> {
            control.cancel();
            return -1;
        });
        Path place = folder.resolve("o.csv");
        ProblemException thrown =
                failure(Inputs.stream("m", input), Outputs.file("o", place), RunOptions.DEFAULT.control(control));
        assertThat(thrown.problem().code()).isEqualTo(Code.CANCELLED);
        assertThat(control.isCancelled()).isTrue();
        assertThat(control.isComplete()).isFalse();
        assertThat(control.bytesRead()).isEqualTo(2_000_002);
        assertThat(control.recordsRead()).isPositive();
        assertThat(folder).isEmptyDirectory();
    }

    @Test
    @DisplayName("a run can be followed")
    void followed() throws IOException {
        Path rows = Files.writeString(folder.resolve("rows.csv"), "n\n" + "12\n".repeat(1_000));
        RunControl control = new RunControl();
        Language.load(COPIES).run(Inputs.file("m", rows), Outputs.NONE, RunOptions.DEFAULT.control(control));
        assertThat(control.bytesRead()).isEqualTo(3_002).isEqualTo(control.bytesInAll());
        assertThat(control.recordsRead()).isEqualTo(1_000);
        assertThat(control.isComplete()).isTrue();
    }
}
