package dev.morphema.engine;

import dev.morphema.problem.ProblemException;
import dev.morphema.value.NumberValue;
import dev.morphema.value.Value;
import dev.morphema.value.ValueSize;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Groups while their members come, given back in order of first appearance. When they get too many, members are laid down
 * under the number of their group; when the keys alone are too many, no new groups are begun: what belongs to further ones
 * is laid down as it came, and goes through the same once more when the groups before are done. Not thread-safe.
 */
final class HeldGroups {
    /** What a group takes beside its keys and members, and each function that is kept up, in bytes, about. */
    private static final int GROUP = 180;

    private static final int FUNCTION = 90;

    private final GroupStages.Names names;
    private final Frame frame;
    private final @Nullable Holdings holdings;
    private final int bytesOfGroup;
    private final KeyCode code = new KeyCode();
    private GroupTable groups = new GroupTable();
    /** Members of the groups that were laid down; in each the groups have the order that they have here. */
    private final List<LaidDown> members = new ArrayList<>();
    /** Keys and members of groups that were not begun. */
    private @Nullable LaidDown further;

    private long bytes;
    private long bytesOfKeys;

    /** @param holdings null if all is to stay in memory, so that the groups can be gone through more than once */
    HeldGroups(GroupStages.Names names, Frame frame, @Nullable Holdings holdings) {
        this.names = names;
        this.frame = frame;
        this.holdings = holdings;
        this.bytesOfGroup = GROUP + FUNCTION * names.use().running().length;
    }

    /**
     * Takes the next member.
     *
     * @param keys the values of its key; copied if they are kept
     */
    void add(Value[] keys, Value member) {
        code.set(keys);
        Group group = groups.find(code);
        if (group == null) {
            if (further != null) {
                further.add(LaidDown.row(keys, new Value[] {member}));
                return;
            }
            group = names.begin(groups.size(), code, keys.clone(), frame, member);
            groups.add(group);
            hold(bytesOfGroup + ValueSize.of(keys), true);
        }
        names.add(group, frame, member);
        if (holdings != null && names.use().keeps()) {
            hold(ValueSize.of(member) + 4, false);
        }
    }

    private void hold(long more, boolean ofKeys) {
        if (holdings == null) {
            return;
        }
        holdings.add(more);
        bytes += more;
        bytesOfKeys += ofKeys ? more : 0;
        if (holdings.isTooMuch(bytes - bytesOfKeys)) {
            layDownMembers(holdings);
        }
        if (further == null && holdings.isTooMuch(bytesOfKeys)) {
            further = holdings.layDown();
        }
    }

    private void layDownMembers(Holdings from) {
        LaidDown rows = from.layDown();
        for (Group group : groups) {
            Value number = NumberValue.of(group.number());
            for (Value member : group.takeMembers()) {
                rows.add(new Value[] {number, member});
            }
        }
        rows.complete();
        members.add(rows);
        from.add(bytesOfKeys - bytes);
        bytes = bytesOfKeys;
    }

    /** Gives each group in order, until one says that no more are wanted. */
    void each(Predicate<Group> pass) {
        boolean more = passAll(pass);
        while (more && further != null) {
            LaidDown rest = further;
            forget();
            addAgain(rest);
            more = passAll(pass);
        }
        if (holdings != null) {
            forget();
        }
    }

    private void forget() {
        Objects.requireNonNull(holdings).add(-bytes);
        bytes = 0;
        bytesOfKeys = 0;
        groups = new GroupTable();
        members.clear();
        further = null;
    }

    private void addAgain(LaidDown rest) {
        LaidDown.Reader rows = rest.read(Objects.requireNonNull(holdings).readAhead(1));
        for (@Nullable Value[] row = rows.next(); row != null; row = rows.next()) {
            Value[] keys = Arrays.copyOf(row, row.length - 1);
            Value member = Objects.requireNonNull(row[row.length - 1]);
            try {
                add(keys, member);
            } catch (ProblemException e) {
                throw LoopPlan.placed(e, member);
            }
        }
    }

    private boolean passAll(Predicate<Group> pass) {
        List<MembersAgain> again = new ArrayList<>();
        for (LaidDown rows : members) {
            again.add(
                    new MembersAgain(rows.read(Objects.requireNonNull(holdings).readAhead(members.size()))));
        }
        for (Group group : groups) {
            if (!again.isEmpty()) {
                List<Value> all = new ArrayList<>();
                again.forEach(rows -> rows.addTo(all, group.number()));
                all.addAll(group.takeMembers());
                group.putMembers(all);
            }
            if (!pass.test(group)) {
                return false;
            }
            if (!again.isEmpty()) {
                group.takeMembers();
            }
        }
        return true;
    }

    /** Members that were laid down at one time. */
    private static final class MembersAgain {
        private final LaidDown.Reader rows;
        private @Nullable Value @Nullable [] next;

        MembersAgain(LaidDown.Reader rows) {
            this.rows = rows;
            this.next = rows.next();
        }

        void addTo(List<Value> members, int group) {
            while (next != null && ((NumberValue) Objects.requireNonNull(next[0])).equals(NumberValue.of(group))) {
                members.add(Objects.requireNonNull(next[1]));
                next = rows.next();
            }
        }
    }
}
