package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A run that is made again and again, on what a server has that is new. */
class RoundsTest {
    @TempDir
    private Path folder;

    /** What the server answers, in turn: a rate, or no number for a failure; the last stays. */
    private final List<String> rates = new ArrayList<>();

    private final ByteArrayOutputStream err = new ByteArrayOutputStream();
    private HttpServer server;
    private String type = "application/json";

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            String rate = rates.size() > 1 ? rates.remove(0) : rates.get(0);
            byte[] body = ("{\"rate\":" + rate + "}").getBytes(StandardCharsets.UTF_8);
            boolean known =
                    ("\"" + rate + "\"").equals(exchange.getRequestHeaders().getFirst("If-None-Match"));
            exchange.getResponseHeaders().set("Content-Type", type);
            exchange.getResponseHeaders().set("ETag", "\"" + rate + "\"");
            exchange.sendResponseHeaders(known ? 304 : rate.equals("none") ? 404 : 200, known ? -1 : body.length);
            if (!known) {
                exchange.getResponseBody().write(body);
            }
            exchange.close();
        });
        server.start();
        Files.writeString(
                folder.resolve("rates.morphema"),
                "morphema 1\nsource rates: json\ntarget out: csv(header = false) { for r in rates { rate = 6 / r.rate } }\n");
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private int run(String... words) {
        List<String> all = new ArrayList<>(List.of("run", folder + "/rates.morphema"));
        all.addAll(List.of(words));
        return Main.run(all.toArray(String[]::new), new ByteArrayInputStream(new byte[0]), err, err);
    }

    private String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort() + "/";
    }

    /** What is told of the rounds, without the time of day. */
    private List<String> told() {
        return err.toString(StandardCharsets.UTF_8)
                .lines()
                .filter(line -> line.matches("\\d\\d:\\d\\d:\\d\\d .*"))
                .map(line -> line.substring("hh:mm:ss ".length()))
                .toList();
    }

    @Test
    @DisplayName("a round without anything new runs nothing, and one that fails is made up for by the next")
    void rounds() {
        rates.addAll(List.of("1", "1", "2", "none", "2", "0", "0", "3"));
        String out = folder.resolve("out.csv").toString();
        assertThat(run("--in", address(), "--out", out, "--append", "--every", "1ms", "--rounds", "8"))
                .isZero();
        assertThat(told())
                .containsExactly(
                        "read rates 1; written out 1",
                        "nothing new",
                        "read rates 1; written out 1",
                        "failed, nothing was written",
                        "nothing new",
                        "failed, nothing was written",
                        "failed, nothing was written",
                        "read rates 1; written out 1");
        assertThat(folder.resolve("out.csv")).hasContent("6\n3\n2\n");
    }

    @Test
    @DisplayName("the exit code is that of the last round")
    void fails() {
        rates.add("none");
        assertThat(run("--in", address(), "--every", "PT0.001S", "--rounds", "2"))
                .isEqualTo(ExitCode.FILE);
        assertThat(told()).hasSize(2);
    }

    @Test
    @DisplayName("with --quiet only what fails is told")
    void quiet() {
        rates.addAll(List.of("1", "none", "2"));
        assertThat(run("--in", address(), "--every", "1ms", "--rounds", "3", "--quiet"))
                .isZero();
        assertThat(told()).containsExactly("failed, nothing was written");
    }

    @Test
    @DisplayName("a page for people in place of data is told")
    void pageForPeople() {
        rates.add("1");
        type = "text/html; charset=utf-8";
        assertThat(run("--in", address())).isEqualTo(ExitCode.FILE);
        assertThat(err.toString(StandardCharsets.UTF_8))
                .contains("The server sends a page for people (text/html), and no json.");
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what makes no sense again and again is told")
    @CsvSource({
        "--every 5 minutes, This is no period of time",
        "--every 0s, This is no period of time",
        "--every 1s --rounds 0, --rounds takes a number from 1 on",
        "--rounds 2, --rounds says something of --every",
        "--every 1s --in -, --every reads again",
        "--every 1s --summary FOLDER/s.json, --every makes many"
    })
    void usage(String words, String message) {
        List<String> all = new ArrayList<>(List.of(words.replace("5 minutes", "5minutes")
                .replace("FOLDER", folder.toString())
                .split(" ")));
        if (!all.contains("--in")) {
            all.addAll(List.of("--in", "rates.json"));
        }
        assertThat(run(all.toArray(String[]::new))).isEqualTo(ExitCode.USAGE);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains(message);
    }
}
