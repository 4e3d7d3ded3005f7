package dev.morphema.draft;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The names that a loop has once it is grouped.
 *
 * @param keys the columns by which it is grouped; none where groups begin by a condition
 * @param vars the names of the keys, and behind them that of the members
 */
record GroupNames(List<Column> keys, List<Var> vars) {
    /** @param taken names that these may not hide, beside those of the loop */
    static GroupNames of(Chain chain, List<Column> keys, Set<String> taken) {
        Set<String> names = new HashSet<>(taken);
        names.addAll(chain.names());
        List<Var> vars = new ArrayList<>();
        for (Column key : keys) {
            String name = Names.variable(key.name().replaceAll(".* ", ""), names);
            vars.add(new Var(name, Var.Form.KEY));
        }
        Var loop = chain.vars().get(chain.vars().size() - 1);
        String members = Names.first(names, Names.plural(loop.name()), "members", "same");
        vars.add(new Var(members, Var.Form.GROUP, loop.about()));
        return new GroupNames(keys, vars);
    }

    /** {@return the name of the members} */
    String members() {
        return vars.get(keys.size()).name();
    }

    /** {@return the clause that groups by the keys} */
    String clause() {
        List<String> written = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) {
            written.add(vars.get(i).name() + " = " + keys.get(i).expression());
        }
        return written.stream().collect(Collectors.joining(", ", "group by ", " as " + members()));
    }
}
