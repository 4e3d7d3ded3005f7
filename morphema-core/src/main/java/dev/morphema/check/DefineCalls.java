package dev.morphema.check;

import dev.morphema.function.Function;
import dev.morphema.function.Stability;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What the defines of a mapping call, and so which of them give something else each time. Not thread-safe. */
final class DefineCalls {
    private final Map<Integer, List<Resolution.Callee>> calls = new HashMap<>();
    private int at = -1;

    /** The rule of a define is checked from now on; -1 for anything else. */
    void enter(int define) {
        at = define;
    }

    /** The rule that is being checked calls something. */
    void add(Resolution.Callee callee) {
        if (at >= 0) {
            calls.computeIfAbsent(at, define -> new ArrayList<>()).add(callee);
        }
    }

    /** {@return the defines that are volatile, directly or through others} */
    Set<Integer> volatileDefines() {
        Set<Integer> found = new HashSet<>();
        boolean more = true;
        while (more) {
            more = false;
            for (Map.Entry<Integer, List<Resolution.Callee>> define : calls.entrySet()) {
                more |= define.getValue().stream().anyMatch(callee -> isVolatile(callee, found))
                        && found.add(define.getKey());
            }
        }
        return found;
    }

    static boolean isVolatile(Resolution.Callee callee, Set<Integer> volatileDefines) {
        if (callee instanceof Resolution.Defined defined) {
            return volatileDefines.contains(defined.index());
        }
        Function function = ((Resolution.Builtin) callee).function();
        return function.stability() == Stability.VOLATILE;
    }
}
