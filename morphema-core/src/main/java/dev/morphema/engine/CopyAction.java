package dev.morphema.engine;

import dev.morphema.event.ValueWriter;
import dev.morphema.format.EventWriter;
import dev.morphema.problem.Code;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.ElementText;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * {@code copy}, with {@code only} or {@code without}; fields of the block take the place of those
 * copied.
 */
final class CopyAction extends Action {
    private final Node record;
    private final @Nullable Set<FieldName> only;
    private final Set<FieldName> without;
    private final Map<FieldName, Actions.Field> inPlace;

    CopyAction(
            Node record, @Nullable Set<FieldName> only, Set<FieldName> without, Map<FieldName, Actions.Field> inPlace) {
        this.record = record;
        this.only = only;
        this.without = without;
        this.inPlace = inPlace;
    }

    @Override
    boolean writesAttributes() {
        return true;
    }

    @Override
    void run(Frame frame, EventWriter out, Part pass) {
        Value value = record.one(frame);
        if (value.isMissing()) {
            return;
        }
        if (value instanceof ElementText) {
            // An element without attributes and children is just its text.
            if (pass != Part.ATTRIBUTES && isCopied(FieldName.OWN_TEXT)) {
                out.mixed();
                field(FieldName.OWN_TEXT, value, frame, out);
            }
            return;
        }
        if (!(value instanceof RecordValue fields)) {
            throw notARecord(value);
        }
        if (!out.attributesFirst()) {
            located(() -> ValueWriter.refuseClash(fields, name -> isCopied(name) && own(name, false) == null));
        } else if (pass == Part.CONTENT && fields.isMixed()) {
            copyMixed(fields, frame, out);
            return;
        } else if (isCopied(FieldName.OWN_TEXT) && fields.hasText()) {
            out.mixed();
        }
        for (int i = 0; i < fields.layout().fields(); i++) {
            FieldName name = fields.layout().name(i);
            if ((pass == Part.ALL || name.attribute() == (pass == Part.ATTRIBUTES)) && isCopied(name)) {
                field(name, fields.get(i), frame, out);
            }
        }
    }

    private ProblemException notARecord(Value value) {
        return record.fail(
                Code.KIND,
                "copy takes the fields of a record, this is " + value.kind().words() + ".",
                value instanceof ListValue
                        ? "a list is gone through by for: name for x in … { copy x }"
                        : "a single value is written name = …");
    }

    /** Children and texts keep their order. */
    private void copyMixed(RecordValue fields, Frame frame, EventWriter out) {
        for (RecordValue.Part part : fields.parts()) {
            FieldName name = part.name() == null ? FieldName.OWN_TEXT : part.name();
            if (isCopied(name)) {
                field(name, part.value(), frame, out);
            }
        }
    }

    private void located(Runnable writing) {
        try {
            writing.run();
        } catch (ProblemException e) {
            throw record.located(e);
        }
    }

    /** {@return the field of the block that takes the place of a copied one, or null} */
    private Actions.@Nullable Field own(FieldName name, boolean markup) {
        if (inPlace.isEmpty()) {
            return null;
        }
        Actions.Field own = inPlace.get(name);
        if (own == null) {
            own = inPlace.get(name.withoutNamespace());
        }
        if (own == null && !markup) {
            // An attribute and a field are the same there.
            own = inPlace.get(new FieldName(null, name.local(), !name.attribute()));
        }
        return own;
    }

    private boolean isCopied(FieldName name) {
        FieldName plain = FieldName.of(name.local());
        return (only == null || only.contains(name) || only.contains(plain))
                && !without.contains(name)
                && !without.contains(plain);
    }

    private void field(FieldName name, Value value, Frame frame, EventWriter out) {
        Actions.Field own = own(name, out.attributesFirst());
        if (own != null) {
            own.writeOnce(frame, out);
            return;
        }
        located(() -> ValueWriter.field(name, value, out));
    }
}
