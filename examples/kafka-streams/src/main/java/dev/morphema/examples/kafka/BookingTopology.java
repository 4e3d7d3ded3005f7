package dev.morphema.examples.kafka;

import dev.morphema.Messages;
import dev.morphema.Morphema;
import java.util.Properties;
import org.apache.kafka.common.serialization.Serdes;
import org.apache.kafka.streams.KafkaStreams;
import org.apache.kafka.streams.StreamsBuilder;
import org.apache.kafka.streams.StreamsConfig;
import org.apache.kafka.streams.Topology;
import org.apache.kafka.streams.kstream.Consumed;
import org.apache.kafka.streams.kstream.Named;
import org.apache.kafka.streams.kstream.Produced;

/**
 * Maps each message of the topic {@code calls}: what becomes of it goes to {@code bookings}, and
 * what cannot be mapped goes to {@code calls-refused} as it came, with the reason in a header.
 */
public final class BookingTopology {
    static final String CALLS = "calls";
    static final String BOOKINGS = "bookings";
    static final String REFUSED = "calls-refused";

    private BookingTopology() {}

    /** Runs the topology until the program is stopped; its argument is the address of a broker. */
    public static void main(String[] args) {
        Properties settings = new Properties();
        settings.put(StreamsConfig.APPLICATION_ID_CONFIG, "bookings");
        settings.put(StreamsConfig.BOOTSTRAP_SERVERS_CONFIG, args[0]);
        KafkaStreams streams = new KafkaStreams(topology(), settings);
        Runtime.getRuntime().addShutdownHook(new Thread(streams::close));
        streams.start();
    }

    /** {@return the topology; all of its threads share the one mapping} */
    static Topology topology() {
        Messages bookings = Morphema.standard()
                .load(BookingTopology.class.getClassLoader(), "booking.morphema")
                .messages("call", "booking");
        StreamsBuilder builder = new StreamsBuilder();
        var mapped = builder.stream(CALLS, Consumed.with(Serdes.String(), Serdes.ByteArray()))
                .processValues(() -> new Mapping(bookings), Named.as("booking"));
        mapped.filter((key, value) -> value.isMapped())
                .mapValues(Mapped::message)
                .to(BOOKINGS, Produced.with(Serdes.String(), Serdes.ByteArray()));
        mapped.filterNot((key, value) -> value.isMapped())
                .mapValues(Mapped::message)
                .to(REFUSED, Produced.with(Serdes.String(), Serdes.ByteArray()));
        return builder.build();
    }
}
