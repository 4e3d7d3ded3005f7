package dev.morphema.serve;

import io.micrometer.core.instrument.Timer;
import io.micrometer.prometheusmetrics.PrometheusConfig;
import io.micrometer.prometheusmetrics.PrometheusMeterRegistry;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;

/** Counts and times messages. Safe for use by many threads. */
final class Meters {
    private final PrometheusMeterRegistry registry = new PrometheusMeterRegistry(PrometheusConfig.DEFAULT);
    private final AtomicInteger atWork = registry.gauge("morphema.messages.at.work", new AtomicInteger());

    Meters(Set<String> mappings) {
        mappings.forEach(mapping -> timer(mapping, 200));
    }

    private Timer timer(String mapping, int status) {
        return Timer.builder("morphema.messages")
                .description("Messages that were answered")
                .tag("mapping", mapping)
                .tag("status", String.valueOf(status))
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
