package dev.morphema.plan;

import dev.morphema.check.CheckedMapping;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import dev.morphema.syntax.Name;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What a run of a plan holds, and by which rules. */
final class Holdings {
    private final List<String> held = new ArrayList<>();
    private @Nullable RuleLocation first;

    private Holdings(Plan plan) {
        for (int i = 0; i < plan.sources().size(); i++) {
            Plan.Source source = plan.sources().get(i);
            Name name = plan.mapping().sources().get(i).decl().name();
            if (source.kept()) {
                add("the source " + name.text(), name.span().location());
            }
        }
        for (CheckedMapping.Table table : plan.mapping().tables()) {
            if (table.onDemand() < 0) {
                held.add("the table " + table.decl().name().text());
            }
        }
        for (Plan.Target target : plan.targets()) {
            OperatorPrinter printer = new OperatorPrinter(GroupWork.in(target));
            target.loops().forEach(loop -> loop(loop, printer));
        }
    }

    private void loop(Pipeline loop, OperatorPrinter printer) {
        for (Operator operator : loop.operators()) {
            if (printer.holds(operator)) {
                String what = printer.print(operator).lines().findFirst().orElseThrow();
                add(
                        what + " (line " + loop.sequence().span().line() + ")",
                        loop.sequence().span().location());
            }
        }
    }

    private void add(String what, RuleLocation rule) {
        held.add(what);
        first = first == null ? rule : first;
    }

    /** {@return the problem of a run for which the memory is not enough} */
    static Problem outOfMemory(Plan plan) {
        Holdings holdings = new Holdings(plan);
        String holds = holdings.held.isEmpty() ? "one record or document" : String.join("; ", holdings.held);
        return Problem.error(Code.MEMORY, "There is not enough memory for what this run holds.")
                .at(holdings.first)
                .withHelp("it holds " + holds + "; more memory is given by -Xmx4g to Java,"
                        + " for the command by MORPHEMA_JAVA_OPTIONS=-Xmx4g");
    }
}
