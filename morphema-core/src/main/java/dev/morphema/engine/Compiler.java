package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.NameNodes.Constant;
import dev.morphema.plan.Pipeline;
import dev.morphema.plan.Plan;
import dev.morphema.plan.Term;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.store.TableIndex;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** Turns a plan into a program. */
public final class Compiler {
    private static final Value[] WITHOUT_RANGE = {};

    private final Plan plan;
    private final CheckedMapping mapping;
    private final Function<UnitCompiler.Shared, UnitCompiler> backEnd;
    private final UnitCompiler.Shared shared =
            new UnitCompiler.Shared(new ArrayList<>(), new LinkedHashMap<>(), new SlotSite.Numbering());
    private final List<UnitCompiler> units = new ArrayList<>();

    private Compiler(Plan plan, Function<UnitCompiler.Shared, UnitCompiler> backEnd) {
        this.plan = plan;
        this.mapping = plan.mapping();
        this.backEnd = backEnd;
    }

    /**
     * {@return the program that does what a plan says}
     *
     * @throws ProblemException if a table from a file has a key twice
     */
    public static Program compile(Plan plan) {
        return compile(plan, PlainCompiler::new);
    }

    /** @param backEnd makes what compiles a unit */
    static Program compile(Plan plan, Function<UnitCompiler.Shared, UnitCompiler> backEnd) {
        return new Compiler(plan, backEnd).compile();
    }

    private Program compile() {
        for (Plan.Formula define : plan.defines()) {
            shared.defines().add(new Program.Unit(define.slots()));
        }
        List<Program.Unit> globals = new ArrayList<>();
        for (Plan.Formula let : plan.globals()) {
            Program.Unit global = new Program.Unit(let.slots());
            global.set(unit().rule(let.term()));
            globals.add(global);
        }
        for (int i = 0; i < plan.defines().size(); i++) {
            shared.defines().get(i).set(unit().rule(plan.defines().get(i).term()));
        }
        List<Program.Param> params = params();
        List<Program.TableMaker> tables = tables();
        List<Program.Target> targets = targets();
        units.forEach(UnitCompiler::complete);
        return new Program(
                plan,
                globals,
                params,
                tables,
                targets,
                shared.totals(),
                shared.sites().count());
    }

    /** {@return a compiler for what runs in one frame} */
    private UnitCompiler unit() {
        UnitCompiler unit = backEnd.apply(shared);
        units.add(unit);
        return unit;
    }

    private List<Program.Param> params() {
        List<Program.Param> params = new ArrayList<>();
        for (int i = 0; i < mapping.params().size(); i++) {
            CheckedMapping.Param param = mapping.params().get(i);
            Plan.Formula fallback = plan.fallbacks().get(i);
            params.add(new Program.Param(
                    param.decl().name().text(),
                    param.converter(),
                    fallback == null ? null : unit().rule(fallback.term())));
        }
        return params;
    }

    private static @Nullable Node nodeIfAny(UnitCompiler unit, @Nullable Term term) {
        return term == null ? null : unit.node(term);
    }

    private List<Program.TableMaker> tables() {
        List<Program.TableMaker> makers = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (int i = 0; i < plan.tables().size(); i++) {
            CheckedMapping.Table table = mapping.tables().get(i);
            if (plan.tables().get(i) instanceof Plan.LoopTable loop) {
                makers.add(loopTable(loop, (Decl.LoopTable) table.decl()));
            } else if (plan.tables().get(i) instanceof Plan.AskedTable asked) {
                Decl.LoopTable decl = (Decl.LoopTable) table.decl();
                makers.add(run -> new AskedTable(
                        run, asked.source(), decl.name().span(), decl.columns().many()));
            } else if (plan.tables().get(i) instanceof Plan.InlineTable inline) {
                makers.add(inlineTable(inline, (Decl.InlineTable) table.decl()));
            } else {
                try {
                    TableIndex index = index((Decl.FileTable) table.decl(), table.rows());
                    makers.add(run -> index);
                } catch (ProblemException e) {
                    problems.addAll(e.problems());
                }
            }
        }
        if (!problems.isEmpty()) {
            throw new ProblemException(problems);
        }
        return makers;
    }

    private static TableIndex index(Decl.FileTable table, List<Value> rows) {
        Decl.Columns columns = table.columns();
        List<FieldName> keys = columns.keys().stream().map(Compiler::column).toList();
        TableIndex index = new TableIndex(table.name().span(), columns.many(), columns.from() != null, true);
        for (Value row : rows) {
            RecordValue record = (RecordValue) row;
            Value[] values = keys.stream().map(record::get).toArray(Value[]::new);
            Value[] range = columns.from() == null || columns.to() == null
                    ? WITHOUT_RANGE
                    : new Value[] {record.get(column(columns.from())), record.get(column(columns.to()))};
            index.add(row, values, range);
        }
        return index;
    }

    private static FieldName column(Expr expr) {
        return FieldName.of(((Expr.Reference) expr).name());
    }

    private Program.TableMaker loopTable(Plan.LoopTable table, Decl.LoopTable decl) {
        UnitCompiler unit = unit();
        LoopPlan loop = unit.loop(table.loop());
        Stages.Keys keys = unit.keys(table.keys());
        Node from = nodeIfAny(unit, table.from());
        Node to = nodeIfAny(unit, table.to());
        Node row = unit.node(table.row());
        return run -> {
            Frame frame = new Frame(run, table.slots());
            TableIndex index = new TableIndex(
                    decl.name().span(), decl.columns().many(), from != null, row instanceof NameNodes.Local);
            loop.run(frame, () -> {
                Value[] range =
                        from == null || to == null ? WITHOUT_RANGE : new Value[] {from.scalar(frame), to.scalar(frame)};
                Value rowOfTurn = row.eval(frame);
                Value[] itsKeys = keys.values(frame);
                run.units().takeUp(() -> index.add(rowOfTurn, itsKeys, range));
                return true;
            });
            Problem withoutKey = index.withoutKey();
            if (withoutKey != null) {
                run.warn(withoutKey);
            }
            return index;
        };
    }

    private Program.TableMaker inlineTable(Plan.InlineTable table, Decl.InlineTable decl) {
        List<Node> nodes = unit().nodes(table.values());
        if (nodes.stream().allMatch(Constant.class::isInstance)) {
            TableIndex index = inlineIndex(
                    decl, nodes.stream().map(n -> ((Constant) n).value()).toList());
            return run -> index;
        }
        return run -> {
            Frame frame = new Frame(run, table.slots());
            return inlineIndex(decl, nodes.stream().map(node -> node.one(frame)).toList());
        };
    }

    private static TableIndex inlineIndex(Decl.InlineTable table, List<Value> values) {
        TableIndex index = new TableIndex(table.name().span(), false, false, false);
        for (int i = 0; i < values.size(); i++) {
            Value[] key = {TextValue.of(table.entries().get(i).key().text())};
            index.addEntry(values.get(i), key);
        }
        return index;
    }

    private List<Program.Target> targets() {
        List<Program.Target> targets = new ArrayList<>();
        for (Plan.Target target : plan.targets()) {
            UnitCompiler unit = unit();
            Pipeline split = target.split();
            LoopPlan documents = split == null ? null : unit.loop(split);
            Node name = nodeIfAny(unit, target.name());
            Content document = unit.content(target.document());
            targets.add(new Program.Target(
                    target.checked(), documents, name, document, target.repeats(), target.scan(), target.slots()));
        }
        return targets;
    }
}
