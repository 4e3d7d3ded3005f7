package dev.morphema.serve;

import io.micrometer.core.instrument.Timer;
import io.micrometer.prometheusmetrics.PrometheusConfig;
import io.micrometer.prometheusmetrics.PrometheusMeterRegistry;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;

/** Counts and times messages. Safe for use by many threads. */
final class Meters {
    private final PrometheusMeterRegistry registry = new PrometheusMeterRegistry(PrometheusConfig.DEFAULT);
    /** To find a timer by its name and tags takes longer than some messages. */
    private final Map<Kind, Timer> timers = new ConcurrentHashMap<>();

    private final AtomicInteger atWork = registry.gauge("morphema.messages.at.work", new AtomicInteger());

    /** Messages that are counted together. */
    private record Kind(String mapping, int status) {}

    Meters(Set<String> mappings) {
        mappings.forEach(mapping -> timer(mapping, 200));
    }

    private Timer timer(String mapping, int status) {
        return timers.computeIfAbsent(new Kind(mapping, status), this::made);
    }

    private Timer made(Kind kind) {
        return Timer.builder("morphema.messages")
                .description("Messages that were answered")
                .tag("mapping", kind.mapping())
                .tag("status", String.valueOf(kind.status()))
                .register(registry);
    }

    /** {@return what tells when a message was taken} */
    Timer.Sample begin() {
        atWork.incrementAndGet();
        return Timer.start(registry);
    }

    void end(Timer.Sample begun, String mapping, int status) {
        atWork.decrementAndGet();
        begun.stop(timer(mapping, status));
    }

    /** {@return all as a text that Prometheus reads} */
    String text() {
        return registry.scrape();
    }
}
