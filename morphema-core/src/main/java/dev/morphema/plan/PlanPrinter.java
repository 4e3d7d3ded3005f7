package dev.morphema.plan;

import dev.morphema.check.CheckedMapping;
import dev.morphema.format.Projection;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * Prints a plan for people: for each source whether its records stream or are kept, and what is
 * read of them; for each target the operators of its outermost loop.
 */
final class PlanPrinter {
    /** Lines are broken after so many characters, where that can be. */
    private static final int WIDEST = 110;

    private final Plan plan;
    private final StringBuilder out = new StringBuilder();

    PlanPrinter(Plan plan) {
        this.plan = plan;
    }

    String print() {
        Readings readings = new Readings();
        plan.look(readings);
        for (int source = 0; source < plan.sources().size(); source++) {
            source(source, readings);
        }
        plan.targets().forEach(this::target);
        return out.toString();
    }

    /** What reads sources beside the outermost loops of targets. */
    private static final class Readings extends PlanPass {
        /** The functions that are calculated in readings for them, as they are written. */
        private final Map<Scan, Set<String>> totals = new LinkedHashMap<>();
        /** The loops that read for themselves. */
        private final List<PlannedTerm.Scanned> loops = new ArrayList<>();

        @Override
        public Term term(Term term) {
            if (term instanceof PlannedTerm.Total total) {
                totals.computeIfAbsent(total.scan(), scan -> new LinkedHashSet<>())
                        .add(total.written());
            } else if (term instanceof PlannedTerm.Scanned scanned) {
                loops.add(scanned);
            }
            return super.term(term);
        }
    }

    private void source(int index, Readings readings) {
        Plan.Source source = plan.sources().get(index);
        String read =
                "read " + plan.mapping().sources().get(index).decl().name().text();
        Set<Scan> done = new LinkedHashSet<>();
        if (asked(index, read)) {
            return;
        }
        for (Scan scan : plan.scans()) {
            if (scan.source() == index) {
                scan(read, scan, "", done);
            }
        }
        for (PlannedTerm.Scanned loop : readings.loops) {
            if (loop.scan().source() == index) {
                scan(read, loop.scan(), ", for " + loopOver(loop), done);
            }
        }
        readings.totals.forEach((scan, functions) -> {
            if (scan.source() == index) {
                scan(read, scan, "", done);
                line("  for " + String.join(", ", functions));
            }
        });
        if (source.kept()) {
            line(read + (done.isEmpty() ? ": as a whole" : ", the rest: as a whole"));
            fields(plan.keptProjection(index));
            if (source.reason() != null) {
                line("  " + source.reason().replace("\n", "\n  "));
            }
        } else if (done.isEmpty()) {
            line(read + ": not at all, nothing uses it");
        }
    }

    /** Prints that a source is asked for what is looked up, if it is. */
    private boolean asked(int source, String read) {
        List<String> tables = plan.mapping().tables().stream()
                .filter(table -> table.onDemand() == source)
                .map(table -> table.decl().name().text())
                .toList();
        if (!tables.isEmpty()) {
            CheckedMapping.Source asked = plan.mapping().sources().get(source);
            line(read + ": by " + String.join(", ", asked.format().askedBy(asked.options()))
                    + ", when something is looked up in the table " + String.join(", ", tables));
            fields(asked.projection());
        }
        return !tables.isEmpty();
    }

    /** Prints one reading of records; the fields only the first time. */
    private void scan(String read, Scan scan, String what, Set<Scan> done) {
        boolean again = !done.add(scan);
        line(read + each(scan) + (again ? ", once more" : "") + ": one record at a time" + what);
        if (!again) {
            fields(plan.projection(scan));
        }
    }

    private String loopOver(PlannedTerm.Scanned sequence) {
        for (int i = 0; i < plan.tables().size(); i++) {
            if (plan.tables().get(i) instanceof Plan.LoopTable table
                    && table.loop().sequence() == sequence) {
                return "the table "
                        + plan.mapping().tables().get(i).decl().name().text();
            }
        }
        return "the loop on line " + sequence.span().line();
    }

    private void line(String line) {
        out.append(line).append('\n');
    }

    private static String each(Scan scan) {
        return scan.path().isEmpty()
                ? ""
                : ", each " + scan.path().stream().map(FieldName::toString).collect(Collectors.joining("."));
    }

    /** The fields that are read, in lines that are not too long. */
    private void fields(Projection projection) {
        StringBuilder lines = new StringBuilder("  fields ");
        int begin = 0;
        for (String part : projection.toString().split("(?<=, )")) {
            if (lines.length() - begin + part.length() > WIDEST) {
                lines.append("\n    ");
                begin = lines.length();
            }
            lines.append(part);
        }
        line(lines.toString().replace(" \n", "\n"));
    }

    private void target(Plan.Target target) {
        line("write " + target.checked().decl().name().text() + ": "
                + target.checked().format().name());
        List<Term> within = all(target, PlannedTerm.FoundByKey.class::isInstance);
        OperatorPrinter operators = new OperatorPrinter(GroupWork.in(target));
        for (Pipeline loop : target.loops()) {
            line("  " + OperatorPrinter.each(loop.sequence()));
            within.removeIf(sequence -> sequence == loop.sequence());
            for (Operator operator : loop.operators()) {
                line("  " + operators.print(operator).replace("\n", "\n  "));
                within.removeIf(
                        sequence -> operator instanceof Operator.Unnest unnest && sequence == unnest.sequence());
            }
        }
        within.forEach(sequence -> line("  within: " + OperatorPrinter.each(sequence)));
        // Of what is calculated while a source is read, the line of that reading tells.
        all(target, term -> term instanceof PlannedTerm.Once once && !(once.term() instanceof PlannedTerm.Total))
                .stream()
                .map(Term::written)
                .distinct()
                .forEach(once -> line("  once: " + once));
    }

    private static List<Term> all(Plan.Target target, Predicate<Term> kind) {
        List<Term> found = new ArrayList<>();
        new PlanPass() {
            @Override
            public Term term(Term term) {
                if (kind.test(term)) {
                    found.add(term);
                }
                return super.term(term);
            }
        }.target(target);
        return found;
    }
}
