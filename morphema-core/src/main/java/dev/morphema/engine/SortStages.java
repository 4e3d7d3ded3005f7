package dev.morphema.engine;

import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.store.SortedTurns;
import dev.morphema.value.Comparison;
import dev.morphema.value.Value;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** The clauses that give turns back in order. */
final class SortStages {
    private SortStages() {}

    /**
     * The order of turns: absent and null come last either way.
     *
     * @param descending for each key
     * @param names the slots of the names that a turn has
     */
    record Order(Stages.Keys keys, boolean[] descending, int[] names) {
        Value[] keys(Frame frame) {
            return keys.values(frame);
        }

        /** {@return the turn at hand, to be given back later} */
        SortedTurns.Turn turn(Frame frame, Value[] itsKeys) {
            @Nullable Object[] kept = new Object[names.length];
            for (int i = 0; i < names.length; i++) {
                kept[i] = frame.held(names[i]);
            }
            return new SortedTurns.Turn(kept, itsKeys);
        }

        /** Passes a turn on that was held back; says whether more are wanted. */
        boolean pass(SortedTurns.Turn turn, Frame frame, Flow next) {
            for (int i = 0; i < names.length; i++) {
                frame.set(names[i], turn.names()[i]);
            }
            try {
                return next.turn();
            } catch (ProblemException e) {
                throw LoopPlan.placed(e, turn.names()[0]);
            }
        }

        /** Compares the keys of two turns; fails if they have no order. */
        int compare(Value[] a, Value[] b) {
            for (int i = 0; i < a.length; i++) {
                int order = compare(a[i], b[i], i);
                if (order != 0) {
                    return order;
                }
            }
            return 0;
        }

        private int compare(Value a, Value b, int key) {
            if (a.isMissing() || b.isMissing()) {
                return Boolean.compare(a.isMissing(), b.isMissing());
            }
            try {
                if (a.kind() != b.kind()) {
                    throw new ProblemException(Problem.error(
                            Code.KIND,
                            "Values of unlike kinds cannot be sorted: "
                                    + a.kind().words() + " and " + b.kind().words() + "."));
                }
                int order = Comparison.compare(a, b);
                return descending[key] ? -order : order;
            } catch (ProblemException e) {
                throw keys.nodes().get(key).located(e);
            }
        }
    }

    /** {@code sort by}: stable. */
    record All(Order order) implements Stage {
        @Override
        public Flow start(Frame frame, Flow next) {
            SortedTurns turns = new SortedTurns(
                    order.descending(), order::compare, frame.run().budget());
            boolean waits = frame.run().units().areWithin();
            return new Flow() {
                @Override
                public boolean turn() {
                    SortedTurns.Turn turn = order.turn(frame, order.keys(frame));
                    if (waits) {
                        frame.run().units().takeUp(() -> turns.add(turn));
                    } else {
                        turns.add(turn);
                    }
                    return true;
                }

                @Override
                public void end() {
                    turns.each(turn -> order.pass(turn, frame, next));
                    next.end();
                }
            };
        }
    }

    /**
     * {@code sort by … take n}: holds no more turns than will be taken, as each further one either
     * takes the place of the last of them or is forgotten.
     *
     * @param most how many are taken, at least one
     */
    record First(Order order, int most) implements Stage.Holding {
        @Override
        public Flow start(Frame frame, Flow next) {
            return startHeld(frame, next);
        }

        @Override
        public HeldFlow startHeld(Frame frame, Flow next) {
            return new FirstTurns(this, frame, next);
        }
    }

    /** The first turns of one run of a loop so far. Not thread-safe. */
    private static final class FirstTurns implements HeldFlow {
        private static final SortedTurns.Turn[] NONE = {};

        private final First stage;
        private final Frame frame;
        private final Flow next;
        private final boolean waits;
        /**
         * In order; there are many of these flows with few turns each, so there is no room before
         * it is needed.
         */
        private SortedTurns.Turn[] held = NONE;

        private int size;

        FirstTurns(First stage, Frame frame, Flow next) {
            this.stage = stage;
            this.frame = frame;
            this.next = next;
            this.waits = frame.run().units().areWithin();
        }

        @Override
        public boolean turn() {
            Value[] keys = stage.order().keys(frame);
            if (waits) {
                SortedTurns.Turn turn = stage.order().turn(frame, keys);
                frame.run().units().takeUp(() -> hold(place(keys), turn));
            } else {
                int place = place(keys);
                if (place < stage.most()) {
                    hold(place, stage.order().turn(frame, keys));
                }
            }
            return true;
        }

        private void hold(int place, SortedTurns.Turn turn) {
            if (place < stage.most()) {
                if (size < stage.most()) {
                    size++;
                    makeRoom();
                }
                System.arraycopy(held, place, held, place + 1, size - 1 - place);
                held[place] = turn;
            }
        }

        private void makeRoom() {
            if (size > held.length) {
                held = Arrays.copyOf(held, Math.min(stage.most(), Math.max(1, held.length * 2)));
            }
        }

        /**
         * {@return the place of a turn among those that are held}: behind those with equal keys,
         * which came before it.
         */
        private int place(Value[] keys) {
            int from = 0;
            int to = size;
            // Most come after all that are held.
            int middle = size - 1;
            while (from < to) {
                if (stage.order().compare(keys, held[middle].keys()) < 0) {
                    to = middle;
                } else {
                    from = middle + 1;
                }
                middle = (from + to) >>> 1;
            }
            return from;
        }

        /** Passes on what there is; may be asked again, as it is all still there. */
        @Override
        public void end() {
            for (int i = 0; i < size; i++) {
                if (!stage.order().pass(held[i], frame, next)) {
                    break;
                }
            }
            next.end();
        }
    }
}
