package dev.morphema.http;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.morphema.Inputs;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.format.Input;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Documents are got from a real server on this machine. */
class WebSourceTest {
    /** What the server gives for a path, in turn; the last stays. */
    private final Map<String, List<Answer>> answers = new HashMap<>();

    private final List<String> asked = new ArrayList<>();
    private final List<Duration> pauses = new ArrayList<>();
    private HttpServer server;

    /** An answer with headers, each a name and a value. */
    private record Answer(int status, byte[] body, String... headers) {
        Answer(int status, String body, String... headers) {
            this(status, body.getBytes(StandardCharsets.UTF_8), headers);
        }
    }

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", this::answer);
        server.start();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private void answer(HttpExchange exchange) throws IOException {
        String path = exchange.getRequestURI().toString();
        asked.add(path + " " + String.valueOf(exchange.getRequestHeaders().getFirst("Authorization")));
        List<Answer> left = answers.get(path);
        Answer answer = left.size() > 1 ? left.remove(0) : left.get(0);
        for (int i = 0; i < answer.headers().length; i += 2) {
            exchange.getResponseHeaders().add(answer.headers()[i], answer.headers()[i + 1]);
        }
        boolean cut = answer.status() < 0;
        exchange.sendResponseHeaders(Math.abs(answer.status()), answer.body().length + (cut ? 50 : 0));
        exchange.getResponseBody().write(answer.body());
        exchange.close();
    }

    private void give(String path, Answer... inTurn) {
        answers.put(path, new ArrayList<>(List.of(inTurn)));
    }

    private URI address(String path) {
        return URI.create("http://" + server.getAddress().getHostString() + ":"
                + server.getAddress().getPort() + path);
    }

    private WebSource source(String path) {
        return WebSource.at(address(path)).pauses(pauses::add);
    }

    private static List<String> texts(WebSource source) throws IOException {
        List<String> texts = new ArrayList<>();
        try (Fetched fetched = source.fetch()) {
            for (Input page : fetched.pages()) {
                try (InputStream bytes = page.open()) {
                    texts.add(new String(bytes.readAllBytes(), StandardCharsets.UTF_8));
                }
            }
        }
        return texts;
    }

    private static Problem refused(WebSource source) {
        try (Fetched fetched = source.fetch()) {
            throw new AssertionError(fetched.pages());
        } catch (ProblemException e) {
            return e.problem();
        }
    }

    private static byte[] compressed(String text) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(bytes)) {
            out.write(text.getBytes(StandardCharsets.UTF_8));
        }
        return bytes.toByteArray();
    }

    @Test
    @DisplayName("a document is got, decompressed, with the headers that were given")
    void documents() throws IOException {
        give("/rates?day=1", new Answer(200, "[1]"));
        give("/small", new Answer(200, compressed("[2]"), "Content-Encoding", "gzip"));
        assertThat(texts(source("/rates?day=1").header("Authorization", "Bearer x")))
                .containsExactly("[1]");
        assertThat(texts(source("/small"))).containsExactly("[2]");
        assertThat(asked).containsExactly("/rates?day=1 Bearer x", "/small null");
    }

    @Test
    @DisplayName("what is as it was is not got again, by what the server says or by what it sends")
    void since() {
        give("/tagged", new Answer(200, "[1]", "ETag", "\"a\""), new Answer(304, ""), new Answer(200, "[2]"));
        give("/plain", new Answer(200, "[1]"), new Answer(200, "[1]"), new Answer(200, "[2]"));
        for (String path : List.of("/tagged", "/plain")) {
            try (Fetched before = source(path).fetch()) {
                assertThat(source(path).fetchSince(before)).isEmpty();
                Fetched now = source(path).fetchSince(before).orElseThrow();
                assertThat(now.pages()).hasSize(1);
                now.close();
            }
        }
        give("/never", new Answer(304, ""));
        assertThat(refused(source("/never")).message()).startsWith("The server answers with the status 304");
    }

    @Test
    @DisplayName("pages follow links of headers and of fields, as one sequence")
    void pages() throws IOException {
        give("/a", new Answer(200, "[{\"x\":1}]", "Link", "</z>; rel=\"prev\", </a?page=2>; rel=\"next\""));
        give("/a?page=2", new Answer(200, "[{\"x\":2}]", "Link", "<a?page=3>; rel=next"));
        give("/a?page=3", new Answer(200, "[{\"x\":3}]", "Link", "</a>; rel=first"));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (Fetched fetched = source("/a").fetch()) {
            Morphema.standard()
                    .load(
                            "test.morphema",
                            "morphema 1\nsource s: json(files = many)\ntarget o: json(indent = 0) = [s.x]",
                            Path.of("."))
                    .run(Inputs.NONE.andInputs("s", fetched.pages()), Outputs.stream("o", out));
        }
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("[1,2,3]\n");

        give("/b", new Answer(200, "{\"items\": [], \"paging\": {\"next\": \"/c\"}}"));
        give("/c", new Answer(200, "{\"items\": [], \"paging\": {\"next\": null}}"));
        assertThat(texts(source("/b").nextPageAt("paging", "next"))).hasSize(2);
        assertThat(texts(source("/b"))).hasSize(1);
    }

    @Test
    @DisplayName("what may pass is asked again, after pauses that grow or that the server asks for")
    void again() throws IOException {
        give(
                "/busy",
                new Answer(503, ""),
                new Answer(429, "", "Retry-After", "7"),
                new Answer(-200, "cut"),
                new Answer(200, "[]"));
        assertThat(texts(source("/busy"))).containsExactly("[]");
        assertThat(pauses).containsExactly(Duration.ofSeconds(1), Duration.ofSeconds(7), Duration.ofSeconds(4));

        give("/away", new Answer(503, "closed", "Retry-After", "99999"));
        assertThat(refused(source("/away").attempts(2)).message())
                .isEqualTo("The server answers with the status 503: it is not ready.");
        assertThat(pauses).hasSize(4).last().isEqualTo(Duration.ofMinutes(1));
    }

    @ParameterizedTest(name = "{0}")
    @DisplayName("what will not pass is told at once")
    @CsvSource({
        "401, The server answers with the status 401: it wants to know who asks.",
        "404, The server answers with the status 404: there is nothing at this address.",
        "500, The server answers with the status 500: it has failed."
    })
    void refusals(int status, String message) {
        give("/x", new Answer(status, "because"));
        Problem problem = refused(source("/x"));
        assertThat(problem.message()).isEqualTo(message);
        assertThat(problem.code()).isEqualTo(Code.NOT_READABLE);
        assertThat(problem.value()).isEqualTo("because");
        assertThat(asked).hasSize(1);
    }

    @Test
    @DisplayName("an answer that ends in the middle is no document")
    void cut() {
        give("/x", new Answer(-200, "[1, 2"));
        assertThat(refused(source("/x").attempts(2)).message())
                .isEqualTo("The connection ended before the answer did.");
        assertThat(asked).hasSize(2);
    }

    @Test
    @DisplayName("a server that is not there is told")
    void unreachable() {
        server.stop(0);
        assertThat(refused(source("/x").attempts(1)).message()).isEqualTo("The server cannot be reached.");
    }

    @Test
    @DisplayName("a server that does not begin, or does not go on, is not waited for without end")
    void slow() throws IOException {
        CountDownLatch end = new CountDownLatch(1);
        HttpServer slow = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        ExecutorService threads = Executors.newCachedThreadPool();
        slow.setExecutor(threads);
        slow.createContext("/", exchange -> {
            if (exchange.getRequestURI().getPath().equals("/stops")) {
                exchange.sendResponseHeaders(200, 100);
                exchange.getResponseBody().write('[');
                exchange.getResponseBody().flush();
            }
            awaitQuietly(end);
            exchange.close();
        });
        slow.start();
        try {
            URI address = URI.create("http://127.0.0.1:" + slow.getAddress().getPort());
            Duration soon = Duration.ofMillis(1_500);
            assertThat(refused(WebSource.at(address.resolve("/waits"))
                                    .attempts(1)
                                    .timeout(soon))
                            .message())
                    .isEqualTo("The server did not answer within 1500 milliseconds.");
            assertThat(refused(WebSource.at(address.resolve("/stops"))
                                    .attempts(1)
                                    .timeout(soon))
                            .message())
                    .isEqualTo("The server did not go on within 1500 milliseconds.");
        } finally {
            end.countDown();
            slow.stop(0);
            threads.shutdown();
        }
    }

    private static void awaitQuietly(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Test
    @DisplayName("redirects are followed within the host")
    void redirects() throws IOException {
        give("/old", new Answer(301, "", "Location", "/new"));
        give("/new", new Answer(200, "[]"));
        assertThat(texts(source("/old").header("Authorization", "x"))).containsExactly("[]");
        give("/round", new Answer(302, "", "Location", "/round"));
        assertThat(refused(source("/round")).message()).isEqualTo("The server sends the request on and on.");
    }

    @ParameterizedTest
    @DisplayName("another host gets neither a request nor a header")
    @ValueSource(strings = {"http://other.example.org/x?token=1", "//other.example.org/x", "ftp://other.example.org/x"})
    void otherHosts(String elsewhere) {
        give("/redirect", new Answer(302, "", "Location", elsewhere));
        give("/page", new Answer(200, "[]", "Link", "<" + elsewhere + ">; rel=next"));
        for (String path : List.of("/redirect", "/page")) {
            Problem problem = refused(source(path));
            assertThat(problem.message()).isEqualTo("The server leads to another host, which is not followed.");
            assertThat(problem.value()).doesNotContain("token");
        }
    }

    @Test
    @DisplayName("pages that lead back, and answers that are too large, end")
    void endless() throws IOException {
        give("/a", new Answer(200, "[]", "Link", "</a>; rel=next"));
        assertThat(refused(source("/a")).message()).isEqualTo("The pages lead back to one that was read.");
        give("/big", new Answer(200, "x".repeat(2_000)));
        give("/bomb", new Answer(200, compressed("x".repeat(100 << 20)), "Content-Encoding", "gzip"));
        assertThat(refused(source("/big").limits(Limits.DEFAULT.with(Limit.BYTES, 1_000)))
                        .code())
                .isEqualTo(Code.LIMIT);
        assertThat(refused(source("/bomb")).code()).isEqualTo(Code.LIMIT);
    }

    @Test
    @DisplayName("only addresses of HTTP are taken, and secrets in them are not shown")
    void addresses() {
        assertThatThrownBy(() -> WebSource.at(URI.create("file:/etc/passwd")))
                .isInstanceOf(IllegalArgumentException.class);
        give("/x?key=secret", new Answer(404, ""));
        assertThat(refused(source("/x?key=secret")).toString()).contains("/x").doesNotContain("secret");
    }
}
