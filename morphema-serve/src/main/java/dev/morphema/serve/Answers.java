package dev.morphema.serve;

import dev.morphema.Inputs;
import dev.morphema.Messages;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import io.micrometer.core.instrument.Timer;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import org.eclipse.jetty.http.HttpField;
import org.eclipse.jetty.http.HttpHeader;
import org.eclipse.jetty.http.HttpMethod;
import org.eclipse.jetty.http.HttpStatus;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.eclipse.jetty.util.Fields;
import org.jspecify.annotations.Nullable;

/** Answers requests. Safe for use by many threads. */
final class Answers extends Handler.Abstract {
    /** The parameter of a request that names one of several targets. */
    static final String TARGET = "target";

    private final Map<String, ServedMapping> served;
    private final int mostBytes;
    private final Semaphore atWork;
    private final Meters meters;

    Answers(Map<String, ServedMapping> served, int mostBytes, int atOnce, Meters meters) {
        this.served = Map.copyOf(served);
        this.mostBytes = mostBytes;
        this.atWork = new Semaphore(atOnce);
        this.meters = meters;
    }

    /**
     * An answer.
     *
     * @param type its media type
     */
    private record Answer(int status, String type, byte[] body) {
        static Answer text(String type, String text) {
            return new Answer(HttpStatus.OK_200, type, text.getBytes(StandardCharsets.UTF_8));
        }

        static Answer problems(int status, List<Problem> problems) {
            return new Answer(
                    status,
                    ProblemDocument.TYPE,
                    ProblemDocument.of(status, problems).getBytes(StandardCharsets.UTF_8));
        }

        static Answer problem(int status, String message, @Nullable String help) {
            return problems(status, List.of(Problem.error(Code.USAGE, message).withHelp(help)));
        }
    }

    List<String> paths() {
        return served.keySet().stream().sorted().map(name -> "/" + name).toList();
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        String path = Request.getPathInContext(request);
        ServedMapping mapping = served.get(path.substring(1));
        Answer answer = mapping == null ? other(request, path) : posted(request, response, path.substring(1), mapping);
        response.setStatus(answer.status());
        if (answer.status() >= HttpStatus.BAD_REQUEST_400
                && answer.status() != HttpStatus.UNPROCESSABLE_ENTITY_422
                && request.getLength() != 0) {
            // Some of the message may not be read, so nothing can follow it: who sends is told
            // before.
            response.getHeaders().put(HttpHeader.CONNECTION, "close");
        }
        response.getHeaders().put(HttpHeader.CONTENT_TYPE, answer.type());
        response.getHeaders().put(new HttpField("X-Content-Type-Options", "nosniff"));
        response.write(true, ByteBuffer.wrap(answer.body()), callback);
        return true;
    }

    private Answer other(Request request, String path) {
        if (!HttpMethod.GET.is(request.getMethod()) && !HttpMethod.HEAD.is(request.getMethod())) {
            return nothing(path);
        }
        return switch (path) {
            case "/health" -> Answer.text("application/json", "{\"status\":\"up\"}\n");
            case "/metrics" -> Answer.text("text/plain; version=0.0.4; charset=utf-8", meters.text());
            case "/openapi.json" -> Answer.text("application/json", ApiDescription.of(served));
            default -> nothing(path);
        };
    }

    private Answer nothing(String path) {
        return Answer.problem(
                HttpStatus.NOT_FOUND_404,
                "There is nothing at this path.",
                NearNames.proposal(path, paths()).orElse(null));
    }

    private Answer posted(Request request, Response response, String name, ServedMapping mapping) {
        if (!HttpMethod.POST.is(request.getMethod())) {
            response.getHeaders().put(HttpHeader.ALLOW, HttpMethod.POST.asString());
            return Answer.problem(HttpStatus.METHOD_NOT_ALLOWED_405, "Messages are posted here.", null);
        }
        if (!atWork.tryAcquire()) {
            response.getHeaders().put(HttpHeader.RETRY_AFTER, "1");
            return Answer.problem(
                    HttpStatus.SERVICE_UNAVAILABLE_503, "The server has too many messages at work.", null);
        }
        Timer.Sample begun = meters.begin();
        int status = HttpStatus.INTERNAL_SERVER_ERROR_500;
        try {
            Answer answer = orProblem(request, mapping);
            status = answer.status();
            return answer;
        } finally {
            meters.end(begun, name, status);
            atWork.release();
        }
    }

    private Answer orProblem(Request request, ServedMapping mapping) {
        try {
            return answer(request, mapping.current());
        } catch (ProblemException e) {
            return Answer.problems(ProblemDocument.status(e.problem()), e.problems());
        } catch (IOException e) {
            return Answer.problem(HttpStatus.BAD_REQUEST_400, "The message ended before it was whole.", null);
        }
    }

    private Answer answer(Request request, ServedMapping.Form form) throws IOException {
        String type = request.getHeaders().get(HttpHeader.CONTENT_TYPE);
        boolean inParts = Parts.areIn(type);
        if (!inParts && isOther(type, form)) {
            return Answer.problem(
                    HttpStatus.UNSUPPORTED_MEDIA_TYPE_415,
                    form.others().isEmpty()
                            ? "Messages here are " + form.mapping().formatOfSource(form.source()) + ", this is " + type
                                    + "."
                            : "Messages here have parts for several sources, this is " + type + ".",
                    "Content-Type: " + expected(form));
        }
        Fields query = Request.extractQueryParameters(request);
        String target = target(request, form, Optional.ofNullable(query.getValue(TARGET)));
        if (target == null) {
            return Answer.problem(
                    HttpStatus.NOT_ACCEPTABLE_406,
                    "None of the formats that can be answered is accepted.",
                    "Accept: "
                            + MediaTypes.of(form.mapping()
                                            .formatOf(form.byTarget()
                                                    .keySet()
                                                    .iterator()
                                                    .next()))
                                    .get(0));
        }
        Messages messages = form.byTarget().get(target);
        for (Fields.Field field : query) {
            if (!field.getName().equals(TARGET)) {
                messages = messages.param(field.getName(), field.getValue());
            }
        }
        Map<String, Parts.Part> parts =
                inParts ? parts(request, String.valueOf(type), form) : single(request, type, form);
        if (parts == null) {
            return Answer.problem(
                    HttpStatus.PAYLOAD_TOO_LARGE_413, "A message has at most " + mostBytes + " bytes here.", null);
        }
        for (Map.Entry<String, Parts.Part> part : parts.entrySet()) {
            String wanted = form.mapping().formatOfSource(part.getKey());
            if (!MediaTypes.fits(part.getValue().type(), wanted)) {
                return Answer.problem(
                        HttpStatus.UNSUPPORTED_MEDIA_TYPE_415,
                        "The part " + part.getKey() + " is " + wanted + ", this is "
                                + part.getValue().type() + ".",
                        "Content-Type: " + MediaTypes.of(wanted).get(0));
            }
        }
        for (String other : form.others()) {
            messages = messages.with(Inputs.bytes(other, encoded(parts, other, form)));
        }
        byte[] made = messages.transform(encoded(parts, form.source(), form));
        String answerType = MediaTypes.of(form.mapping().formatOf(target)).get(0);
        return new Answer(
                HttpStatus.OK_200, answerType.startsWith("text/") ? answerType + "; charset=utf-8" : answerType, made);
    }

    private static boolean isOther(@Nullable String type, ServedMapping.Form form) {
        return !form.others().isEmpty() || !MediaTypes.fits(type, form.mapping().formatOfSource(form.source()));
    }

    private static String expected(ServedMapping.Form form) {
        return form.others().isEmpty()
                ? MediaTypes.of(form.mapping().formatOfSource(form.source())).get(0)
                : Parts.TYPE;
    }

    private @Nullable Map<String, Parts.Part> parts(Request request, String type, ServedMapping.Form form)
            throws IOException {
        List<String> sources = new ArrayList<>(List.of(form.source()));
        sources.addAll(form.others());
        return Parts.of(request, type, sources, mostBytes);
    }

    private @Nullable Map<String, Parts.Part> single(Request request, @Nullable String type, ServedMapping.Form form)
            throws IOException {
        byte[] body = body(request);
        return body == null ? null : Map.of(form.source(), new Parts.Part(type, body));
    }

    private static @Nullable String target(Request request, ServedMapping.Form form, Optional<String> named) {
        if (named.isPresent()) {
            if (!form.byTarget().containsKey(named.get())) {
                throw new ProblemException(Problem.error(
                                Code.UNKNOWN_TARGET, "The mapping has no target " + named.get() + " to answer with.")
                        .withHelp(
                                NearNames.proposal(named.get(), form.byTarget().keySet())
                                        .orElse(null)));
            }
            return named.get();
        }
        List<String> targets = List.copyOf(form.byTarget().keySet());
        List<String> formats = targets.stream().map(form.mapping()::formatOf).toList();
        return MediaTypes.best(request.getHeaders().get(HttpHeader.ACCEPT), formats)
                .map(format -> targets.get(formats.indexOf(format)))
                .orElse(null);
    }

    /** {@return the message, or null if it is too large} */
    private byte @Nullable [] body(Request request) throws IOException {
        if (request.getLength() > mostBytes) {
            return null;
        }
        try (InputStream in = Content.Source.asInputStream(request)) {
            byte[] body = in.readNBytes(mostBytes + 1);
            return body.length > mostBytes ? null : body;
        }
    }

    /** A media type may say another encoding than that in which the source is read. */
    private static byte[] encoded(Map<String, Parts.Part> parts, String source, ServedMapping.Form form) {
        Parts.Part part = Objects.requireNonNull(parts.get(source));
        String format = form.mapping().formatOfSource(source);
        byte[] body = part.bytes();
        Optional<Charset> said;
        try {
            said = MediaTypes.charset(part.type());
        } catch (IllegalArgumentException e) {
            throw new ProblemException(Problem.error(Code.BAD_ENCODING, "There is no such encoding.")
                    .withValue(e.getMessage()));
        }
        Charset read = form.mapping().encodingOf(source);
        // XML says its encoding itself, and a workbook is no text.
        if (said.isEmpty() || said.get().equals(read) || format.equals("xml") || format.equals("xlsx")) {
            return body;
        }
        try {
            return said.get()
                    .newDecoder()
                    .decode(ByteBuffer.wrap(body))
                    .toString()
                    .getBytes(read);
        } catch (CharacterCodingException e) {
            throw new ProblemException(
                    Problem.error(Code.BAD_ENCODING, "The message has bytes that are not valid " + said.get() + "."));
        }
    }
}
