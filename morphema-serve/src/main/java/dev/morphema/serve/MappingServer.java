package dev.morphema.serve;

import dev.morphema.Inputs;
import dev.morphema.Morphema;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import org.eclipse.jetty.server.HttpConfiguration;
import org.eclipse.jetty.server.HttpConnectionFactory;
import org.eclipse.jetty.server.Server;
import org.eclipse.jetty.server.ServerConnector;
import org.eclipse.jetty.server.handler.GracefulHandler;
import org.eclipse.jetty.util.thread.QueuedThreadPool;

/**
 * Answers messages that are posted with what mappings make of them. A mapping {@code
 * arrival.morphema} is at {@code /arrival}; a mapping that changes is taken up when it passes the
 * check. Safe for use by many threads.
 *
 * <pre>{@code
 * try (MappingServer server = MappingServer.of(Path.of("arrival.morphema")).port(8080).start()) {
 *     server.join();
 * }
 * }</pre>
 */
public final class MappingServer implements AutoCloseable {
    private final Server server;
    private final ServerConnector connector;

    private MappingServer(Server server, ServerConnector connector) {
        this.server = server;
        this.connector = connector;
    }

    /** {@return what starts a server of some mappings, on this machine alone if nothing is said} */
    public static Builder of(Path... mappings) {
        return new Builder(List.of(mappings));
    }

    /** Says how mappings are served. Not thread-safe. */
    public static final class Builder {
        private static final int USUAL_BYTES = 16 << 20;
        private static final int USUAL_AT_ONCE = 64;

        private final List<Path> mappings;
        private Morphema morphema = Morphema.standard();
        private final Map<String, Inputs> further = new LinkedHashMap<>();
        private String host = InetAddress.getLoopbackAddress().getHostAddress();
        private int port;
        private int mostBytes = USUAL_BYTES;
        private int atOnce = USUAL_AT_ONCE;
        private Duration most = Duration.ofSeconds(30);
        private Duration patience = Duration.ofSeconds(10);
        private Consumer<String> log = line -> {};

        private Builder(List<Path> mappings) {
            this.mappings = mappings;
        }

        /** Sets what loads the mappings; the standard one if nothing is said. */
        public Builder with(Morphema other) {
            morphema = Objects.requireNonNull(other);
            return this;
        }

        /** Sets the inputs of the sources of a mapping that are not posted. */
        public Builder inputs(String mapping, Inputs inputs) {
            further.put(mapping, Objects.requireNonNull(inputs));
            return this;
        }

        /** Sets the port; a free one if nothing is said. */
        public Builder port(int number) {
            port = number;
            return this;
        }

        /** Sets the address to listen at; only this machine if nothing is said. */
        public Builder host(String name) {
            host = Objects.requireNonNull(name);
            return this;
        }

        /** Sets how many bytes a message may have; 16 MB if nothing is said. */
        public Builder mostBytes(int bytes) {
            mostBytes = bytes;
            return this;
        }

        /** Sets how many messages may be at work at once; 64 if nothing is said. */
        public Builder atOnce(int messages) {
            atOnce = messages;
            return this;
        }

        /** Sets how long one message may take; 30 seconds if nothing is said. */
        public Builder timeout(Duration longest) {
            most = Objects.requireNonNull(longest);
            return this;
        }

        /** Sets how long the end waits for messages at work; 10 seconds if nothing is said. */
        public Builder patience(Duration longest) {
            patience = Objects.requireNonNull(longest);
            return this;
        }

        /** Sets what takes a line for each thing that happens: mappings taken up, or not. */
        public Builder log(Consumer<String> lines) {
            log = Objects.requireNonNull(lines);
            return this;
        }

        /**
         * {@return the server, which answers from now on}
         *
         * @throws ProblemException if a mapping cannot be run, or has no single source to post to
         * @throws IOException if the port cannot be had
         */
        public MappingServer start() throws IOException {
            Map<String, ServedMapping> served = new LinkedHashMap<>();
            for (Path file : mappings) {
                String name = file.getFileName().toString().replaceFirst("\\.[^.]*$", "");
                Inputs inputs = further.getOrDefault(name, Inputs.NONE);
                served.put(
                        name,
                        new ServedMapping(name, file, morphema, inputs, most, log, ServedMapping.NANOS_BETWEEN_LOOKS));
            }
            QueuedThreadPool threads = new QueuedThreadPool(Math.max(16, atOnce + 8));
            threads.setName("morphema");
            Server server = new Server(threads);
            HttpConfiguration http = new HttpConfiguration();
            http.setSendServerVersion(false);
            ServerConnector connector = new ServerConnector(server, new HttpConnectionFactory(http));
            connector.setHost(host);
            connector.setPort(port);
            server.addConnector(connector);
            server.setStopTimeout(patience.toMillis());
            server.setHandler(new GracefulHandler(new Answers(served, mostBytes, atOnce, new Meters(served.keySet()))));
            try {
                server.start();
            } catch (IOException e) {
                throw e;
            } catch (Exception e) {
                throw new IOException(e.getMessage(), e);
            }
            return new MappingServer(server, connector);
        }
    }

    /** {@return the address that it answers at} */
    public URI address() {
        return URI.create("http://" + connector.getHost() + ":" + connector.getLocalPort() + "/");
    }

    /** {@return the paths that messages are posted to} */
    public List<String> paths() {
        List<String> paths = new ArrayList<>();
        server.getDescendants(Answers.class).forEach(answers -> paths.addAll(answers.paths()));
        return paths;
    }

    /** Waits until the server has stopped. */
    public void join() throws InterruptedException {
        server.join();
    }

    /** Takes no more messages, and ends when those at work are done or have taken too long. */
    @Override
    public void close() {
        try {
            server.stop();
        } catch (Exception e) {
            throw new IllegalStateException("The server cannot be stopped.", e);
        }
    }
}
