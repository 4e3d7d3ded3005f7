package dev.morphema.serve;

import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CompletionException;
import org.eclipse.jetty.http.MultiPart;
import org.eclipse.jetty.http.MultiPartConfig;
import org.eclipse.jetty.http.MultiPartFormData;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Request;
import org.jspecify.annotations.Nullable;

/** A message in several parts, each for a source (RFC 7578). */
final class Parts {
    /** The media type of such messages. */
    static final String TYPE = "multipart/form-data";

    private Parts() {}

    /**
     * A part.
     *
     * @param type its media type, or null
     */
    record Part(@Nullable String type, byte[] bytes) {}

    static boolean areIn(@Nullable String type) {
        return type != null && type.toLowerCase(Locale.ROOT).startsWith(TYPE);
    }

    /**
     * {@return the parts of a request by the names of sources, or null if they are too large}
     *
     * @param sources that there may be parts for; each must have one
     * @throws ProblemException if there are others, or one lacks
     * @throws IOException if the request ends early
     */
    static @Nullable Map<String, Part> of(Request request, String type, List<String> sources, int mostBytes)
            throws IOException {
        MultiPartConfig config = new MultiPartConfig.Builder()
                .maxParts(sources.size() + 1)
                .maxSize(mostBytes)
                .maxPartSize(mostBytes)
                .maxMemoryPartSize(mostBytes)
                .useFilesForPartsWithoutFileName(false)
                .build();
        Map<String, Part> parts = new LinkedHashMap<>();
        try (MultiPartFormData.Parts found = MultiPartFormData.getParts(request, request, type, config)) {
            for (MultiPart.Part part : found) {
                take(part, sources, parts);
            }
        } catch (CompletionException e) {
            if (e.getCause() instanceof IllegalStateException) {
                return null;
            }
            throw new IOException(e.getCause());
        }
        for (String source : sources) {
            if (!parts.containsKey(source)) {
                throw wrong(
                        "The message has no part " + source + ".", "a part for each of: " + String.join(", ", sources));
            }
        }
        return parts;
    }

    private static void take(MultiPart.Part part, List<String> sources, Map<String, Part> parts) throws IOException {
        String name = String.valueOf(part.getName());
        if (!sources.contains(name)) {
            throw wrong(
                    "The mapping has no source " + name + " that a part could be for.",
                    NearNames.proposal(name, sources).orElse("sources are " + String.join(", ", sources)));
        }
        try (InputStream bytes = Content.Source.asInputStream(part.getContentSource())) {
            Part taken = new Part(part.getHeaders().get("Content-Type"), bytes.readAllBytes());
            if (parts.put(name, taken) != null) {
                throw wrong("The message has two parts " + name + ".", null);
            }
        }
    }

    private static ProblemException wrong(String message, @Nullable String help) {
        return new ProblemException(Problem.error(Code.MISSING_INPUT, message).withHelp(help));
    }
}
