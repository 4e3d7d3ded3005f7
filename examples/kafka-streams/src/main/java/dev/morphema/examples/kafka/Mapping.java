package dev.morphema.examples.kafka;

import dev.morphema.Messages;
import dev.morphema.Messages.Answer;
import java.nio.charset.StandardCharsets;
import java.util.stream.Collectors;
import org.apache.kafka.streams.processor.api.ContextualFixedKeyProcessor;
import org.apache.kafka.streams.processor.api.FixedKeyRecord;

/** Maps messages, and says in a header why one cannot be mapped. */
final class Mapping extends ContextualFixedKeyProcessor<String, byte[], Mapped> {
    static final String PROBLEM = "problem";

    private final Messages messages;

    Mapping(Messages messages) {
        this.messages = messages;
    }

    @Override
    public void process(FixedKeyRecord<String, byte[]> record) {
        Answer answer = messages.attempt(record.value());
        if (answer.message().isEmpty()) {
            String problems = answer.problems().stream().map(Object::toString).collect(Collectors.joining("\n"));
            record.headers().add(PROBLEM, problems.getBytes(StandardCharsets.UTF_8));
        }
        Mapped mapped =
                answer.message().map(message -> new Mapped(true, message)).orElse(new Mapped(false, record.value()));
        context().forward(record.withValue(mapped));
    }
}
