package dev.morphema.engine;

import dev.morphema.format.EventWriter;
import dev.morphema.format.FieldGroup;
import dev.morphema.value.FieldName;
import dev.morphema.value.Layout;
import dev.morphema.value.RecordValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/**
 * Fields side by side, or attributes, that are each one step from the same record, which may be a
 * row of a table: what it has as bytes goes through, without a value made of it.
 */
final class Steps extends Action {
    private final PathNodes.Named first;
    private final Actions.Field[] fields;
    private final boolean attributes;
    private final List<FieldName> names;
    private final SlotSite site;

    /** @param fields that are each one step from the same record; at least one */
    private Steps(List<Actions.Field> fields, SlotSite.Numbering sites) {
        this.first = Objects.requireNonNull(fields.get(0).step());
        this.fields = fields.toArray(new Actions.Field[0]);
        this.attributes = fields.get(0).isAttribute();
        this.names = fields.stream().map(Actions.Field::name).toList();
        this.site = sites.site(this::slots);
    }

    /** {@return statements, of which those that can be done in one are one} */
    static Action[] joined(List<Action> actions, SlotSite.Numbering sites) {
        List<Action> joined = new ArrayList<>();
        List<Actions.Field> same = new ArrayList<>();
        for (Action action : actions) {
            Actions.Field field = action instanceof Actions.Field step && step.step() != null ? step : null;
            if (!same.isEmpty() && (field == null || !goTogether(same.get(0), field))) {
                joined.add(new Steps(same, sites));
                same.clear();
            }
            if (field == null) {
                joined.add(action);
            } else {
                same.add(field);
            }
        }
        if (!same.isEmpty()) {
            joined.add(new Steps(same, sites));
        }
        return joined.toArray(new Action[0]);
    }

    private static boolean goTogether(Actions.Field one, Actions.Field next) {
        return one.isAttribute() == next.isAttribute()
                && Objects.requireNonNull(one.step()).beginsAs(Objects.requireNonNull(next.step()));
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
    void run(Frame frame, EventWriter out, Part pass) {
        if (pass != Part.ALL && attributes != (pass == Part.ATTRIBUTES)) {
            return;
        }
        RecordValue record = first.record(frame);
        int[] slots = record == null ? null : site.in(frame, record.layout()).slots();
        FieldGroup group = frame.run().caches().group(site.number(), names);
        for (int i = 0; i < fields.length; i++) {
            i = record == null || slots == null ? i : out.fields(group, record, slots, i);
            if (i < fields.length) {
                fields[i].run(frame, out, pass);
            }
        }
    }

    private int[] slots(Layout layout) {
        int[] slots = new int[fields.length];
        for (int i = 0; i < slots.length; i++) {
            slots[i] = Objects.requireNonNull(fields[i].step()).onlyIn(layout);
        }
        return slots;
    }
}
