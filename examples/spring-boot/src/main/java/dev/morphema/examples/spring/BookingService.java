package dev.morphema.examples.spring;

import dev.morphema.Messages;
import dev.morphema.Morphema;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;

/** A service whose answers a mapping makes. The mapping is checked when the service starts. */
@SpringBootApplication
public class BookingService {
    /** Starts the service; {@code --server.port=8090} names its port. */
    public static void main(String[] args) {
        SpringApplication.run(BookingService.class, args);
    }

    /** The mapping as a bean: immutable, for all threads. */
    @Bean
    Messages bookings() {
        return Morphema.standard()
                .load(BookingService.class.getClassLoader(), "booking.morphema")
                .messages("call", "booking");
    }
}
