package dev.morphema.plan;

import dev.morphema.check.CheckedMapping;
import dev.morphema.check.Resolution;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Stmt;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** From a checked mapping to a plan that does just what the mapping says, as it says it. */
final class Lowering {
    private final CheckedMapping mapping;
    private final Resolution resolution;

    private Lowering(CheckedMapping mapping) {
        this.mapping = mapping;
        this.resolution = mapping.resolution();
    }

    /** @param mapping checked without errors */
    static Plan lower(CheckedMapping mapping) {
        return new Lowering(mapping).plan();
    }

    private Plan plan() {
        List<Plan.@Nullable Formula> fallbacks = new ArrayList<>();
        for (CheckedMapping.Param param : mapping.params()) {
            Expr fallback = param.decl().fallback();
            fallbacks.add(fallback == null ? null : formula(fallback, param.slots()));
        }
        return new Plan(
                mapping,
                mapping.sources().stream()
                        .map(source -> new Plan.Source(true, null))
                        .toList(),
                mapping.globals().stream()
                        .map(global -> formula(global.decl().value(), global.slots()))
                        .toList(),
                mapping.defines().stream()
                        .map(define -> formula(define.decl().value(), define.slots()))
                        .toList(),
                fallbacks,
                mapping.tables().stream().map(this::table).toList(),
                mapping.targets().stream().map(this::target).toList());
    }

    private Plan.Formula formula(Expr expr, int slots) {
        return new Plan.Formula(unit().term(expr), slots);
    }

    private UnitLowering unit() {
        return new UnitLowering(resolution);
    }

    private static @Nullable Term termIfAny(UnitLowering unit, @Nullable Expr expr) {
        return expr == null ? null : unit.term(expr);
    }

    private Plan.Table table(CheckedMapping.Table table) {
        if (table.decl() instanceof Decl.FileTable) {
            return new Plan.FileTable();
        }
        if (table.onDemand() >= 0) {
            return new Plan.AskedTable(table.onDemand());
        }
        UnitLowering unit = unit();
        if (table.decl() instanceof Decl.LoopTable decl) {
            Decl.Columns columns = decl.columns();
            return new Plan.LoopTable(
                    unit.pipeline(decl.loop()),
                    unit.terms(columns.keys()),
                    termIfAny(unit, columns.from()),
                    termIfAny(unit, columns.to()),
                    unit.member(decl.span(), resolution.member(decl.loop().first())),
                    table.slots());
        }
        Decl.InlineTable decl = (Decl.InlineTable) table.decl();
        return new Plan.InlineTable(
                decl.entries().stream().map(entry -> unit.term(entry.value())).toList(), table.slots());
    }

    private Plan.Target target(CheckedMapping.Target target) {
        UnitLowering unit = unit();
        Decl.Target decl = target.decl();
        Pipeline split = decl.split() == null ? null : unit.split(decl.split());
        Term name = termIfAny(unit, decl.into());
        Output document = decl.content() instanceof Stmt.Nested nested && target.list()
                ? new Output.Pieces(unit.emits(nested.block()))
                : unit.output(decl.content());
        return new Plan.Target(target, split, name, document, split != null || unit.repeats(), null, target.slots());
    }
}
