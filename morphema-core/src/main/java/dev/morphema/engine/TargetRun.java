package dev.morphema.engine;

import dev.morphema.event.TreeWriter;
import dev.morphema.event.ValueWriter;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One target in one run: written at once, or opened, given records, and closed. Not thread-safe.
 */
abstract class TargetRun {
    private final int index;
    private final Program.Target target;
    private final Frame frame;

    private TargetRun(int index, Program.Target target, RunState state) {
        this.index = index;
        this.target = target;
        this.frame = new Frame(state, target.slots());
    }

    /** {@return the run of a target, or null if it is not wanted} */
    static @Nullable TargetRun of(int index, Program program, RunState state, Writers writers) throws IOException {
        Program.Target target = program.targets().get(index);
        if (!writers.wants(index)) {
            return null;
        }
        return target.split() == null
                ? new Single(index, target, state, writers.open(index, null))
                : new Split(index, target, state, writers);
    }

    final Program.Target target() {
        return target;
    }

    final Frame frame() {
        return frame;
    }

    /** From now on, records that are written belong to this target. */
    final void begin() {
        frame.run().writing(index);
    }

    /** Ends a document; what is wrong with it as a whole is told at the place of the target. */
    final void finish(DocumentWriter writer) throws IOException {
        frame.run().units().end(writer);
        try {
            writer.finish();
        } catch (ProblemException e) {
            throw e.unlessPlaced(target.checked().decl().format().span().location());
        }
    }

    /** Writes all there is. */
    abstract void write() throws IOException;

    /** {@return what takes the records that stream} */
    abstract RecordSink open();

    /** Writes what stands after the records. */
    abstract void close() throws IOException;

    /** A target of one document. */
    private static final class Single extends TargetRun {
        private final DocumentWriter writer;

        Single(int index, Program.Target target, RunState state, DocumentWriter writer) {
            super(index, target, state);
            this.writer = writer;
        }

        @Override
        void write() throws IOException {
            frame().run().units().begin(writer);
            target().document().write(frame(), writer);
            finish(writer);
        }

        @Override
        RecordSink open() {
            frame().run().units().begin(writer);
            return Streams.open(target().document(), frame(), writer);
        }

        @Override
        void close() throws IOException {
            Streams.close(target().document(), frame(), writer);
            finish(writer);
        }
    }

    /** A target of one document a turn. */
    private static final class Split extends TargetRun {
        private final LoopPlan loop;
        private final Documents documents;

        Split(int index, Program.Target target, RunState state, Writers writers) {
            super(index, target, state);
            this.loop = Objects.requireNonNull(target.split());
            this.documents = new Documents(index, Objects.requireNonNull(target.name()), writers);
        }

        @Override
        void write() {
            loop.run(frame(), documents);
        }

        @Override
        RecordSink open() {
            return loop.stream(frame(), documents, false);
        }

        @Override
        void close() {
            // each document ended with its turn
        }

        /** Writes a document in each turn. */
        private final class Documents implements Flow {
            private final int index;
            private final Node name;
            private final Writers writers;
            /** The document of the turn that is begun. */
            private @Nullable DocumentWriter begun;

            Documents(int index, Node name, Writers writers) {
                this.index = index;
                this.name = name;
                this.writers = writers;
            }

            @Override
            public boolean turn() {
                if (frame().run().units().areThere()) {
                    return writeWhole();
                }
                DocumentWriter writer = named();
                target().document().write(frame(), writer);
                return end(writer);
            }

            /** Begins no document before it is known that all of it can be made. */
            private boolean writeWhole() {
                boolean elements = target().checked().format().traits().attributesFirst();
                TreeWriter tree =
                        new TreeWriter(elements, frame().run().caches().made());
                target().document().write(frame(), tree);
                Value document = tree.result();
                Writers.Document called = named(name.scalar(frame()));
                frame().run().units().takeUp(() -> {
                    DocumentWriter writer = opened(called);
                    ValueWriter.write(document, writer);
                    end(writer);
                });
                return true;
            }

            @Override
            public RecordSink open() {
                begun = named();
                return Streams.open(target().document(), frame(), begun);
            }

            @Override
            public boolean close() {
                DocumentWriter writer = Objects.requireNonNull(begun);
                Streams.close(target().document(), frame(), writer);
                return end(writer);
            }

            private boolean end(DocumentWriter writer) {
                try {
                    finish(writer);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
                frame().run().countWritten();
                return true;
            }

            private DocumentWriter named() {
                return opened(named(name.scalar(frame())));
            }

            private Writers.Document named(Value value) {
                if (value.isMissing()) {
                    throw name.fail(Code.DOCUMENT_NAME, "The name of this document is absent.", null);
                }
                return new Writers.Document(value.toString(), loop.place(frame()));
            }

            private DocumentWriter opened(Writers.Document document) {
                try {
                    return writers.open(index, document);
                } catch (ProblemException e) {
                    throw name.located(e);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            }
        }
    }
}
