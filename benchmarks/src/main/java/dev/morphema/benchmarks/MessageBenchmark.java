package dev.morphema.benchmarks;

import dev.morphema.Messages;
import dev.morphema.benchmarks.hand.M1;
import dev.morphema.benchmarks.hand.M2;
import dev.morphema.benchmarks.hand.M3;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * Messages in memory: 2 kB of JSON (M1), 20 kB of XML (M2), and 20 kB of JSON whose lines are
 * grouped (M3).
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 6, time = 5)
@Measurement(iterations = 5, time = 4)
@Fork(1)
public class MessageBenchmark {
    private Messages json;
    private Messages xml;
    private Messages grouped;
    private byte[] jsonMessage;
    private byte[] xmlMessage;
    private byte[] groupedMessage;

    /** Makes the messages. */
    @Setup
    public void setUp() throws IOException {
        json = Morphemas.mapping("M1").messages("call", "out");
        xml = Morphemas.mapping("M2").messages("notice", "out");
        grouped = Morphemas.mapping("M3").messages("call", "out");
        jsonMessage = lines(20, 1);
        groupedMessage = lines(200, 12);

        StringBuilder calls = new StringBuilder("<Notice port=\"XXSKL\"><Day>2026-03-05</Day>");
        for (int i = 0; i < 100; i++) {
            calls.append("<Call imo=\"")
                    .append(9000000 + i)
                    .append("\"><Ship>Nordlys ")
                    .append(i)
                    .append("</Ship><Weight unit=\"kg\">12.50</Weight><Eta>2026-03-05T14:30:00Z</Eta><Remark>")
                    .append("calm, clear and cold ".repeat(4))
                    .append("</Remark></Call>");
        }
        xmlMessage = calls.append("</Notice>").toString().getBytes(StandardCharsets.UTF_8);
        requireEqual(m1(), m1Hand());
        requireEqual(m2(), m2Hand());
        requireEqual(m3(), m3Hand());
    }

    static byte[] lines(int count, int goods) {
        StringBuilder lines = new StringBuilder("{\"imo\":\"9000011\",\"ship\":\"Nordlys\",\"lines\":[");
        for (int i = 0; i < count; i++) {
            lines.append(i > 0 ? "," : "")
                    .append("{\"bill\":\"SKB-")
                    .append(i)
                    .append("\",\"kg\":1250.5")
                    .append(i % 10)
                    .append(",\"goods\":\"salt, in bags")
                    .append(goods > 1 ? " of kind " + i % goods : "")
                    .append("\",\"remark\":\"none at all\"}");
        }
        return lines.append("]}").toString().getBytes(StandardCharsets.UTF_8);
    }

    /** What gives another result is no rival. */
    private static void requireEqual(byte[] ours, byte[] theirs) {
        if (!Arrays.equals(ours, theirs)) {
            throw new IllegalStateException(
                    new String(ours, StandardCharsets.UTF_8) + " is not " + new String(theirs, StandardCharsets.UTF_8));
        }
    }

    /** {@return a message in JSON} */
    @Benchmark
    public byte[] m1() {
        return json.transform(jsonMessage);
    }

    /** {@return a message in XML} */
    @Benchmark
    public byte[] m2() {
        return xml.transform(xmlMessage);
    }

    /** {@return the message in JSON whose lines are grouped} */
    @Benchmark
    public byte[] m3() {
        return grouped.transform(groupedMessage);
    }

    /** {@return the message in JSON whose lines are grouped, by a program written by hand} */
    @Benchmark
    public byte[] m3Hand() throws IOException {
        return M3.convert(groupedMessage);
    }

    /** {@return the message in JSON, by a program written by hand} */
    @Benchmark
    public byte[] m1Hand() throws IOException {
        return M1.convert(jsonMessage);
    }

    /** {@return the message in XML, by a program written by hand} */
    @Benchmark
    public byte[] m2Hand() throws IOException {
        return M2.convert(xmlMessage);
    }
}
