package dev.morphema.store;

/**
 * Numbers by hashes, of which several may have the same. Not thread-safe while numbers are added.
 */
final class Places {
    private static final int FIRST_SIZE = 4;

    /**
     * For each place a hash in the upper half and a number, counted from 1, in the lower; 0 if the
     * place is free.
     */
    private long[] places = new long[FIRST_SIZE];

    private int size;

    /** {@return the first place with a hash, or -1} */
    int first(int hash) {
        return from(hash, hash);
    }

    /** {@return the place with the same hash after one, or -1} */
    int next(int hash, int place) {
        return from(place + 1, hash);
    }

    private int from(int begin, int hash) {
        long[] all = places;
        int mask = all.length - 1;
        int i = begin & mask;
        while (all[i] != 0) {
            if ((int) (all[i] >>> Integer.SIZE) == hash) {
                return i;
            }
            i = i + 1 & mask;
        }
        return -1;
    }

    /** {@return the number at a place} */
    int number(int place) {
        return (int) places[place] - 1;
    }

    /** @param number any but -1 */
    void add(int hash, int number) {
        size++;
        if (size * 4L > places.length * 3L) {
            grow();
        }
        put(places, (long) hash << Integer.SIZE | Integer.toUnsignedLong(number + 1));
    }

    private void grow() {
        long[] more = new long[places.length * 2];
        for (long place : places) {
            if (place != 0) {
                put(more, place);
            }
        }
        places = more;
    }

    private static void put(long[] into, long place) {
        int mask = into.length - 1;
        int i = (int) (place >>> Integer.SIZE) & mask;
        while (into[i] != 0) {
            i = i + 1 & mask;
        }
        into[i] = place;
    }
}
