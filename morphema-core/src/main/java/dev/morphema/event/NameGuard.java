package dev.morphema.event;

import dev.morphema.format.EventWriter;
import dev.morphema.format.FieldGroup;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Span;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.HashMap;
import java.util.Map;

/**
 * Passes the events of one record on, and refuses a name that the record has got already. Only for
 * blocks of which the check could not tell that this never happens. Not thread-safe.
 */
public final class NameGuard implements EventWriter {
    private final EventWriter out;
    private final Map<Object, Statement> written = new HashMap<>();
    private Statement at;
    /** How many records and lists are open within the record that is watched. */
    private int depth;

    /**
     * A statement that writes names.
     *
     * @param fromData whether the names come from the data, as those of copied fields and keys do
     */
    public record Statement(Span span, boolean fromData) {}

    public NameGuard(EventWriter out, Statement first) {
        this.out = out;
        this.at = first;
    }

    /** What comes next is written by this statement. */
    public void writing(Statement statement) {
        if (depth == 0) {
            at = statement;
        }
    }

    private void check(FieldName name) {
        if (depth > 0) {
            return;
        }
        Statement before = written.putIfAbsent(out.key(name), at);
        if (before == null || mayRepeat(name, before)) {
            return;
        }
        String help = before.fromData() || at.fromData()
                ? "a field of the block itself takes the place of a copied one; copy x without a, b leaves fields out"
                : "write the field by one rule: name = if … then … else …";
        String by = before == at
                ? "the same rule"
                : "the rule on line " + before.span().line();
        throw new ProblemException(at.span()
                .error(Code.REPEATED_FIELD, "This record already has the field; " + by + " wrote it.")
                .withValue(name.toString())
                .withHelp(help));
    }

    /**
     * Elements may repeat where each rule names them, or where they are parts of one copied
     * element.
     */
    private boolean mayRepeat(FieldName name, Statement before) {
        return out.elementsRepeat()
                && !name.attribute()
                && (before == at || !before.fromData() && !at.fromData() || name.equals(FieldName.OWN_TEXT));
    }

    @Override
    public void beginRecord() {
        depth++;
        out.beginRecord();
    }

    @Override
    public void endRecord() {
        depth--;
        out.endRecord();
    }

    @Override
    public void beginList() {
        depth++;
        out.beginList();
    }

    @Override
    public void endList() {
        depth--;
        out.endList();
    }

    @Override
    public void field(FieldName name) {
        check(name);
        out.field(name);
    }

    @Override
    public void value(Value value) {
        out.value(value);
    }

    @Override
    public void field(FieldName name, Value value) {
        check(name);
        out.field(name, value);
    }

    @Override
    public int fields(FieldGroup group, RecordValue record, int[] slots, int from) {
        int end = out.fields(group, record, slots, from);
        for (int i = from; i < end; i++) {
            check(group.names().get(i));
        }
        return end;
    }

    @Override
    public void attribute(FieldName name, Value value) {
        if (!attributesFirst() || !value.isMissing()) {
            check(name);
        }
        out.attribute(name, value);
    }

    @Override
    public void text(Value value) {
        check(FieldName.OWN_TEXT);
        out.text(value);
    }

    @Override
    public void text(RecordValue record, int slot) {
        check(FieldName.OWN_TEXT);
        out.text(record, slot);
    }

    @Override
    public boolean attributesFirst() {
        return out.attributesFirst();
    }

    @Override
    public boolean elementsRepeat() {
        return out.elementsRepeat();
    }

    @Override
    public Object key(FieldName name) {
        return out.key(name);
    }

    @Override
    public boolean writesMissing() {
        return out.writesMissing();
    }

    @Override
    public void mixed() {
        out.mixed();
    }
}
