package dev.morphema.http;

import dev.morphema.format.GrowingStream;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import dev.morphema.output.Spool;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpHeaders;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;

/** Asks for documents, again where that may help. */
final class Requests {
    private static final Set<Integer> REDIRECTS = Set.of(301, 302, 303, 307, 308);
    /** Too many requests, and servers that are busy or away for a while. */
    private static final Set<Integer> MAY_PASS = Set.of(408, 425, 429, 502, 503, 504);

    /** Headers that ask for what is new only. */
    private static final Set<String> CONDITIONS = Set.of("If-None-Match", "If-Modified-Since");

    private static final int MOST_REDIRECTS = 5;
    private static final Duration LONGEST_PAUSE = Duration.ofMinutes(1);
    private static final int SHOWN = 200;

    private final HttpClient client;
    private final Map<String, String> headers;
    private final Duration timeout;
    private final int attempts;
    private final Limits limits;
    private final Pauses pauses;

    Requests(
            HttpClient client,
            Map<String, String> headers,
            Duration timeout,
            int attempts,
            Limits limits,
            Pauses pauses) {
        this.client = client;
        this.headers = headers;
        this.timeout = timeout;
        this.attempts = attempts;
        this.limits = limits;
        this.pauses = pauses;
    }

    /**
     * What a server answered.
     *
     * @param address from which it came in the end
     * @param bytes decompressed; null if it is as it was, by the conditions that were sent
     * @param links the headers of that name
     * @param type the media type that it is sent as, or null
     * @param conditions headers by which only what is new is asked for
     */
    record Answer(
            URI address,
            @Nullable Spool bytes,
            List<String> links,
            @Nullable String type,
            Map<String, String> conditions) {}

    /** An answer that may be another one in a while. */
    private static final class PassingException extends Exception {
        private static final long serialVersionUID = 1L;

        private final transient ProblemException problem;
        private final transient @Nullable Duration pause;

        PassingException(ProblemException problem, @Nullable Duration pause) {
            this.problem = problem;
            this.pause = pause;
        }
    }

    /**
     * {@return the document at an address}
     *
     * @param first whose host may not be left
     */
    Answer get(URI address, URI first) {
        for (int attempt = 1; ; attempt++) {
            try {
                return followed(address, first);
            } catch (PassingException e) {
                if (attempt >= attempts) {
                    throw e.problem;
                }
                pause(e.pause == null ? Duration.ofSeconds(1L << Math.min(attempt - 1, 10)) : e.pause);
            }
        }
    }

    private void pause(Duration wanted) {
        try {
            pauses.pause(wanted.compareTo(LONGEST_PAUSE) > 0 ? LONGEST_PAUSE : wanted);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new ProblemException(Problem.error(Code.CANCELLED, "The run was cancelled."), e);
        }
    }

    private Answer followed(URI address, URI first) throws PassingException {
        URI at = address;
        for (int i = 0; i <= MOST_REDIRECTS; i++) {
            HttpResponse<InputStream> response = send(at);
            String location = response.headers().firstValue("Location").orElse(null);
            if (!REDIRECTS.contains(response.statusCode()) || location == null) {
                return answer(at, response);
            }
            close(response);
            at = within(first, at, location);
        }
        throw refused(address, "The server sends the request on and on.", null);
    }

    /** {@return an address that a server names, which must be of the host that was asked} */
    URI within(URI first, URI from, String named) {
        URI to;
        try {
            to = from.resolve(named);
        } catch (IllegalArgumentException e) {
            throw refused(from, "The server names an address that is none.", named);
        }
        boolean same = first.getHost().equalsIgnoreCase(String.valueOf(to.getHost()))
                && (first.getScheme().equals(to.getScheme()) || "https".equals(to.getScheme()));
        if (!same) {
            throw refused(from, "The server leads to another host, which is not followed.", shown(to));
        }
        return to;
    }

    private HttpResponse<InputStream> send(URI address) throws PassingException {
        HttpRequest.Builder request =
                HttpRequest.newBuilder(address).timeout(timeout).header("Accept-Encoding", "gzip");
        headers.forEach(request::setHeader);
        try {
            return client.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
        } catch (IOException e) {
            throw new PassingException(unreachable(address, e), null);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new ProblemException(Problem.error(Code.CANCELLED, "The run was cancelled."), e);
        }
    }

    private ProblemException unreachable(URI address, IOException e) {
        if (e instanceof SSLException) {
            return refused(address, "No secure connection to the server can be made: " + e.getMessage() + ".", null);
        } else if (e instanceof ConnectException) {
            return refused(address, "The server cannot be reached.", null);
        } else if (e instanceof HttpTimeoutException) {
            return refused(address, "The server did not answer within " + shown(timeout) + ".", null);
        }
        return refused(address, "The connection ended before the answer did.", null);
    }

    private Answer answer(URI address, HttpResponse<InputStream> response) throws PassingException {
        int status = response.statusCode();
        if (status == 304 && headers.keySet().stream().anyMatch(CONDITIONS::contains)) {
            close(response);
            return new Answer(address, null, List.of(), null, Map.of());
        }
        if (status != 200) {
            String start = start(response);
            ProblemException problem = refused(
                    address,
                    "The server answers with the status " + status + meaning(status) + ".",
                    start.isBlank() ? null : start);
            if (MAY_PASS.contains(status)) {
                throw new PassingException(problem, pauseAsked(response));
            }
            throw problem;
        }
        return new Answer(
                address,
                spooled(address, response),
                response.headers().allValues("Link"),
                response.headers().firstValue("Content-Type").orElse(null),
                conditions(response.headers()));
    }

    private static Map<String, String> conditions(HttpHeaders headers) {
        Map<String, String> conditions = new LinkedHashMap<>();
        headers.firstValue("ETag").ifPresent(tag -> conditions.put("If-None-Match", tag));
        headers.firstValue("Last-Modified").ifPresent(time -> conditions.put("If-Modified-Since", time));
        return conditions;
    }

    private static String meaning(int status) {
        return switch (status) {
            case 204 -> ", which has no content";
            case 400 -> ", a request that it does not understand";
            case 401 -> ": it wants to know who asks";
            case 403 -> ": it does not allow this";
            case 404, 410 -> ": there is nothing at this address";
            case 408, 429 -> ": it was asked too often or too slowly";
            case 500 -> ": it has failed";
            case 502, 503, 504 -> ": it is not ready";
            default -> "";
        };
    }

    /** The header {@code Retry-After} in seconds (RFC 9110); dates are not taken. */
    private static @Nullable Duration pauseAsked(HttpResponse<?> response) {
        return response.headers()
                .firstValue("Retry-After")
                .filter(value -> value.matches("\\d{1,6}"))
                .map(value -> Duration.ofSeconds(Long.parseLong(value)))
                .orElse(null);
    }

    private static String start(HttpResponse<InputStream> response) {
        try (InputStream body = response.body()) {
            return new String(body.readNBytes(SHOWN), StandardCharsets.UTF_8).strip();
        } catch (IOException e) {
            return "";
        }
    }

    private static void close(HttpResponse<InputStream> response) {
        try {
            response.body().close();
        } catch (IOException e) {
            // It is not wanted any more.
        }
    }

    private Spool spooled(URI address, HttpResponse<InputStream> response) throws PassingException {
        Spool spool = new Spool();
        boolean compressed = response.headers()
                .firstValue("Content-Encoding")
                .filter("gzip"::equalsIgnoreCase)
                .isPresent();
        Stall stall = Stall.of(response.body(), timeout);
        try (stall;
                InputStream body = response.body();
                InputStream bytes = compressed ? GrowingStream.of(shown(address), body, limits) : body) {
            byte[] buffer = new byte[1 << 16];
            for (int read = bytes.read(buffer); read >= 0; read = bytes.read(buffer)) {
                stall.progress();
                spool.write(buffer, 0, read);
                if (spool.size() > limits.most(Limit.BYTES)) {
                    throw limits.exceeded(Limit.BYTES, InputLocation.at(shown(address), 0, 0));
                }
            }
            return spool;
        } catch (IOException e) {
            spool.delete();
            throw new PassingException(
                    stall.isStalled()
                            ? refused(address, "The server did not go on within " + shown(timeout) + ".", null)
                            : unreachable(address, e),
                    null);
        } catch (RuntimeException e) {
            spool.delete();
            throw e;
        }
    }

    ProblemException refused(URI address, String message, @Nullable String value) {
        return new ProblemException(Problem.error(Code.NOT_READABLE, message)
                .in(InputLocation.at(shown(address), 0, 0))
                .withValue(value));
    }

    private static String shown(Duration time) {
        return time.toMillis() % 1_000 == 0 ? time.toSeconds() + " seconds" : time.toMillis() + " milliseconds";
    }

    /** {@return an address as messages show it}, without what may be a secret */
    static String shown(URI address) {
        String port = address.getPort() < 0 ? "" : ":" + address.getPort();
        return address.getScheme() + "://" + address.getHost() + port
                + (address.getPath() == null ? "" : address.getPath());
    }
}
