package dev.morphema.examples.spring;

import dev.morphema.Messages;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Takes calls of ships and answers with bookings. */
@RestController
class BookingController {
    private final Messages bookings;

    BookingController(Messages bookings) {
        this.bookings = bookings;
    }

    @PostMapping(
            path = "/bookings",
            consumes = MediaType.APPLICATION_JSON_VALUE,
            produces = MediaType.APPLICATION_JSON_VALUE)
    byte[] book(@RequestBody byte[] call, @RequestParam(name = "port", defaultValue = "XXSKE") String port) {
        return bookings.param("port", port).transform(call);
    }
}
