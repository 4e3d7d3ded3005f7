package dev.morphema.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;

/** Prints operators for people: what each does, and what it holds. */
final class OperatorPrinter implements Operator.Visitor {
    private final GroupWork work;
    private String printed = "";

    OperatorPrinter(GroupWork work) {
        this.work = work;
    }

    /** {@return an operator in one line, or in some if loops take the members of its groups} */
    String print(Operator operator) {
        operator.accept(this);
        return printed;
    }

    /** {@return whether an operator holds more the more records, keys or turns there are} */
    boolean holds(Operator operator) {
        if (!(operator instanceof Operator.Group group)) {
            return operator.holds();
        }
        GroupWork.OfGroup members = work.of(group);
        if (group.ends() && members.pushed() != null) {
            return false;
        }
        return group.kept()
                || members.pushed() != null
                || members.functions().isEmpty()
                || members.folded().stream().anyMatch(loop -> holds(holding(loop)));
    }

    /** {@return the operator of a folded loop that holds what is made of the members} */
    private static Operator holding(Pipeline folded) {
        return folded.operators().stream()
                .filter(operator -> operator instanceof Operator.Group || operator instanceof Operator.Sort)
                .findFirst()
                .orElseThrow();
    }

    static String written(List<Term> terms) {
        return terms.stream().map(Term::written).collect(Collectors.joining(", "));
    }

    /** {@return how a loop goes through a sequence} */
    static String each(Term sequence) {
        return "for each of " + sequence.written()
                + (sequence instanceof PlannedTerm.FoundByKey found ? ", found by " + written(found.keys()) : "");
    }

    @Override
    public void unnest(Operator.Unnest unnest) {
        printed = each(unnest.sequence()) + (unnest.optional() ? ", or once without" : "");
    }

    @Override
    public void filter(Operator.Filter filter) {
        printed = "keep where " + filter.condition().written();
    }

    @Override
    public void present(Operator.Present present) {
        printed = "keep what is there";
    }

    @Override
    public void let(Operator.Let let) {
        printed = "calculate " + let.value().written() + ", when used";
    }

    @Override
    public void group(Operator.Group group) {
        String what =
                switch (group.grouping()) {
                    case BY_KEY -> "group by " + written(group.keys());
                    case RUNS -> "group neighbours by " + written(group.keys());
                    case FROM ->
                        "group from each "
                                + Objects.requireNonNull(group.begins()).written();
                };
        printed = what + ", " + members(group, work.of(group));
    }

    private String members(Operator.Group group, GroupWork.OfGroup members) {
        if (group.kept()) {
            return "holding the members";
        }
        Pipeline pushed = members.pushed();
        List<String> held = new ArrayList<>();
        if (pushed != null) {
            held.add(group.ends() ? "passing each member on" : "holding the members, passing each on");
        }
        if (!members.functions().isEmpty()) {
            held.add("keeping up "
                    + members.functions().stream().map(Term::written).distinct().collect(Collectors.joining(", ")));
        }
        StringBuilder lines = new StringBuilder(held.isEmpty() ? "holding the keys" : String.join(", ", held));
        members.folded().forEach(loop -> inEach(holding(loop), lines));
        if (pushed != null) {
            pushed.operators().forEach(operator -> inEach(operator, lines));
        }
        return lines.toString();
    }

    private void inEach(Operator operator, StringBuilder lines) {
        lines.append("\n  in each: ").append(print(operator).replace("\n", "\n  "));
    }

    @Override
    public void sort(Operator.Sort sort) {
        String held =
                switch (sort.limit()) {
                    case 0 -> "holding all turns";
                    case 1 -> "holding only the first turn";
                    default -> "holding only the first " + sort.limit() + " turns";
                };
        printed = "sort by " + written(sort.keys()) + ", " + held;
    }

    @Override
    public void distinct(Operator.Distinct distinct) {
        printed = "keep the first for each " + written(distinct.keys()) + ", holding the keys";
    }

    @Override
    public void number(Operator.Number number) {
        printed = "number" + (number.keys().isEmpty() ? "" : " within " + written(number.keys()));
    }

    @Override
    public void take(Operator.Take take) {
        printed = "stop after " + take.count().written();
    }
}
