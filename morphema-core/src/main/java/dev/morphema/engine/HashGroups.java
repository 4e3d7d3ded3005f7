package dev.morphema.engine;

import dev.morphema.problem.ProblemException;
import dev.morphema.store.KeyCode;
import dev.morphema.store.MemoryBudget;
import dev.morphema.store.PackedValues;
import dev.morphema.store.PartitionedGroups;
import dev.morphema.store.SpillFile;
import dev.morphema.value.Many;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Origin;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import dev.morphema.value.ValueSize;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Groups while their members come, given back in order of first appearance. When they get too many,
 * members are spilled under the number of their group; when the keys alone are too many, no new
 * groups are begun: members of {@linkplain PartitionedGroups further} ones are spilled too, and
 * come group by group when the groups before are done. Not thread-safe.
 */
final class HashGroups {
    /**
     * What a group takes beside its keys and members, and each function that is kept up, in bytes,
     * about.
     */
    private static final int GROUP = 180;

    private static final int FUNCTION = 90;

    /**
     * What a loop over the members that runs while they come takes, and a turn that it holds,
     * beside the member.
     */
    private static final int LOOP = 400;

    private static final int TURN = 80;

    /** Where a member is. */
    private static final int PLACE = 8;

    /** A cell, as long as the array of cells is copied to one of twice its length. */
    private static final int CELL = 16;

    private final GroupStages.Names names;
    private final Frame frame;
    private final @Nullable MemoryBudget budget;
    private final int bytesOfGroup;
    private final boolean tallied;
    /** Whether the members are stored: to be given as a whole, or one at a time. */
    private final boolean stores;

    private final int mostHeld;
    private final boolean packs;
    private final KeyCode code = new KeyCode();
    private GroupTable groups;
    /** The groups whose cells could not hold what is tallied any more. */
    private BitSet outgrown = new BitSet(0);

    /** How many members were kept since they were last spilled. */
    private int kept;

    /** Made when there are many. */
    private @Nullable PackedValues packed;

    /**
     * Members of the groups that were spilled; in each the groups have the order that they have
     * here.
     */
    private final List<SpillFile> members = new ArrayList<>();
    /** Keys and members of groups that were not begun. */
    private @Nullable PartitionedGroups further;

    private long bytes;
    private long bytesOfKeys;

    /**
     * @param packs whether each member is a value of its own, so that many may be kept as bytes;
     *     others can have large parts that are the same
     * @param budget null if all is to stay in memory, so that the groups can be gone through more
     *     than once
     */
    HashGroups(GroupStages.Names names, boolean packs, Frame frame, @Nullable MemoryBudget budget) {
        this.names = names;
        this.packs = packs;
        this.frame = frame;
        this.budget = budget;
        this.tallied = names.use().isTallied();
        this.stores = names.use().keeps() || names.use().passes();
        this.groups = new GroupTable(tallied ? names.use().cells() : 0);
        this.mostHeld = names.use().mostHeld();
        this.bytesOfGroup = GROUP
                + (tallied ? CELL * names.use().cells() : FUNCTION * names.use().running().length)
                + LOOP * names.use().nested().size();
    }

    /**
     * Takes the next member.
     *
     * @param keys the values of its key; copied if they are kept
     */
    void add(Value[] keys, Value member) {
        code.set(keys);
        int number = groups.find(code);
        if (number < 0) {
            if (further != null) {
                further.add(keys, member);
                return;
            }
            number = begin(keys.clone(), LoopPlan.origin(member));
        }
        take(number, member);
    }

    private void take(int number, Value member) {
        if (isInCells(number)) {
            tally(0, number, member);
        } else if (!names.use().keeps()) {
            keepUp(groups.get(number), member);
        }
        if (stores) {
            store(groups.get(number), member);
        }
    }

    private void keepUp(Group group, Value member) {
        names.add(group, frame, member);
        if (group.taken() < mostHeld) {
            // One that comes later takes the place of one of these, if it is held at all.
            group.take();
            hold(TURN + ValueSize.of(member), true);
        }
    }

    private void store(Group group, Value member) {
        if (packs && ++kept > PackedValues.MOST_UNPACKED) {
            packed = packed == null ? new PackedValues() : packed;
            group.add(packed.add(member));
            hold(packed.lastLength() + PLACE, false);
        } else {
            group.add(member);
            hold(budget == null ? 0 : ValueSize.of(member) + PLACE, false);
        }
    }

    /**
     * As {@link #add(Value[], Value)}, for a record whose keys are plain bytes.
     *
     * @param keys the slots of its keys
     */
    void add(RecordValue member, int[] keys) {
        code.set(Objects.requireNonNull(member.fieldBytes()), keys);
        int number = groups.find(code);
        if (number < 0) {
            add(Stages.Keys.texts(member, keys), member);
        } else {
            take(number, member);
        }
    }

    private boolean isInCells(int number) {
        return tallied && (outgrown.isEmpty() || !outgrown.get(number));
    }

    /** Begins the group of the key at hand; gives its number. */
    private int begin(Value[] keys, @Nullable Origin first) {
        Group group = tallied ? new Group(groups.size(), keys, first) : names.begin(groups.size(), keys, frame, first);
        if (names.use().passes()) {
            group.keepMembers();
        }
        int number = groups.add(code, group);
        hold(bytesOfGroup + ValueSize.of(keys), true);
        return number;
    }

    private void tally(int function, int number, Value member) {
        int from = names.tally(function, frame, member, groups.cells(), groups.cellsOf(number));
        if (from >= 0) {
            outgrow(from, number, member);
        }
    }

    private void outgrow(int from, int number, Value member) {
        GroupState state = state(groups.get(number));
        outgrown.set(number);
        groups.get(number).keepUp(state);
        state.addFrom(from, frame, member);
    }

    /** {@return what is kept up of a group, from its cells if it is tallied} */
    private GroupState state(Group group) {
        GroupState known = group.state();
        return known != null
                ? known
                : new GroupState(names.use(), group.origin(), groups.cells(), groups.cellsOf(group.number()));
    }

    private void hold(long more, boolean ofKeys) {
        if (budget == null) {
            return;
        }
        budget.add(more);
        bytes += more;
        bytesOfKeys += ofKeys ? more : 0;
        if (budget.isTooMuch(bytes - bytesOfKeys)) {
            spillMembers(budget);
        }
        if (further == null && budget.isTooMuch(bytesOfKeys)) {
            further = new PartitionedGroups(budget);
        }
    }

    private void spillMembers(MemoryBudget from) {
        SpillFile rows = from.newSpillFile();
        for (Group group : groups) {
            Value number = NumberValue.of(group.number());
            for (Value member : members(group)) {
                rows.add(new Value[] {number, member});
            }
            group.clearMembers();
        }
        kept = 0;
        packed = null;
        rows.complete();
        members.add(rows);
        from.add(bytesOfKeys - bytes);
        bytes = bytesOfKeys;
    }

    /** Gives what is kept up of each group, in order; of groups whose members are kept, nothing. */
    void eachState(Consumer<GroupState> taker) {
        for (Group group : groups) {
            GroupState state = tallied ? state(group) : group.state();
            if (state != null) {
                taker.accept(state);
            }
        }
    }

    /** Passes on each group in order, until no more are wanted. */
    void each(Flow next) {
        boolean more = passAll(next);
        PartitionedGroups rest = further;
        if (more && rest != null) {
            forget();
            OneByOne groupsLeft = new OneByOne(next);
            rest.each(groupsLeft);
            groupsLeft.end();
        }
        if (budget != null) {
            forget();
        }
    }

    private void forget() {
        Objects.requireNonNull(budget).add(-bytes);
        bytes = 0;
        bytesOfKeys = 0;
        groups = new GroupTable(tallied ? names.use().cells() : 0);
        outgrown = new BitSet(0);
        packed = null;
        kept = 0;
        members.clear();
        further = null;
    }

    /**
     * Begins a group when its first member comes, and passes it on when that of the next one does.
     */
    private final class OneByOne implements PartitionedGroups.Taker {
        private final Flow next;
        private long group = -1;
        private boolean more = true;

        OneByOne(Flow next) {
            this.next = next;
        }

        @Override
        public boolean take(long number, Value[] keys, Value member) {
            if (number != group) {
                end();
                group = number;
            }
            if (more) {
                try {
                    add(keys, member);
                } catch (ProblemException e) {
                    throw LoopPlan.placed(e, member);
                }
            }
            return more;
        }

        void end() {
            more = more && passAll(next);
            forget();
        }
    }

    private boolean passAll(Flow next) {
        boolean passes = names.use().passes();
        if (passes && budget != null && !members.isEmpty()) {
            // What takes the members may need the memory.
            spillMembers(budget);
        }
        List<MembersAgain> again = new ArrayList<>();
        for (SpillFile rows : members) {
            again.add(new MembersAgain(rows.read(Objects.requireNonNull(budget).readAhead(members.size()))));
        }
        for (Group group : groups) {
            boolean more = passes
                    ? names.pass(group, state(group), frame, next, sink -> give(group, again, sink))
                    : names.pass(group, held(group, again), frame, next);
            if (!more) {
                return false;
            }
        }
        return true;
    }

    /** Gives the members of a group one at a time, until no more are wanted. */
    private void give(Group group, List<MembersAgain> again, RecordSink sink) {
        // Each member is a record of its own, however many steps all of them take.
        LimitGuard limits = frame.run().limits();
        ItemSink one = member -> {
            limits.beginUnit();
            return sink.accept(member);
        };
        boolean more = true;
        for (MembersAgain rows : again) {
            more = rows.give(group.number(), one, more);
        }
        more = more && one.acceptAll(group.members());
        int[] places = group.places();
        for (int i = 0; more && i < places.length; i++) {
            more = one.accept(Objects.requireNonNull(packed).value(places[i]));
        }
    }

    /** {@return what stands for the members of a group} */
    private Object held(Group group, List<MembersAgain> again) {
        if (!stores) {
            return state(group);
        }
        if (again.isEmpty()) {
            return Many.owned(members(group));
        }
        List<Value> all = new ArrayList<>();
        again.forEach(rows -> rows.addTo(all, group.number()));
        all.addAll(members(group));
        return Many.owned(all);
    }

    /** {@return the members that were not spilled} */
    private List<Value> members(Group group) {
        int[] places = group.places();
        if (packed == null || places.length == 0) {
            return group.members();
        }
        List<Value> all = new ArrayList<>(group.members());
        for (int place : places) {
            all.add(packed.value(place));
        }
        return all;
    }

    /** Members that were spilled at one time. */
    private static final class MembersAgain {
        private final SpillFile.Reader rows;
        private @Nullable Value @Nullable [] next;

        MembersAgain(SpillFile.Reader rows) {
            this.rows = rows;
            this.next = rows.next();
        }

        void addTo(List<Value> members, int group) {
            for (Value member = next(group); member != null; member = next(group)) {
                members.add(member);
            }
        }

        /**
         * Gives the members of a group to a sink, or goes past them if it wants no more; says
         * whether it does.
         */
        boolean give(int group, ItemSink sink, boolean wanted) {
            boolean more = wanted;
            for (Value member = next(group); member != null; member = next(group)) {
                more = more && sink.accept(member);
            }
            return more;
        }

        /** {@return the next member, if it is of a group; else null} */
        private @Nullable Value next(int group) {
            @Nullable Value[] row = next;
            if (row == null || !Objects.requireNonNull(row[0]).equals(NumberValue.of(group))) {
                return null;
            }
            next = rows.next();
            return row[1];
        }
    }
}
