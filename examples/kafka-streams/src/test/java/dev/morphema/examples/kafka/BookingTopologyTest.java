package dev.morphema.examples.kafka;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Properties;
import org.apache.kafka.common.serialization.StringDeserializer;
import org.apache.kafka.common.serialization.StringSerializer;
import org.apache.kafka.streams.StreamsConfig;
import org.apache.kafka.streams.TestOutputTopic;
import org.apache.kafka.streams.TopologyTestDriver;
import org.apache.kafka.streams.test.TestRecord;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** The topology, without a broker. */
class BookingTopologyTest {
    private TopologyTestDriver driver;

    @BeforeEach
    void start() {
        Properties settings = new Properties();
        settings.put(StreamsConfig.APPLICATION_ID_CONFIG, "test");
        driver = new TopologyTestDriver(BookingTopology.topology(), settings);
    }

    @AfterEach
    void stop() {
        driver.close();
    }

    private void send(String key, String call) {
        driver.createInputTopic(BookingTopology.CALLS, new StringSerializer(), new StringSerializer())
                .pipeInput(key, call);
    }

    private TestOutputTopic<String, String> topic(String name) {
        return driver.createOutputTopic(name, new StringDeserializer(), new StringDeserializer());
    }

    @Test
    @DisplayName("a message that can be mapped comes out mapped, under its key")
    void maps() {
        send("c1", "{\"vessel\": \"Nordlys\", \"slots\": [{\"berth\": \"B2\", \"hours\": 7.5}]}");
        TestRecord<String, String> booking = topic(BookingTopology.BOOKINGS).readRecord();
        assertThat(booking.key()).isEqualTo("c1");
        assertThat(booking.value()).isEqualTo("{\"ship\":\"NORDLYS\",\"berths\":[\"B2\"],\"hours\":7.5}\n");
        assertThat(topic(BookingTopology.REFUSED).isEmpty()).isTrue();
    }

    @Test
    @DisplayName("one that cannot goes aside as it came, with the reason")
    void refuses() {
        send("c2", "{\"vessel\": \"Nordlys\", \"slots\": [{\"hours\": \"many\"}]}");
        TestRecord<String, String> refused = topic(BookingTopology.REFUSED).readRecord();
        assertThat(refused.value()).contains("many");
        String problem =
                new String(refused.headers().lastHeader(Mapping.PROBLEM).value(), StandardCharsets.UTF_8);
        assertThat(problem).contains("booking.morphema:8");
        assertThat(topic(BookingTopology.BOOKINGS).isEmpty()).isTrue();
    }
}
