package dev.morphema.engine;

import dev.morphema.problem.ProblemException;
import dev.morphema.store.LastKey;
import dev.morphema.value.Comparison;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * The groups of members side by side, in one run of a loop: one ends where the next begins. Not
 * thread-safe.
 */
final class AdjacentGroups implements HeldFlow {
    private static final int[] NONE = {};

    private final Stages.@Nullable Keys keys;
    private final @Nullable Node begins;
    private final Node member;
    private final GroupStages.Names names;
    private final Frame frame;
    private final Flow next;
    private final boolean held;
    /**
     * Whether members go on as they come, and what takes those of the group at hand, if it wants
     * more.
     */
    private final boolean passes;
    /** Whether members are stored meanwhile, as no group is passed on before the end. */
    private final boolean stores;

    private @Nullable RecordSink sink;
    private boolean sinkWantsMore;
    private final List<Group> complete = new ArrayList<>();
    /** The keys of the last turn. */
    private final Value[] values;
    /** What gives the keys; and for each the step from the member, if it is one, else null. */
    private final Node[] nodes;

    private final PathNodes.@Nullable Named[] steps;

    /** Whether the keys are fields of the member. */
    private final boolean byField;
    /** The bytes of the keys, if those of the last member were plain. */
    private final LastKey[] bytes;

    private boolean bytesAreKnown;
    /** Whether a member is taken up only when all that comes of its record is. */
    private final boolean waits;

    private @Nullable Group group;
    private boolean more = true;

    /** @param held whether no group is passed on before the end */
    AdjacentGroups(GroupStages.Runs stage, Frame frame, Flow next, boolean held) {
        this.keys = stage.keys();
        this.begins = stage.begins();
        this.member = stage.member();
        this.names = stage.names();
        this.frame = frame;
        this.next = next;
        this.held = held;
        this.passes = !held && names.use().passes();
        this.stores = held && names.use().passes();
        this.nodes = keys == null ? new Node[0] : keys.nodes().toArray(new Node[0]);
        this.values = new Value[nodes.length];
        this.steps = new PathNodes.Named[nodes.length];
        this.bytes = new LastKey[nodes.length];
        Arrays.setAll(bytes, i -> new LastKey());
        this.waits = frame.run().units().areWithin();
        this.byField = keys != null && keys.areFieldsOf(member);
        for (int i = 0; i < nodes.length && member instanceof NameNodes.Local name; i++) {
            steps[i] = PathNodes.Named.from(name.slot(), nodes[i]);
        }
    }

    @Override
    public boolean turn() {
        Value thisMember = member.eval(frame);
        if (waits) {
            boolean begun = begins != null && begins.holds(frame);
            Value[] itsKeys = keys == null ? values : keys.values(frame);
            frame.run().units().takeUp(() -> take(thisMember, areOthers(itsKeys) || begun));
            return more;
        }
        return take(thisMember, starts(thisMember));
    }

    /** Whether keys are not those of the group at hand; they are known from now on. */
    private boolean areOthers(Value[] keysOfNext) {
        boolean same = group != null;
        for (int i = 0; i < values.length; i++) {
            same = same && Comparison.sameKey(keysOfNext[i], values[i]);
            values[i] = keysOfNext[i];
        }
        return !same;
    }

    private boolean take(Value thisMember, boolean starts) {
        if (starts) {
            // The names of the loop are in the frame; the group before must not lose them for this
            // turn.
            flush();
            if (!more) {
                return false;
            }
            group = names.begin(0, values.clone(), frame, LoopPlan.origin(thisMember));
            begin(group);
        }
        add(Objects.requireNonNull(group), thisMember);
        return more;
    }

    private void begin(Group begun) {
        if (passes) {
            names.set(begun, Objects.requireNonNull(begun.state()), frame);
            sink = next.open();
            sinkWantsMore = true;
        } else if (stores) {
            begun.keepMembers();
        }
    }

    private void add(Group to, Value thisMember) {
        names.add(to, frame, thisMember);
        if (passes) {
            sinkWantsMore = sinkWantsMore && Objects.requireNonNull(sink).accept(thisMember);
        } else if (stores) {
            to.add(thisMember);
        }
    }

    /** Whether the turn at hand is the first of a group; its keys are in the values then. */
    private boolean starts(Value thisMember) {
        if (begins != null) {
            return group == null || begins.holds(frame);
        }
        int[] slots = byField && thisMember instanceof RecordValue record
                ? Objects.requireNonNull(keys).plainSlots(frame, record)
                : NONE;
        boolean wereKnown = bytesAreKnown;
        bytesAreKnown = slots.length > 0;
        if (bytesAreKnown && areStill((RecordValue) thisMember, slots) && wereKnown) {
            return false;
        }
        boolean same = group != null;
        for (int i = 0; i < values.length; i++) {
            Value value = key(i, thisMember);
            same = same && (value == values[i] || Comparison.sameKey(value, values[i]));
            values[i] = value;
        }
        return !same;
    }

    /** Whether the bytes of the keys are those of the member before; they are known from now on. */
    private boolean areStill(RecordValue member, int[] slots) {
        boolean still = true;
        for (int i = 0; i < slots.length; i++) {
            still = bytes[i].isStill(Objects.requireNonNull(member.fieldBytes()), slots[i]) && still;
        }
        return still;
    }

    private Value key(int i, Value thisMember) {
        PathNodes.Named step = steps[i];
        Value value = step != null && thisMember instanceof RecordValue record ? step.evalIn(frame, record) : null;
        return value != null && value.isScalar() ? value : nodes[i].scalar(frame);
    }

    @Override
    public void eachState(Consumer<GroupState> taker) {
        for (Group ended : complete) {
            take(ended, taker);
        }
        if (group != null) {
            take(group, taker);
        }
    }

    private void take(Group from, Consumer<GroupState> taker) {
        if (from.state() != null) {
            taker.accept(from.state());
        }
    }

    private void flush() {
        if (group == null || !more) {
            return;
        }
        if (held) {
            complete.add(group);
        } else {
            more = passes ? close(group) : names.pass(group, frame, next);
        }
    }

    /** The group at hand has all its members, which went on already. */
    private boolean close(Group complete) {
        GroupState state = Objects.requireNonNull(complete.state());
        try {
            Objects.requireNonNull(sink).end();
            names.set(complete, state, frame);
            return next.close();
        } catch (ProblemException e) {
            throw LoopPlan.placed(e, state);
        }
    }

    @Override
    public void end() {
        flush();
        group = null;
        for (Group ended : complete) {
            if (!passHeld(ended)) {
                break;
            }
        }
        next.end();
    }

    private boolean passHeld(Group ended) {
        return stores
                ? names.pass(
                        ended,
                        Objects.requireNonNull(ended.state()),
                        frame,
                        next,
                        to -> ended.members().stream().allMatch(to::accept))
                : names.pass(ended, frame, next);
    }
}
