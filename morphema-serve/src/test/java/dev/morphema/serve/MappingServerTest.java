package dev.morphema.serve;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.Inputs;
import dev.morphema.Morphema;
import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A real server answers what is posted to it. */
class MappingServerTest {
    private static final String MAPPING = """
            morphema 1
            param unit: text = "kg"
            source rows: csv { kg: number }
            target out: json(indent = 0) { for r in rows { ship = r.ship  kg = r.kg  unit = unit } }
            target doc: xml(indent = 0, declaration = false) { Rows { Row for r in rows { = r.ship } } }
            """;

    @TempDir
    private Path folder;

    private final HttpClient client = HttpClient.newHttpClient();
    private final List<String> log = new CopyOnWriteArrayList<>();
    private Path mapping;
    private MappingServer server;

    @BeforeEach
    void start() throws IOException {
        mapping = Files.writeString(folder.resolve("arrival.morphema"), MAPPING);
        server = MappingServer.of(mapping)
                .mostBytes(1_000)
                .patience(Duration.ZERO)
                .log(log::add)
                .start();
    }

    @AfterEach
    void stop() {
        server.close();
    }

    private HttpResponse<String> send(HttpRequest.Builder request) throws IOException, InterruptedException {
        return client.send(request.build(), BodyHandlers.ofString());
    }

    private HttpRequest.Builder at(String path) {
        return HttpRequest.newBuilder(server.address().resolve(path));
    }

    private HttpResponse<String> post(String path, byte[] body, String... headers)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = at(path).POST(BodyPublishers.ofByteArray(body));
        if (headers.length > 0) {
            request.headers(headers);
        }
        return send(request);
    }

    private HttpResponse<String> post(String path, String body, String... headers)
            throws IOException, InterruptedException {
        return post(path, body.getBytes(StandardCharsets.UTF_8), headers);
    }

    @Test
    @DisplayName("a message is answered with what the mapping makes of it")
    void answers() throws Exception {
        HttpResponse<String> answer = post("/arrival?unit=t", "ship,kg\nÅse,10.5\n", "Content-Type", "text/csv");
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(answer.headers().firstValue("Content-Type")).contains("application/json");
        assertThat(answer.body()).isEqualTo("[{\"ship\":\"Åse\",\"kg\":10.5,\"unit\":\"t\"}]\n");
    }

    @ParameterizedTest(name = "{0} {1}")
    @DisplayName("of several targets the one that is accepted, or named, is the answer")
    @CsvSource({
        "*/*, /arrival, application/json",
        "application/xml, /arrival, application/xml",
        "'application/json;q=0.5, text/xml', /arrival, application/xml",
        "'text/*, application/json;q=0.1', /arrival, application/xml",
        "*/*, /arrival?target=doc, application/xml"
    })
    void negotiated(String accept, String path, String type) throws Exception {
        HttpResponse<String> answer = post(path, "ship,kg\nSula,1\n", "Accept", accept);
        assertThat(answer.headers().firstValue("Content-Type")).contains(type);
    }

    private static String part(String name, String type, String content) {
        return "--b\r\nContent-Disposition: form-data; name=\"" + name + "\"\r\nContent-Type: " + type + "\r\n\r\n"
                + content + "\r\n";
    }

    @ParameterizedTest(name = "{0} {1}")
    @DisplayName("a message of several sources has a part for each")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "200 ~ rows/text/csv + ships/application/json ~ [{\"ship\":\"Sula\",\"flag\":\"XX\"}]",
                "200 ~ ships/text/plain + rows/application/octet-stream ~ \"flag\":\"XX\"",
                "415 ~ rows/text/csv + ships/text/csv ~ The part ships is json, this is text/csv.",
                "400 ~ rows/text/csv ~ The message has no part ships.",
                "400 ~ rows/text/csv + ship/application/json ~ did you mean ships?",
                "400 ~ rows/text/csv + rows/text/csv + ships/application/json ~ two parts rows"
            })
    void parts(int status, String parts, String answered) throws Exception {
        Path file = Files.writeString(folder.resolve("flags.morphema"), """
                morphema 1
                source rows: csv
                source ships: json
                table flag for s in ships key s.ship
                target out: json(indent = 0) { for r in rows { ship = r.ship  flag = flag[r.ship].flag } }
                """);
        try (MappingServer other = MappingServer.of(file)
                .patience(Duration.ZERO)
                .mostBytes(1_000)
                .log(log::add)
                .start()) {
            StringBuilder body = new StringBuilder();
            for (String part : parts.split(" \\+ ")) {
                String[] words = part.split("/", 2);
                String content = words[0].equals("rows") ? "ship\nSula\n" : "[{\"ship\": \"Sula\", \"flag\": \"XX\"}]";
                body.append(part(words[0], words[1], content));
            }
            HttpRequest.Builder request = HttpRequest.newBuilder(other.address().resolve("/flags"))
                    .header("Content-Type", "multipart/form-data; boundary=b")
                    .POST(BodyPublishers.ofString(body + "--b--\r\n"));
            HttpResponse<String> answer = send(request);
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(status);
            assertThat(answer.body()).contains(answered);
        }
    }

    @Test
    @DisplayName("parts that are too large, or end in the middle, are refused")
    void badParts() throws Exception {
        String type = "multipart/form-data; boundary=b";
        String large = part("rows", "text/csv", "ship,kg\n" + "Sula,1\n".repeat(1_000));
        assertThat(post("/arrival", large + "--b--\r\n", "Content-Type", type).statusCode())
                .isEqualTo(413);
        assertThat(post("/arrival", part("rows", "text/csv", "ship,kg\n"), "Content-Type", type)
                        .statusCode())
                .isEqualTo(400);
        String good = part("rows", "text/csv", "ship,kg\nSula,1\n") + "--b--\r\n";
        assertThat(post("/arrival", good, "Content-Type", type).body()).contains("Sula");
    }

    @ParameterizedTest(name = "{0} {2}")
    @DisplayName("what is wrong has the status of whose matter it is")
    @CsvSource(
            delimiterString = " ~ ",
            value = {
                "422 ~ /arrival ~ text/csv ~ ship,kg\\nSula,x ~ not-a-number",
                "400 ~ /arrival ~ text/csv ~ ship,kg\\n\"Sula ~ bad-csv",
                "400 ~ /arrival?unti=t ~ text/csv ~ ship,kg\\nSula,1 ~ parameter",
                "400 ~ /arrival?target=dok ~ text/csv ~ ship,kg\\nSula,1 ~ unknown-target",
                "415 ~ /arrival ~ application/json ~ {} ~ usage",
                "400 ~ /arrival ~ text/csv; charset=none ~ ship,kg ~ bad-encoding",
                "404 ~ /arival ~ text/csv ~ x ~ usage"
            })
    void problems(int status, String path, String type, String body, String code) throws Exception {
        HttpResponse<String> answer = post(path, body.replace("\\n", "\n"), "Content-Type", type);
        assertThat(answer.statusCode()).isEqualTo(status);
        assertThat(answer.headers().firstValue("Content-Type")).contains("application/problem+json");
        assertThat(answer.body())
                .startsWith("{\"type\":\"urn:morphema:problem:" + code + "\",\"title\":")
                .contains("\"status\":" + status);
    }

    @Test
    @DisplayName("a problem has its rule and its place")
    void located() throws Exception {
        assertThat(post("/arrival", "ship,kg\nSula,x\n").body())
                .contains("\"rule\":{\"mapping\":\"arrival.morphema\",\"line\":4,\"column\":")
                .contains("\"place\":{\"source\":\"rows\",\"record\":1,\"line\":2,\"field\":\"kg\"}")
                .contains("\"value\":\"x\"")
                .doesNotContain(folder.toString());
    }

    @Test
    @DisplayName("requests that cannot be answered are told as such")
    void refused() throws Exception {
        assertThat(send(at("/arrival").GET()).statusCode()).isEqualTo(405);
        assertThat(post("/arrival", "x".repeat(1_001)).statusCode()).isEqualTo(413);
        assertThat(send(at("/arrival").POST(BodyPublishers.fromPublisher(BodyPublishers.ofString("x".repeat(1_001)))))
                        .statusCode())
                .isEqualTo(413);
        assertThat(post("/arrival", "ship,kg\n", "Accept", "image/png").statusCode())
                .isEqualTo(406);
    }

    @Test
    @DisplayName("the encoding of the media type is taken")
    void encodings() throws Exception {
        byte[] latin = "ship,kg\nÅse,1\n".getBytes(StandardCharsets.ISO_8859_1);
        assertThat(post("/arrival", latin, "Content-Type", "text/csv; charset=iso-8859-1")
                        .body())
                .contains("Åse");
        assertThat(post("/arrival", latin, "Content-Type", "text/csv").statusCode())
                .isEqualTo(400);
        assertThat(post("/arrival", latin, "Content-Type", "text/csv; charset=utf-8")
                        .statusCode())
                .isEqualTo(400);
    }

    @Test
    @DisplayName("health, metrics and a description are there")
    void around() throws Exception {
        post("/arrival", "ship,kg\nSula,1\n");
        assertThat(send(at("/health")).body()).isEqualTo("{\"status\":\"up\"}\n");
        assertThat(send(at("/metrics")).body())
                .contains("morphema_messages_seconds_count{mapping=\"arrival\",status=\"200\"} 1");
        assertThat(send(at("/openapi.json")).body())
                .contains("\"/arrival\":{\"post\":")
                .contains("\"name\":\"unit\",\"in\":\"query\",\"required\":false,\"schema\":{\"type\":\"string\"}")
                .contains("\"content\":{\"text/csv\":{}}");
        assertThat(server.paths()).containsExactly("/arrival");
    }

    @Test
    @DisplayName("the description has the shapes of messages, and the parts of those that have several")
    void described() throws Exception {
        Files.writeString(folder.resolve("call.json"), """
                {"ship": "Sula", "eta": "2026-03-05", "holds": [{"kg": 1.5}], "note": null}
                """);
        Path shaped = Files.writeString(folder.resolve("shaped.morphema"), """
                morphema 1
                param least: number
                source call: json(sample = "call.json")
                target o: json { ship = call.ship  kg = sum(call.holds.kg)  least = least }
                """);
        Path parts = Files.writeString(folder.resolve("parts.morphema"), """
                morphema 1
                source a: csv
                source b: xml
                target o: json { n = count(a)  b = count(b.x) }
                """);
        try (MappingServer other =
                MappingServer.of(shaped, parts).patience(Duration.ZERO).start()) {
            String description = send(HttpRequest.newBuilder(other.address().resolve("/openapi.json")))
                    .body();
            assertThat(description)
                    .contains("\"name\":\"least\",\"in\":\"query\",\"required\":true,\"schema\":{\"type\":\"number\"}")
                    .contains("{\"application/json\":{\"schema\":{\"type\":\"object\",\"properties\":{"
                            + "\"ship\":{\"type\":\"string\"},\"eta\":{\"type\":\"string\"},"
                            + "\"holds\":{\"type\":\"array\",\"items\":{\"type\":\"object\",\"properties\":{"
                            + "\"kg\":{\"type\":\"number\"}},\"required\":[\"kg\"]}},\"note\":{}},"
                            + "\"required\":[\"ship\",\"eta\",\"holds\",\"note\"]}}}")
                    .contains("{\"multipart/form-data\":{\"schema\":{\"type\":\"object\",\"properties\":{"
                            + "\"a\":{\"type\":\"string\",\"contentMediaType\":\"text/csv\"},"
                            + "\"b\":{\"type\":\"string\",\"contentMediaType\":\"application/xml\"}},"
                            + "\"required\":[\"a\",\"b\"]}}}");
        }
    }

    /** Another content of the mapping, and a time at which it changed that is another one. */
    private void change(String text, int seconds) throws IOException {
        Files.writeString(mapping, text);
        Files.setLastModifiedTime(mapping, FileTime.from(Instant.now().plusSeconds(seconds)));
    }

    @Test
    @DisplayName("a mapping that changes is taken up when it passes the check")
    void changes() throws Exception {
        ServedMapping served = new ServedMapping(
                "arrival", mapping, Morphema.standard(), Inputs.NONE, Duration.ofSeconds(9), log::add, 0);
        change(MAPPING.replace("\"kg\"", "\"kilo\""), 1);
        assertThat(served.current().byTarget().get("out").transform("ship,kg\nSula,1\n"))
                .contains("kilo");
        change("morphema 1 target", 2);
        assertThat(served.current().byTarget().get("out").transform("ship,kg\nSula,1\n"))
                .contains("kilo");
        assertThat(log).hasSize(2);
        assertThat(log.get(0)).isEqualTo("arrival: the changed mapping is taken up");
        assertThat(log.get(1)).startsWith("arrival: the changed mapping is not taken up: ");
        Files.delete(mapping);
        assertThat(served.current().byTarget()).isNotEmpty();
    }

    @Test
    @DisplayName("sources that are not posted are given when the server starts")
    void furtherInputs() throws Exception {
        Path two = Files.writeString(folder.resolve("two.morphema"), """
                morphema 1
                source ships: csv
                source rows: csv
                table flag for s in ships key s.ship
                target o: json(indent = 0) { for r in rows { flag = flag[r.ship].flag } }
                """);
        try (MappingServer other = MappingServer.of(two)
                .inputs("two", Inputs.text("ships", "ship,flag\nSula,XX\n"))
                .start()) {
            HttpRequest request = HttpRequest.newBuilder(other.address().resolve("/two"))
                    .POST(BodyPublishers.ofString("ship\nSula\n"))
                    .build();
            assertThat(client.send(request, BodyHandlers.ofString()).body()).isEqualTo("[{\"flag\":\"XX\"}]\n");
        }
    }

    @Test
    @DisplayName("more messages at once than allowed are sent away, and those at work are ended well")
    void atOnce() throws Exception {
        CountDownLatch working = new CountDownLatch(1);
        CountDownLatch go = new CountDownLatch(1);
        Morphema slow = Morphema.builder()
                .function("slowly(x: text): text", arguments -> {
                    working.countDown();
                    try {
                        go.await();
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                    return arguments.get(0);
                })
                .build();
        Path file = Files.writeString(
                folder.resolve("slow.morphema"),
                "morphema 1 source s: csv target o: csv { for r in s { a = slowly(r.a) } }");
        MappingServer one = MappingServer.of(file).with(slow).atOnce(1).start();
        URI address = one.address().resolve("/slow");
        HttpRequest request = HttpRequest.newBuilder(address)
                .POST(BodyPublishers.ofString("a\nx\n"))
                .build();
        CompletableFuture<HttpResponse<String>> first = client.sendAsync(request, BodyHandlers.ofString());
        working.await();
        HttpResponse<String> second = client.send(request, BodyHandlers.ofString());
        assertThat(second.statusCode()).isEqualTo(503);
        assertThat(second.headers().firstValue("Retry-After")).contains("1");
        Thread end = new Thread(one::close);
        end.start();
        go.countDown();
        assertThat(first.get().body()).isEqualTo("a\nx\n");
        end.join();
    }

    @Test
    @DisplayName("a port that is taken is told")
    void takenPort() throws IOException {
        try (ServerSocket taken = new ServerSocket(0)) {
            assertThatThrownBy(() -> MappingServer.of(mapping)
                            .host("0.0.0.0")
                            .port(taken.getLocalPort())
                            .start())
                    .isInstanceOf(IOException.class);
        }
    }
}
