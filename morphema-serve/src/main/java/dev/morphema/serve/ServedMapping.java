package dev.morphema.serve;

import dev.morphema.Checked;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Messages;
import dev.morphema.Morphema;
import dev.morphema.RunOptions;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;

/** A mapping in its latest form that passed the check. Safe for use by many threads. */
final class ServedMapping {
    /** A file is looked at no more often. */
    static final long NANOS_BETWEEN_LOOKS = 1_000_000_000L;

    private final String name;
    private final Path file;
    private final Morphema morphema;
    private final Inputs further;
    private final Duration timeout;
    private final Consumer<String> log;
    private final long nanosBetweenLooks;
    private final AtomicLong lookedAt = new AtomicLong(System.nanoTime());
    private volatile Form form;

    /**
     * A mapping with what turns messages into those of each target.
     *
     * @param version of the file that it was read from
     * @param source that messages are posted to
     * @param others sources that each message has a part for, too
     */
    record Form(Object version, Mapping mapping, String source, List<String> others, Map<String, Messages> byTarget) {}

    ServedMapping(
            String name,
            Path file,
            Morphema morphema,
            Inputs further,
            Duration timeout,
            Consumer<String> log,
            long nanosBetweenLooks)
            throws IOException {
        this.name = name;
        this.file = file;
        this.morphema = morphema;
        this.further = further;
        this.timeout = timeout;
        this.log = log;
        this.nanosBetweenLooks = nanosBetweenLooks;
        this.form = form(version(), morphema.load(file));
    }

    /** A change of the file changes this, in practice always. */
    private Object version() throws IOException {
        FileTime time = Files.getLastModifiedTime(file);
        return List.of(time, Files.size(file));
    }

    private Form form(Object version, Mapping mapping) {
        List<String> open = mapping.sources().stream()
                .filter(source -> !further.names().containsKey(source))
                .toList();
        if (open.isEmpty()) {
            throw new ProblemException(
                    Problem.error(Code.USAGE, "The mapping " + name + " has no source that messages can be posted to.")
                            .withHelp("a message is the input of a source that is given none when the server starts"));
        }
        List<String> others = open.subList(1, open.size());
        Inputs all = further;
        for (String other : others) {
            // Each message has its own in place of this.
            all = all.andBytes(other, new byte[0]);
        }
        Map<String, Messages> byTarget = new LinkedHashMap<>();
        for (String target : mapping.targets()) {
            if (!mapping.hasManyDocuments(target)) {
                byTarget.put(target, mapping.messages(open.get(0), target, all, RunOptions.DEFAULT.timeout(timeout)));
            }
        }
        if (byTarget.isEmpty()) {
            throw new ProblemException(Problem.error(
                    Code.USAGE, "The mapping " + name + " has no target of one document, which could be an answer."));
        }
        return new Form(version, mapping, open.get(0), others, byTarget);
    }

    /** {@return the mapping; after a change of its file that which it is now, if that is sound} */
    Form current() {
        long last = lookedAt.get();
        long now = System.nanoTime();
        if (now - last > nanosBetweenLooks && lookedAt.compareAndSet(last, now)) {
            look();
        }
        return form;
    }

    private void look() {
        try {
            Object version = version();
            if (version.equals(form.version())) {
                return;
            }
            Checked checked = morphema.check(file);
            if (checked.mapping().isEmpty()) {
                refuse(version, checked.problems().get(0));
                return;
            }
            form = form(version, checked.mapping().get());
            log.accept(name + ": the changed mapping is taken up");
        } catch (ProblemException e) {
            log.accept(name + ": the changed mapping is not taken up: " + e.problem());
        } catch (IOException e) {
            log.accept(name + ": the mapping cannot be read; what was read before goes on");
        }
    }

    /** It is told once, and the form before goes on. */
    private void refuse(Object version, Problem problem) {
        form = new Form(version, form.mapping(), form.source(), form.others(), form.byTarget());
        log.accept(name + ": the changed mapping is not taken up: " + problem);
    }
}
