package dev.morphema.output;

import dev.morphema.event.TreeWriter;
import dev.morphema.format.EventWriter;
import dev.morphema.format.Events;
import dev.morphema.format.TargetFormat.DocumentWriter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.Value;
import dev.morphema.value.ValueDecoder;
import dev.morphema.value.ValueEncoder;
import dev.morphema.value.ValueNames;
import java.io.DataInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;

/**
 * Keeps a document, in a temporary file if it is large, until it can be written: record by record
 * if it is a list. Not thread-safe.
 */
final class KeptEvents implements DocumentWriter {
    private final DocumentWriter like;
    private final Spool spool = new Spool();
    private final ValueNames names = new ValueNames();
    private final ValueEncoder encoder = new ValueEncoder(names);
    private final Layout start = Layout.start(name -> null);
    private TreeWriter tree;
    private int depth;
    private boolean list;

    /** @param like the writer that the document is for */
    KeptEvents(DocumentWriter like) {
        this.like = like;
        this.tree = new TreeWriter(like.elementsRepeat(), start);
    }

    /** Writes what was kept. */
    void replay(EventWriter out) throws IOException {
        ValueDecoder decoder = new ValueDecoder(names, true);
        if (list) {
            out.beginList();
        }
        try (DataInputStream bytes = new DataInputStream(spool.open())) {
            for (long left = spool.size(); left > 0; ) {
                byte[] value = bytes.readNBytes(bytes.readInt());
                left -= Integer.BYTES + value.length;
                Events.write(decoder.value(value, 0), out);
            }
        }
        if (list) {
            out.endList();
        }
    }

    /** Forgets what was kept. */
    void delete() {
        spool.delete();
    }

    private void open() {
        depth++;
    }

    private void closed() {
        depth--;
        keepIfWhole();
    }

    private void keepIfWhole() {
        if (depth > (list ? 1 : 0)) {
            return;
        }
        encoder.clear();
        encoder.add(tree.result());
        tree = new TreeWriter(like.elementsRepeat(), start);
        try {
            spool.write(
                    ByteBuffer.allocate(Integer.BYTES).putInt(encoder.length()).array());
            spool.write(encoder.bytes(), 0, encoder.length());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void beginRecord() {
        open();
        tree.beginRecord();
    }

    @Override
    public void endRecord() {
        tree.endRecord();
        closed();
    }

    @Override
    public void beginList() {
        if (depth++ == 0) {
            list = true;
        } else {
            tree.beginList();
        }
    }

    @Override
    public void endList() {
        if (depth == 1 && list) {
            depth = 0;
            return;
        }
        tree.endList();
        closed();
    }

    @Override
    public void field(FieldName name) {
        tree.field(name);
    }

    @Override
    public void value(Value value) {
        tree.value(value);
        keepIfWhole();
    }

    @Override
    public void text(Value value) {
        tree.text(value);
    }

    @Override
    public Object key(FieldName name) {
        return like.key(name);
    }

    @Override
    public boolean attributesFirst() {
        return like.attributesFirst();
    }

    @Override
    public boolean elementsRepeat() {
        return like.elementsRepeat();
    }

    @Override
    public boolean writesMissing() {
        return like.writesMissing();
    }

    @Override
    public void finish() {
        // it is written when all others are kept, too
    }
}
