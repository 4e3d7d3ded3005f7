package dev.morphema.cli;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * A small service of exchange rates, for the demo: it answers this machine with what is in a file.
 */
final class RatesService implements AutoCloseable {
    private final HttpServer server;

    private RatesService(HttpServer server) {
        this.server = server;
    }

    /** @param rates the file of the answer */
    static RatesService start(Path rates) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/rates", exchange -> {
            try (exchange) {
                byte[] answer = Files.readAllBytes(rates);
                exchange.getResponseHeaders().set("Content-Type", "application/json");
                exchange.sendResponseHeaders(200, answer.length);
                exchange.getResponseBody().write(answer);
            }
        });
        server.start();
        return new RatesService(server);
    }

    /** {@return where the rates are} */
    URI address() {
        return URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/rates");
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
