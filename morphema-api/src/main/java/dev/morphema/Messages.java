package dev.morphema;

import dev.morphema.engine.RunCaches;
import dev.morphema.format.Input;
import dev.morphema.output.StagedMessage;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.jspecify.annotations.Nullable;

/**
 * Turns messages into messages, in memory. Immutable and safe for use by many threads at the same
 * time.
 *
 * <p>A message that is made is what a file of the target would be: JSON and XML end with a line
 * end, and so does each line of CSV and JSON Lines.
 *
 * <p>The form of messages before is remembered, which makes the next ones quicker and changes no
 * result; that memory is gone with this, and what was made of it by {@link #param}.
 */
public final class Messages {
    private final Mapping mapping;
    private final String source;
    private final String target;
    private final Inputs further;
    private final RunOptions options;
    /**
     * What was learned from messages before; each transformation takes one, as long as there are
     * any.
     */
    private final Queue<RunCaches> idle;

    Messages(Mapping mapping, String source, String target, Inputs further, RunOptions options) {
        this(mapping, source, target, further, options, new ConcurrentLinkedQueue<>());
    }

    private Messages(
            Mapping mapping, String source, String target, Inputs further, RunOptions options, Queue<RunCaches> idle) {
        this.mapping = mapping;
        this.source = source;
        this.target = target;
        this.further = further;
        this.options = mapping.limited(options);
        this.idle = idle;
    }

    /**
     * {@return the same with another value of a parameter}, such as one for the next message alone;
     * this costs next to nothing
     *
     * @param name of the parameter
     * @param value as a text that is converted to its type
     * @throws ProblemException if the mapping has no such parameter, or the value is not of its
     *     type
     */
    public Messages param(String name, String value) {
        RunOptions more = options.param(name, value);
        mapping.requireParams(more);
        return new Messages(mapping, source, target, further, more, idle);
    }

    /**
     * {@return the same with other inputs of further sources}, such as what belongs to the next
     * message alone
     *
     * @param inputs that take the place of those before
     * @throws ProblemException if the mapping has no such source
     */
    public Messages with(Inputs inputs) {
        Inputs all = further;
        for (Map.Entry<String, List<Input>> input : inputs.bySource().entrySet()) {
            all = all.with(input.getKey(), input.getValue());
        }
        mapping.requireSources(all);
        return new Messages(mapping, source, target, all, options, idle);
    }

    /** What became of one message. Immutable. */
    public static final class Answer {
        private final byte @Nullable [] message;
        private final List<Problem> problems;

        private Answer(byte @Nullable [] message, List<Problem> problems) {
            this.message = message;
            this.problems = List.copyOf(problems);
        }

        /** {@return the message, empty if it could not be made; the array is the caller's} */
        public Optional<byte[]> message() {
            return Optional.ofNullable(message).map(byte[]::clone);
        }

        /**
         * {@return the message as a text, empty if it could not be made; for targets in UTF-8, as
         * all are that say nothing else}
         */
        public Optional<String> text() {
            return Optional.ofNullable(message).map(bytes -> new String(bytes, StandardCharsets.UTF_8));
        }

        /** {@return what went wrong or was odd} */
        public List<Problem> problems() {
            return problems;
        }
    }

    /**
     * {@return the message that the given one becomes}
     *
     * @param message in the format of the source, never changed
     * @throws ProblemException if that is not possible
     */
    public byte[] transform(byte[] message) {
        Objects.requireNonNull(message);
        StagedMessage staged = new StagedMessage(message.length);
        run(message, staged);
        return staged.message();
    }

    /**
     * As {@link #transform(byte[])}, for texts; source and target must be in UTF-8, as all are that
     * say nothing else.
     */
    public String transform(String message) {
        return new String(transform(message.getBytes(StandardCharsets.UTF_8)), StandardCharsets.UTF_8);
    }

    /**
     * {@return the message that the given one becomes, or why not, with all warnings; never throws
     * for bad messages}
     */
    public Answer attempt(byte[] message) {
        Objects.requireNonNull(message);
        StagedMessage staged = new StagedMessage(message.length);
        try {
            Result result = run(message, staged);
            return new Answer(staged.message(), result.warnings());
        } catch (ProblemException e) {
            return new Answer(null, e.problems());
        }
    }

    /** As {@link #attempt(byte[])}, for a text. */
    public Answer attempt(String message) {
        return attempt(message.getBytes(StandardCharsets.UTF_8));
    }

    private Result run(byte[] message, StagedMessage staged) {
        RunCaches before = idle.poll();
        RunCaches caches = before == null ? mapping.newCaches() : before;
        try {
            return mapping.run(further.andBytes(source, message), Outputs.staged(target, staged), options, caches);
        } finally {
            idle.offer(caches);
        }
    }
}
