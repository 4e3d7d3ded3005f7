package dev.morphema.benchmarks;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.SplittableRandom;

/**
 * Makes the inputs of the workloads, about a harbour that is made up. The same size gives the same
 * bytes.
 */
final class Generator {
    private static final String[] KINDS = {"BX", "DR", "PL", "BG", "CT", "RL"};
    private static final String[] REMARKS = {
        "calm and clear", "fog, \"thick\" at the outer pier", "søndre molo", "", "ice on the quay", "none"
    };

    private final SplittableRandom random = new SplittableRandom(20260305);
    private final Path file;
    private final long bytes;
    private long written;

    private Generator(Path file, long bytes) {
        this.file = file;
        this.bytes = bytes;
    }

    /** One line, record or element, by its number from 0. */
    @FunctionalInterface
    private interface Piece {
        String at(int number);
    }

    /**
     * Makes an input if it is not there.
     *
     * @param file where it is, or will be
     * @param bytes about how many it is to have
     */
    static void make(Path file, long bytes) throws IOException {
        if (Files.exists(file)) {
            return;
        }
        Generator generator = new Generator(file, bytes);
        switch (file.getFileName().toString()) {
            case "gauges.csv" ->
                generator.write("gauge;time;level;temperature;status;remark\n", generator::gauge, "", "");
            case "cargo.jsonl" -> generator.write("", generator::cargo, "", "");
            case "calls.xml" ->
                generator.write(
                        "<?xml version=\"1.0\"?>\n<Calls xmlns=\"urn:example:calls\">\n",
                        generator::call,
                        "",
                        "</Calls>\n");
            case "bookings.json" -> generator.write("[\n", generator::booking, ",\n", "\n]\n");
            case "sorted.csv" -> generator.write("day,imo,bill,kg\n", generator::sortedLine, "", "");
            case "unsorted.csv" -> generator.write("bill,kg,kind\n", generator::unsortedLine, "", "");
            case "visits.csv" -> generator.write("berth,day,kind\n", generator::visit, "", "");
            case "bills.csv" -> generator.write("bill,shipper,consignee\n", generator::bill, "", "");
            default -> throw new IllegalArgumentException("no such input: " + file);
        }
    }

    private void write(String head, Piece piece, String between, String tail) throws IOException {
        try (Writer out = new BufferedWriter(Files.newBufferedWriter(file, StandardCharsets.UTF_8), 1 << 16)) {
            out.write(head);
            for (int i = 0; written < bytes; i++) {
                String text = (i > 0 ? between : "") + piece.at(i);
                out.write(text);
                written += text.length();
            }
            out.write(tail);
        }
    }

    private static String two(int number) {
        return number < 10 ? "0" + number : Integer.toString(number);
    }

    private String decimal(int most, int digits) {
        return String.format(Locale.ROOT, "%." + digits + "f", random.nextInt(most * 100) / 100.0);
    }

    private String remark() {
        return REMARKS[random.nextInt(REMARKS.length)];
    }

    private String kind() {
        return KINDS[random.nextInt(KINDS.length)];
    }

    private String gauge(int i) {
        return "G" + two(i % 40) + ";" + two(1 + i % 28) + "." + two(1 + i / 28 % 12) + ".2026 " + two(i % 24) + ":"
                + two(i % 60) + ";" + decimal(9, 2).replace('.', ',') + ";" + decimal(30, 1) + ";ok;\""
                + remark().replace("\"", "\"\"") + "\"\n";
    }

    private String cargo(int i) {
        return "{\"bill\":\"SKB-" + i + "\",\"ship\":{\"imo\":\"" + (9000000 + i % 997) + "\",\"name\":\"Nordlys "
                + i % 997
                + "\"},\"kind\":\"" + kind() + "\",\"count\":" + i % 90 + ",\"kg\":" + decimal(20000, 2) + ",\"rate\":"
                + decimal(9, 2)
                + ",\"remark\":\"" + remark().replace("\"", "\\\"") + "\"}\n";
    }

    private String call(int i) {
        return "<Call no=\"" + i + "\" imo=\"" + (9000000 + i % 997) + "\">\n  <Ship>Nordlys " + i % 997
                + "</Ship>\n  <Eta>2026-"
                + two(1 + i % 12) + "-" + two(1 + i % 28) + "T" + two(i % 24) + ":" + two(i % 60)
                + ":00Z</Eta>\n  <Berth>B" + i % 40
                + "</Berth>\n  <Weight unit=\"kg\">" + decimal(20000, 2) + "</Weight>\n  <Agent><Name>Agent &amp; "
                + i % 50
                + "</Name></Agent>\n  <Remark>" + remark() + "</Remark>\n</Call>\n";
    }

    private String booking(int i) {
        StringBuilder slots = new StringBuilder();
        for (int s = 0; s <= i % 3; s++) {
            slots.append(s > 0 ? "," : "")
                    .append("{\"crane\":\"C")
                    .append(s + 1)
                    .append("\",\"from\":\"")
                    .append(two(i % 24))
                    .append(":00\",\"moves\":")
                    .append(random.nextInt(200))
                    .append('}');
        }
        return "{\"imo\":\"" + (9000000 + i % 997) + "\",\"ship\":\"Nordlys & Sula " + i % 997 + "\",\"berth\":\"B"
                + i % 40
                + "\",\"draught\":" + decimal(12, 2) + ",\"slots\":[" + slots + "],\"remark\":\""
                + remark().replace("\"", "\\\"") + "\"}";
    }

    private String sortedLine(int i) {
        return "2026-" + two(1 + i / 28_000 % 12) + "-" + two(1 + i / 1_000 % 28) + "," + (9000000 + i / 50) + ",SKB-"
                + i / 5 + "," + decimal(20000, 2) + "\n";
    }

    private String unsortedLine(int i) {
        return "SKB-" + random.nextInt(100_000) + "," + decimal(20000, 2) + "," + kind() + "\n";
    }

    private String visit(int i) {
        return "B" + random.nextInt(40) + ",2026-" + two(1 + random.nextInt(12)) + "-" + two(1 + random.nextInt(28))
                + "," + kind() + "\n";
    }

    private String bill(int i) {
        return "SKB-" + i + ",Shipper " + i % 1999 + ",\"Consignee, no. " + i % 777 + "\"\n";
    }
}
