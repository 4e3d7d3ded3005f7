package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.lang.ref.WeakReference;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** What mappings learn while they run dies with them, and slows down no other. */
class NoStateOutsideOfRunsTest {
    private static final int OTHERS = 10_000;
    private static final int RECORDS = 500;
    private static final int TRIES = 50;

    private final ThreadMXBean thread = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    private final List<WeakReference<Messages>> ended = new ArrayList<>();

    /**
     * Records from an input, records that the mapping makes, members with a name of their loop, and
     * parsed texts.
     */
    private static Messages messages(String field) {
        String body = """
                source rows: json
                target out: json(indent = 0) {
                  for r in rows let twice = r.%1$s * 2 group by k = r.k as rs {
                    k = k
                    %1$s? { sum = sum(rs.twice) }
                    all for m in rs => { %1$s = m.%1$s  t = m.twice }
                    parsed = json('{"%1$s": 1}').%1$s
                    any = count(r2(rs))
                  }
                }
                define r2(rs) = [{ x_%1$s = [r.*] } for r in rs]
                """;
        return Language.load(String.format(body, field)).messages("rows", "out");
    }

    private static byte[] message(String field, int records) {
        return IntStream.range(0, records)
                .mapToObj(i -> "{\"k\":" + i % 7 + ",\"" + field + "\":" + i + "}")
                .collect(Collectors.joining(",", "[", "]"))
                .getBytes(StandardCharsets.UTF_8);
    }

    private long allocatedBy(Messages messages, byte[] message) {
        long before = thread.getCurrentThreadAllocatedBytes();
        messages.transform(message);
        return thread.getCurrentThreadAllocatedBytes() - before;
    }

    private long least(Messages messages, byte[] message) {
        return IntStream.range(0, TRIES)
                .mapToLong(i -> allocatedBy(messages, message))
                .min()
                .orElseThrow();
    }

    private void runOthers() {
        for (int i = 0; i < OTHERS; i++) {
            Messages other = messages("f" + i);
            assertThat(other.transform(message("f" + i, 2))).isNotEmpty();
            if (i % 1_000 == 0) {
                ended.add(new WeakReference<>(other));
            }
        }
    }

    @Test
    @DisplayName("10,000 other mappings leave nothing behind, and take nothing from one that ran before")
    void others() throws InterruptedException {
        byte[] message = message("weight", RECORDS);
        Messages first = messages("weight");
        long before = least(first, message);
        runOthers();
        assertThat(least(first, message)).isLessThanOrEqualTo(before + before / 50);
        assertThat(least(messages("height"), message("height", RECORDS))).isLessThanOrEqualTo(before + before / 50);
        for (int i = 0; i < TRIES && ended.stream().anyMatch(other -> other.get() != null); i++) {
            System.gc();
            Thread.onSpinWait();
        }
        assertThat(ended).allMatch(other -> other.get() == null);
    }
}
