package dev.morphema.http;

import dev.morphema.format.Limits;
import dev.morphema.problem.ProblemException;
import java.net.URI;
import java.net.http.HttpClient;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * An address from which inputs are got by HTTP (RFC 9110), perhaps in pages. Immutable and safe for
 * use by many threads.
 *
 * <pre>{@code
 * try (Fetched rates = WebSource.at(URI.create("https://rates.example.org/today")).fetch()) {
 *     mapping.run(Inputs.NONE.andInputs("rates", rates.pages()), outputs);
 * }
 * }</pre>
 *
 * <p>Redirects are followed within the host only, and so are further pages: headers that may be
 * credentials go nowhere else. What may pass, such as a server that is busy, is asked again after a
 * pause that grows.
 */
public final class WebSource {
    private static final Duration USUAL_TIMEOUT = Duration.ofSeconds(30);
    private static final int USUAL_ATTEMPTS = 4;

    private final URI address;
    private final Map<String, String> headers;
    private final Duration timeout;
    private final int attempts;
    private final List<String> nextField;
    private final Limits limits;
    private final Pauses pauses;

    private WebSource(
            URI address,
            Map<String, String> headers,
            Duration timeout,
            int attempts,
            List<String> nextField,
            Limits limits,
            Pauses pauses) {
        this.address = address;
        this.headers = headers;
        this.timeout = timeout;
        this.attempts = attempts;
        this.nextField = nextField;
        this.limits = limits;
        this.pauses = pauses;
    }

    /**
     * {@return the source at an address}
     *
     * @throws IllegalArgumentException if it is not one of HTTP
     */
    public static WebSource at(URI address) {
        boolean web = "http".equals(address.getScheme()) || "https".equals(address.getScheme());
        if (!web || address.getHost() == null) {
            throw new IllegalArgumentException("This is no address of HTTP: " + address);
        }
        return new WebSource(address, Map.of(), USUAL_TIMEOUT, USUAL_ATTEMPTS, List.of(), Limits.DEFAULT, Pauses.REAL);
    }

    /** {@return the address, whose query may hold secrets} */
    public URI address() {
        return address;
    }

    /** {@return this source, asked with one more header}, such as {@code Authorization} */
    public WebSource header(String name, String value) {
        Map<String, String> more = new LinkedHashMap<>(headers);
        more.put(Objects.requireNonNull(name), Objects.requireNonNull(value));
        return new WebSource(address, more, timeout, attempts, nextField, limits, pauses);
    }

    /** {@return this source with another time for each answer}; 30 seconds if nothing is said */
    public WebSource timeout(Duration most) {
        return new WebSource(address, headers, most, attempts, nextField, limits, pauses);
    }

    /** {@return this source, asked so many times at most}; 4 times if nothing is said */
    public WebSource attempts(int most) {
        if (most < 1) {
            throw new IllegalArgumentException("at least one attempt is made");
        }
        return new WebSource(address, headers, timeout, most, nextField, limits, pauses);
    }

    /**
     * {@return this source, whose pages name the next one in a field}; without it, and in any case
     * first, the header {@code Link} with {@code rel="next"} does (RFC 8288)
     *
     * @param path the fields that lead to the address, from the root of a JSON document
     */
    public WebSource nextPageAt(String... path) {
        return new WebSource(address, headers, timeout, attempts, List.of(path), limits, pauses);
    }

    /** {@return this source with other limits for the size of what is got} */
    public WebSource limits(Limits most) {
        return new WebSource(address, headers, timeout, attempts, nextField, most, pauses);
    }

    WebSource pauses(Pauses others) {
        return new WebSource(address, headers, timeout, attempts, nextField, limits, others);
    }

    /**
     * {@return all pages, whole}
     *
     * @throws ProblemException if one could not be got
     */
    public Fetched fetch() {
        return Objects.requireNonNull(Pages.fetch(requests(headers), address, nextField));
    }

    /**
     * {@return all pages, if there is anything new since they were got before; else empty}. A
     * server that says how to ask for what is new (RFC 9110, section 13) need not send the rest
     * again.
     *
     * @param before which is not closed yet
     * @throws ProblemException if a page could not be got
     */
    public Optional<Fetched> fetchSince(Fetched before) {
        Map<String, String> conditional = new LinkedHashMap<>(headers);
        conditional.putAll(before.conditions());
        Fetched now = Pages.fetch(requests(conditional), address, nextField);
        if (now == null) {
            return Optional.empty();
        }
        if (now.hasSameContent(before)) {
            now.close();
            return Optional.empty();
        }
        return Optional.of(now);
    }

    private Requests requests(Map<String, String> asked) {
        HttpClient client = HttpClient.newBuilder()
                .connectTimeout(timeout)
                .followRedirects(HttpClient.Redirect.NEVER)
                .build();
        return new Requests(client, asked, timeout, attempts, limits, pauses);
    }
}
