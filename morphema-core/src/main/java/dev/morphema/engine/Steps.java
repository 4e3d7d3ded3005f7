package dev.morphema.engine;

import dev.morphema.format.EventWriter;
import dev.morphema.format.FieldGroup;
import dev.morphema.value.Layout;
import dev.morphema.value.RecordValue;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Fields side by side, or attributes, that are each one step from the same name: its record is looked up once for all. */
final class Steps extends Action {
    /** The slots of the fields in one layout, -1 for one that is not just one. */
    private record Known(Layout layout, int[] slots) {}

    private final int local;
    private final Actions.Field[] fields;
    private final boolean attributes;
    private final FieldGroup group;
    /** The last answer: records mostly come with the same layout. Threads may each have written it; all are right. */
    private @Nullable Known known;

    private Steps(List<Actions.Field> fields) {
        this.local = fields.get(0).stepsFrom();
        this.fields = fields.toArray(new Actions.Field[0]);
        this.attributes = fields.get(0).isAttribute();
        this.group = new FieldGroup(fields.stream().map(Actions.Field::name).toList());
    }

    /** {@return statements, of which those that can be done in one are one} */
    static Action[] joined(List<Action> actions) {
        List<Action> joined = new ArrayList<>();
        List<Actions.Field> same = new ArrayList<>();
        for (Action action : actions) {
            if (!same.isEmpty() && !(action instanceof Actions.Field field && goTogether(same.get(0), field))) {
                joined.add(same.size() == 1 ? same.get(0) : new Steps(same));
                same.clear();
            }
            if (action instanceof Actions.Field field && field.stepsFrom() >= 0) {
                same.add(field);
            } else {
                joined.add(action);
            }
        }
        if (!same.isEmpty()) {
            joined.add(same.size() == 1 ? same.get(0) : new Steps(same));
        }
        return joined.toArray(new Action[0]);
    }

    private static boolean goTogether(Actions.Field first, Actions.Field next) {
        return next.stepsFrom() == first.stepsFrom() && next.isAttribute() == first.isAttribute();
    }

    @Override
    boolean writesAttributes() {
        return attributes;
    }

    @Override
    boolean isAttribute() {
        return attributes;
    }

    @Override
    void run(Frame frame, EventWriter out, Pass pass) {
        if (pass != Pass.ALL && attributes != (pass == Pass.ATTRIBUTES)) {
            return;
        }
        RecordValue record = frame.held(local) instanceof RecordValue value ? value : null;
        int[] slots = record == null ? null : slots(record.layout());
        for (int i = 0; i < fields.length; i++) {
            i = record == null || slots == null ? i : out.fields(group, record, slots, i);
            if (i < fields.length) {
                fields[i].run(frame, out, pass);
            }
        }
    }

    private int[] slots(Layout layout) {
        Known at = known;
        if (at == null || at.layout() != layout) {
            int[] slots = new int[fields.length];
            for (int i = 0; i < slots.length; i++) {
                slots[i] = fields[i].slotIn(layout);
            }
            at = new Known(layout, slots);
            known = at;
        }
        return at.slots();
    }
}
