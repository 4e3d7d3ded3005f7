package dev.morphema.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/** Finds the loop to which what is written leads first, and which therefore can be pushed. */
public final class OutermostLoop {
    private OutermostLoop() {}

    /**
     * {@return the first loop of some kind that stands directly in an output, or in blocks within
     * blocks; or null}
     */
    static Output.@Nullable Turns find(Output output, Predicate<Pipeline> wanted) {
        if (output instanceof Output.Turns turns) {
            return wanted.test(turns.loop()) ? turns : null;
        }
        Emits body = output.body();
        return body == null ? null : find(body, wanted);
    }

    private static Output.@Nullable Turns find(Emits body, Predicate<Pipeline> wanted) {
        for (Emit emit : body.statements()) {
            Output.Turns found = null;
            if (emit instanceof Emit.Field field && field.isPlain()) {
                found = mayBeCopied(field, body) ? null : find(field.output(), wanted);
            } else if (emit instanceof Emit.Item item && item.output() instanceof Output.Turns) {
                found = find(item.output(), wanted);
            }
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    /** {@return all loops that an output leads to at most once, in written order} */
    static List<Pipeline> all(Output output) {
        List<Pipeline> loops = new ArrayList<>();
        collect(output, loops);
        return loops;
    }

    private static void collect(Output output, List<Pipeline> loops) {
        if (output instanceof Output.Turns turns) {
            loops.add(turns.loop());
        } else if (output.body() != null) {
            collect(output.body(), loops);
        }
    }

    private static void collect(Emits body, List<Pipeline> loops) {
        for (Emit emit : body.statements()) {
            if (emit instanceof Emit.Field field) {
                collect(field.output(), loops);
            } else if (emit instanceof Emit.Item item) {
                collect(item.output(), loops);
            } else if (emit instanceof Emit.Choice choice) {
                collect(choice.then(), loops);
                if (choice.otherwise() != null) {
                    collect(choice.otherwise(), loops);
                }
            }
        }
    }

    /** Whether a copy in the same block may write the field, in place of the one that it copies. */
    private static boolean mayBeCopied(Emit.Field field, Emits body) {
        return body.statements().stream()
                .anyMatch(emit -> emit instanceof Emit.Copy copy && copy.mayWrite(field.name()));
    }

    /** {@return whether a statement is, or leads to, a loop whose items are given to it} */
    public static boolean isPushedBy(Emit emit) {
        return leadsTo(emit, loop -> loop.supply() == Pipeline.Supply.PUSHED);
    }

    /** {@return whether a statement is, or leads to, some loop} */
    static boolean leadsTo(Emit emit, Predicate<Pipeline> loop) {
        if (emit instanceof Emit.Field field) {
            return leadsTo(field.output(), loop);
        }
        return emit instanceof Emit.Item item && leadsTo(item.output(), loop);
    }

    private static boolean leadsTo(Output output, Predicate<Pipeline> loop) {
        if (output instanceof Output.Turns turns) {
            return loop.test(turns.loop());
        }
        Emits body = output.body();
        return body != null && body.statements().stream().anyMatch(emit -> leadsTo(emit, loop));
    }
}
