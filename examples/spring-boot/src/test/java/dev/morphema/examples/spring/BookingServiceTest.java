package dev.morphema.examples.spring;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;

/** The service as its callers see it. */
class BookingServiceTest {
    private static ConfigurableApplicationContext service;

    @BeforeAll
    static void start() {
        service = SpringApplication.run(
                BookingService.class,
                "--server.port=0",
                "--server.address=127.0.0.1",
                "--spring.main.banner-mode=off",
                "--logging.level.root=warn");
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static HttpResponse<String> post(String path, String call) throws IOException, InterruptedException {
        String port = service.getEnvironment().getProperty("local.server.port");
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                                .header("Content-Type", "application/json")
                                .POST(BodyPublishers.ofString(call))
                                .build(),
                        BodyHandlers.ofString());
    }

    @Test
    @DisplayName("a call is answered with a booking")
    void books() throws Exception {
        HttpResponse<String> answer = post(
                "/bookings?port=XXVIK", "{\"vessel\": \"Nordlys\", \"slots\": [{\"berth\": \"B2\", \"hours\": 7.5}]}");
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(answer.headers().firstValue("Content-Type")).hasValue("application/json");
        assertThat(answer.body())
                .isEqualTo("{\"port\":\"XXVIK\",\"ship\":\"NORDLYS\",\"berths\":[\"B2\"],\"hours\":7.5}\n");
    }

    @Test
    @DisplayName("a call that cannot be mapped is answered with 422, the rule and the place")
    void refuses() throws Exception {
        HttpResponse<String> answer = post("/bookings", "{\"slots\": [{\"berth\": \"B2\", \"hours\": \"many\"}]}");
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(answer.headers().firstValue("Content-Type")).hasValue("application/problem+json");
        assertThat(answer.body()).contains("\"code\":", "booking.morphema:");
    }
}
