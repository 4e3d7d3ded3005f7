package dev.morphema;

import dev.morphema.engine.RunCaches;
import dev.morphema.output.StagedMessage;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.jspecify.annotations.Nullable;

/**
 * Turns messages into messages, in memory. Safe for use by many threads at the same time. It remembers the form of the messages
 * that it has seen, which makes the next ones quicker and changes no result; that memory is gone with it.
 */
public final class Messages {
    private final Mapping mapping;
    private final String source;
    private final String target;
    private final RunOptions options;
    /** What was learned from messages before; each transformation takes one, as long as there are any. */
    private final Queue<RunCaches> idle = new ConcurrentLinkedQueue<>();

    Messages(Mapping mapping, String source, String target, RunOptions options) {
        this.mapping = mapping;
        this.source = source;
        this.target = target;
        this.options = options;
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

    /** {@return the message that the given one becomes, or why not, with all warnings; never throws for bad messages} */
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

    private Result run(byte[] message, StagedMessage staged) {
        RunCaches before = idle.poll();
        RunCaches caches = before == null ? mapping.newCaches() : before;
        try {
            return mapping.run(Inputs.bytes(source, message), Outputs.staged(target, staged), options, caches);
        } finally {
            idle.offer(caches);
        }
    }
}
