package dev.morphema.engine;

import dev.morphema.value.Many;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** One group: its keys, and either its members or what is kept up to date of them. Not thread-safe. */
final class Group {
    private final int number;
    private final Value[] keys;
    private final @Nullable GroupState state;
    private @Nullable List<Value> members;

    // What the table of groups knows of it.
    private final int hash;
    private final long first;
    private final long second;
    private final @Nullable Object other;
    private @Nullable Group nextOfPlace;
    private @Nullable Group following;

    /**
     * @param number of the group, in order of first appearance
     * @param code what the group is looked up by
     * @param state null if the members are kept
     */
    Group(int number, KeyCode code, Value[] keys, @Nullable GroupState state) {
        this.number = number;
        this.keys = keys;
        this.state = state;
        this.members = state == null ? new ArrayList<>() : null;
        this.hash = code.hash();
        this.first = code.first();
        this.second = code.second();
        this.other = code.other();
    }

    int number() {
        return number;
    }

    Value key(int index) {
        return keys[index];
    }

    /** {@return what is kept up to date, or null if the members are kept} */
    @Nullable
    GroupState state() {
        return state;
    }

    void add(Value member) {
        Objects.requireNonNull(members).add(member);
    }

    /** {@return what stands for the members where the mapping uses them: their state, or they themselves} */
    Object held() {
        return members == null ? Objects.requireNonNull(state) : Many.owned(members);
    }

    /** {@return the members, which the group has no longer} */
    List<Value> takeMembers() {
        List<Value> taken = Objects.requireNonNull(members);
        members = new ArrayList<>(0);
        return taken;
    }

    void putMembers(List<Value> all) {
        members = all;
    }

    boolean hasKey(KeyCode code) {
        return first == code.first() && second == code.second() && Objects.equals(other, code.other());
    }

    int hash() {
        return hash;
    }

    /** {@return the next group whose hash belongs to the same place} */
    @Nullable
    Group nextOfPlace() {
        return nextOfPlace;
    }

    void putBefore(@Nullable Group next) {
        nextOfPlace = next;
    }

    /** {@return the group that appeared next} */
    @Nullable
    Group following() {
        return following;
    }

    void follow(Group next) {
        following = next;
    }
}
