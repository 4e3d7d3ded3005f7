package dev.morphema.engine;

import java.util.Iterator;
import java.util.NoSuchElementException;
import org.jspecify.annotations.Nullable;

/** Groups by key, in order of first appearance. Not thread-safe. */
final class GroupTable implements Iterable<Group> {
    private static final int FIRST_PLACES = 8;

    /** For each place the first of the groups whose hash belongs there; each knows the next. */
    private @Nullable Group[] places = new Group[FIRST_PLACES];

    private @Nullable Group oldest;
    private @Nullable Group newest;
    private int size;

    int size() {
        return size;
    }

    /** {@return the group of a key, or null} */
    @Nullable
    Group find(KeyCode key) {
        Group group = places[key.hash() & places.length - 1];
        while (group != null && !group.hasKey(key)) {
            group = group.nextOfPlace();
        }
        return group;
    }

    /** Adds a group whose key is not there yet. */
    void add(Group group) {
        if (newest == null) {
            oldest = group;
        } else {
            newest.follow(group);
        }
        newest = group;
        if (++size > places.length) {
            grow();
        }
        put(group);
    }

    private void put(Group group) {
        int place = group.hash() & places.length - 1;
        group.putBefore(places[place]);
        places[place] = group;
    }

    private void grow() {
        places = new Group[places.length * 4];
        for (Group group : this) {
            if (group != newest) {
                put(group);
            }
        }
    }

    @Override
    public Iterator<Group> iterator() {
        return new Iterator<>() {
            private @Nullable Group next = oldest;

            @Override
            public boolean hasNext() {
                return next != null;
            }

            @Override
            public Group next() {
                Group group = next;
                if (group == null) {
                    throw new NoSuchElementException();
                }
                next = group.following();
                return group;
            }
        };
    }
}
