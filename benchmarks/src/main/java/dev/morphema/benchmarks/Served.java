package dev.morphema.benchmarks;

import dev.morphema.benchmarks.hand.M1;
import dev.morphema.serve.MappingServer;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import org.eclipse.jetty.http.HttpHeader;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.server.Server;
import org.eclipse.jetty.server.ServerConnector;
import org.eclipse.jetty.util.Callback;

/**
 * The message M1 behind a server: a mapping that is served, and a handler written by hand on the
 * same server. {@code serve.sh} loads them in turn.
 */
final class Served {
    private Served() {}

    /** Answers what is posted with what the program by hand makes of it. */
    private static final class ByHand extends Handler.Abstract {
        @Override
        public boolean handle(Request request, Response response, Callback callback) throws Exception {
            byte[] body;
            try (InputStream in = Content.Source.asInputStream(request)) {
                body = in.readAllBytes();
            }
            response.getHeaders().put(HttpHeader.CONTENT_TYPE, "application/json");
            response.write(true, ByteBuffer.wrap(M1.convert(body)), callback);
            return true;
        }
    }

    /**
     * Serves until the program is ended.
     *
     * @param contender {@code morphema} or {@code hand}
     * @param folder where the message is put, for what loads the server, and the mapping
     */
    static void run(String contender, int port, Path folder) throws IOException, InterruptedException {
        Files.write(folder.resolve("message.json"), MessageBenchmark.lines(20, 1));
        if (contender.equals("hand")) {
            Server server = new Server();
            ServerConnector connector = new ServerConnector(server);
            connector.setHost("127.0.0.1");
            connector.setPort(port);
            server.addConnector(connector);
            server.setHandler(new ByHand());
            try {
                server.start();
            } catch (Exception e) {
                throw new IOException(e);
            }
            server.join();
            return;
        }
        Path mapping = folder.resolve("call.morphema");
        Files.writeString(mapping, Morphemas.text("M1"));
        try (MappingServer server = MappingServer.of(mapping).port(port).start()) {
            server.join();
        }
    }
}
