package dev.morphema.plan;

import dev.morphema.check.Resolution;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import java.util.LinkedHashSet;
import java.util.Set;

/** Lowers the statements of a block. */
final class EmitLowering implements Stmt.Visitor<Emit> {
    private final UnitLowering unit;
    private final Resolution resolution;

    EmitLowering(UnitLowering unit, Resolution resolution) {
        this.unit = unit;
        this.resolution = resolution;
    }

    @Override
    public Emit field(Stmt.Field field) {
        Output output = field.content() instanceof Stmt.Rule rule
                ? new Output.Single(
                        unit.term(rule.value()), resolution.converter(field).orElse(null))
                : unit.output(field.content());
        return new Emit.Field(
                field.name().span(),
                unit.fieldName(field.name(), field.attribute()),
                field.presence(),
                output,
                resolution.slotIfAny(field).orElse(-1),
                resolution.slotIfAny(field.content()).orElse(-1));
    }

    @Override
    public Emit ownText(Stmt.OwnText ownText) {
        return new Emit.OwnText(ownText.span(), unit.term(ownText.value()));
    }

    @Override
    public Emit item(Stmt.Item item) {
        Output output = unit.output(item.content());
        return new Emit.Item(item.span(), output, unit.counted());
    }

    @Override
    public Emit let(Stmt.Let let) {
        return new Emit.Let(let.span(), resolution.slot(let), unit.term(let.value()));
    }

    @Override
    public Emit ifThen(Stmt.If ifThen) {
        return new Emit.Choice(
                ifThen.span(),
                unit.term(ifThen.condition()),
                unit.emits(ifThen.then()),
                ifThen.otherwise() == null ? null : unit.emits(ifThen.otherwise()));
    }

    @Override
    public Emit copy(Stmt.Copy copy) {
        Set<FieldName> names = new LinkedHashSet<>();
        copy.names().forEach(name -> {
            names.add(unit.fieldName(name, false));
            names.add(unit.fieldName(name, true));
        });
        return new Emit.Copy(
                copy.span(),
                unit.term(copy.record()),
                copy.choice() == Stmt.Copy.Choice.ONLY ? names : null,
                copy.choice() == Stmt.Copy.Choice.WITHOUT ? names : null);
    }

    @Override
    public Emit require(Stmt.Require require) {
        return new Emit.Require(
                require.span(), unit.term(require.condition()), require.warn(), unit.term(require.message()));
    }
}
