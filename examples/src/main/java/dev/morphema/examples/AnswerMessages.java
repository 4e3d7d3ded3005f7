package dev.morphema.examples;

import dev.morphema.Messages;
import dev.morphema.Morphema;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;

/**
 * Transforms one message in memory, as a service would for each request; all threads share the one
 * object.
 */
public final class AnswerMessages {
    private static final String MAPPING = """
            morphema 1
            source call: json
            target booking: json(indent = 0) {
              ship   = upper(call.vessel)
              berths = [call.slots.berth]
              hours  = sum(call.slots.hours)
            }
            """;

    private AnswerMessages() {}

    public static void main(String[] args) {
        Messages bookings = Morphema.standard()
                .load("booking.morphema", MAPPING, Path.of("."))
                .messages("call", "booking");
        byte[] call = "{\"vessel\": \"Nordlys\", \"slots\": [{\"berth\": \"B2\", \"hours\": 7.5}]}"
                .getBytes(StandardCharsets.UTF_8);
        System.out.print(new String(bookings.transform(call), StandardCharsets.UTF_8));
    }
}
