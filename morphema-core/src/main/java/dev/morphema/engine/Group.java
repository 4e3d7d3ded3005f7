package dev.morphema.engine;

import dev.morphema.value.Origin;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One group: its keys, and its members or what is kept up to date of them; of a group that is
 * tallied in cells there is neither, until the cells cannot hold it. Not thread-safe.
 */
final class Group {
    private static final int[] NOWHERE = {};
    private static final int FIRST_PLACES = 4;

    private final int number;
    private final Value[] keys;
    private final @Nullable Origin origin;

    private @Nullable GroupState state;
    private @Nullable List<Value> members;
    private int[] places = NOWHERE;
    private int count;
    private int taken;

    /**
     * @param number of the group, in order of first appearance
     * @param origin where the first member stood
     */
    Group(int number, Value[] keys, @Nullable Origin origin) {
        this.number = number;
        this.keys = keys;
        this.origin = origin;
    }

    /** Its members are kept. */
    void keepMembers() {
        members = new ArrayList<>();
    }

    /** This is kept up to date. */
    void keepUp(GroupState kept) {
        state = kept;
    }

    int number() {
        return number;
    }

    Value key(int index) {
        return keys[index];
    }

    @Nullable
    Origin origin() {
        return origin;
    }

    /**
     * {@return what is kept up to date, or null if the members are kept, or the group is tallied in
     * cells}
     */
    @Nullable
    GroupState state() {
        return state;
    }

    void add(Value member) {
        Objects.requireNonNull(members).add(member);
    }

    /** Adds a member that is kept elsewhere, at some place. */
    void add(int place) {
        if (count == places.length) {
            places = Arrays.copyOf(places, Math.max(FIRST_PLACES, count * 2));
        }
        places[count++] = place;
    }

    /** One of its members, which are not kept, may be held by a loop over them. */
    void take() {
        taken++;
    }

    /** {@return how many of its members may be so} */
    int taken() {
        return taken;
    }

    /** {@return the members that are kept here}, which came before all others */
    List<Value> members() {
        return Objects.requireNonNull(members);
    }

    /** {@return where the other members are kept} */
    int[] places() {
        return Arrays.copyOf(places, count);
    }

    /** Forgets all members. */
    void clearMembers() {
        members = new ArrayList<>(0);
        places = NOWHERE;
        count = 0;
    }
}
