package dev.morphema.engine;

import dev.morphema.plan.Scan;
import dev.morphema.value.Value;

/** A sequence of records that are read while a loop goes over them, unless the source is kept. */
final class ScanNode extends Node {
    private final Node sequence;
    private final Scan scan;

    ScanNode(Node sequence, Scan scan) {
        super(sequence.span());
        this.sequence = sequence;
        this.scan = scan;
    }

    @Override
    Value compute(Frame frame) {
        return sequence.eval(frame);
    }

    @Override
    boolean each(Frame frame, ItemSink sink) {
        if (!frame.run().streams(scan)) {
            return sequence.each(frame, sink);
        }
        boolean[] more = {true};
        RecordSink records = sequence.stream(frame, new RecordSink() {
            @Override
            public boolean accept(Value record) {
                more[0] = more[0] && sink.accept(record);
                return more[0];
            }

            @Override
            public void end() {
                // whoever takes the records ends by itself
            }
        });
        frame.run().eachRecord(scan, records::accept);
        records.end();
        return more[0];
    }
}
