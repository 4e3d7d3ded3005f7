package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.engine.NameNodes.Constant;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.List;

/** Turns a checked mapping into a program. */
public final class Compiler {
    private static final Value[] WITHOUT_RANGE = {};

    private final CheckedMapping mapping;
    private final StreamFinder streams;
    private final SourceTotals totals;
    private final SlotSite.Numbering sites = new SlotSite.Numbering();
    private final List<UnitCompiler> units = new ArrayList<>();
    private final List<Program.Unit> globals = new ArrayList<>();
    private final List<Program.Unit> defines = new ArrayList<>();

    private Compiler(CheckedMapping mapping) {
        this.mapping = mapping;
        this.streams = new StreamFinder(mapping);
        this.totals = new SourceTotals(streams);
    }

    /**
     * {@return the program of a mapping}
     *
     * @param mapping checked without errors
     * @throws ProblemException if a table from a file has a key twice
     */
    public static Program compile(CheckedMapping mapping) {
        return new Compiler(mapping).compile();
    }

    private Program compile() {
        for (CheckedMapping.Global global : mapping.globals()) {
            globals.add(new Program.Unit(global.slots()));
        }
        for (CheckedMapping.Define define : mapping.defines()) {
            defines.add(new Program.Unit(define.slots()));
        }
        for (int i = 0; i < globals.size(); i++) {
            globals.get(i).set(unit().node(mapping.globals().get(i).decl().value()));
        }
        for (int i = 0; i < defines.size(); i++) {
            defines.get(i).set(unit().node(mapping.defines().get(i).decl().value()));
        }
        List<Program.Param> params = params();
        List<Program.TableMaker> tables = tables();
        List<Program.Target> targets = targets();
        units.forEach(UnitCompiler::complete);
        return new Program(mapping, globals, params, tables, targets, streams, totals, sites.count());
    }

    /** {@return a compiler for what runs in one frame} */
    private UnitCompiler unit() {
        UnitCompiler unit = new UnitCompiler(mapping.resolution(), defines, totals, sites);
        units.add(unit);
        return unit;
    }

    private List<Program.Param> params() {
        List<Program.Param> params = new ArrayList<>();
        for (CheckedMapping.Param param : mapping.params()) {
            Expr fallback = param.decl().fallback();
            params.add(new Program.Param(
                    param.decl().name().text(), param.converter(), fallback == null ? null : unit().node(fallback)));
        }
        return params;
    }

    private List<Program.TableMaker> tables() {
        List<Program.TableMaker> makers = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (CheckedMapping.Table table : mapping.tables()) {
            if (table.decl() instanceof Decl.FileTable file) {
                try {
                    TableIndex index = index(file, table.rows());
                    makers.add(run -> index);
                } catch (ProblemException e) {
                    problems.addAll(e.problems());
                }
            } else if (table.decl() instanceof Decl.LoopTable loop) {
                makers.add(loopTable(loop, table.slots()));
            } else {
                makers.add(inlineTable((Decl.InlineTable) table.decl(), table.slots()));
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

    private Program.TableMaker loopTable(Decl.LoopTable table, int slots) {
        UnitCompiler unit = unit();
        LoopPlan loop = unit.loop(table.loop());
        Decl.Columns columns = table.columns();
        Stages.Keys keys = unit.keys(columns.keys());
        Node from = columns.from() == null ? null : unit.node(columns.from());
        Node to = columns.to() == null ? null : unit.node(columns.to());
        Node row = unit.member(
                table.span(), mapping.resolution().member(table.loop().first()));
        return run -> {
            Frame frame = new Frame(run, slots);
            TableIndex index =
                    new TableIndex(table.name().span(), columns.many(), from != null, row instanceof NameNodes.Local);
            loop.run(frame, () -> {
                Value[] range =
                        from == null || to == null ? WITHOUT_RANGE : new Value[] {from.scalar(frame), to.scalar(frame)};
                index.add(row.eval(frame), keys.values(frame), range);
                return true;
            });
            Problem withoutKey = index.withoutKey();
            if (withoutKey != null) {
                run.warn(withoutKey);
            }
            return index;
        };
    }

    private Program.TableMaker inlineTable(Decl.InlineTable table, int slots) {
        UnitCompiler unit = unit();
        List<Node> nodes =
                table.entries().stream().map(entry -> unit.node(entry.value())).toList();
        if (nodes.stream().allMatch(Constant.class::isInstance)) {
            TableIndex index = inlineIndex(
                    table, nodes.stream().map(n -> ((Constant) n).value()).toList());
            return run -> index;
        }
        return run -> {
            Frame frame = new Frame(run, slots);
            return inlineIndex(
                    table, nodes.stream().map(node -> node.one(frame)).toList());
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
        for (int i = 0; i < mapping.targets().size(); i++) {
            CheckedMapping.Target target = mapping.targets().get(i);
            UnitCompiler unit = unit();
            Loop streamed = streams.loop(i);
            if (streamed != null) {
                unit.stream(streamed);
            }
            Decl.Target decl = target.decl();
            if (decl.split() != null) {
                unit.passMembers(decl.split(), decl.into(), decl.content());
            }
            LoopPlan split = decl.split() == null ? null : unit.split(decl.split());
            Node name = decl.into() == null ? null : unit.node(decl.into());
            Content document = decl.content() instanceof Stmt.Nested nested
                    ? unit.document(nested.block(), target.list())
                    : unit.content(decl.content());
            boolean repeats = split != null || unit.repeats();
            targets.add(new Program.Target(target, split, name, document, repeats, streams.pass(i), unit.foundByKey()));
        }
        return targets;
    }
}
