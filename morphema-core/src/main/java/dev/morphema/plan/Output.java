package dev.morphema.plan;

import dev.morphema.value.Converter;
import org.jspecify.annotations.Nullable;

/** What a field, an item or a document is given. */
public sealed interface Output {
    /** {@return this output with its parts as a pass gives them} */
    Output rebuilt(PlanPass pass);

    /** {@return the block by which all of it is written, or null if it is not like that} */
    default @Nullable Emits body() {
        return null;
    }

    /** One value, perhaps converted to a type. */
    record Single(Term value, @Nullable Converter type) implements Output {
        @Override
        public Output rebuilt(PlanPass pass) {
            return new Single(pass.term(value), type);
        }
    }

    /** A record. */
    record Nested(Emits body) implements Output {
        @Override
        public Output rebuilt(PlanPass pass) {
            return new Nested(pass.emits(body));
        }
    }

    /** A list, piece by piece. */
    record Pieces(Emits body) implements Output {
        @Override
        public Output rebuilt(PlanPass pass) {
            return new Pieces(pass.emits(body));
        }
    }

    /**
     * Something for each turn of a loop.
     *
     * @param key the name of each turn in an object, or null if they make a list
     * @param counted whether a turn is what the target counts as a record
     */
    record Turns(Pipeline loop, @Nullable Term key, Output each, boolean counted) implements Output {
        @Override
        public Output rebuilt(PlanPass pass) {
            return new Turns(pass.pipeline(loop), key == null ? null : pass.term(key), pass.output(each), counted);
        }
    }
}
