package dev.morphema.engine;

import dev.morphema.plan.Emit;
import dev.morphema.plan.Emits;
import dev.morphema.value.FieldName;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Compiles the statements of one block. */
final class ActionCompiler implements Emit.Visitor<@Nullable Action> {
    private final UnitCompiler unit;
    private final Emits block;
    private final Map<Emit.Field, Actions.Field> fields = new IdentityHashMap<>();

    ActionCompiler(UnitCompiler unit, Emits block) {
        this.unit = unit;
        this.block = block;
        block.statements().forEach(this::prepare);
    }

    /**
     * Makes known how lets and kept fields are calculated, before anything is compiled that may use
     * them.
     */
    private void prepare(Emit emit) {
        if (emit instanceof Emit.Let let) {
            unit.lazy(let.slot(), () -> unit.rule(let.value()));
        } else if (emit instanceof Emit.Field field && field.keptIn() >= 0) {
            unit.lazy(
                    field.keptIn(),
                    () -> new KeptNode(field.span(), (Content.Rule) field(field).content()));
        }
    }

    @Override
    public Actions.Field field(Emit.Field field) {
        Actions.Field known = fields.get(field);
        if (known == null) {
            known = new Actions.Field(
                    field.span(),
                    field.name(),
                    field.presence(),
                    unit.content(field.output()),
                    field.keptIn(),
                    field.doneIn());
            fields.put(field, known);
        }
        return known;
    }

    @Override
    public Action ownText(Emit.OwnText ownText) {
        return new Actions.OwnText(unit.rule(ownText.value()));
    }

    @Override
    public Action item(Emit.Item item) {
        return new Actions.Item(unit.content(item.output()), item.counted());
    }

    @Override
    public @Nullable Action let(Emit.Let let) {
        return null;
    }

    @Override
    public Action choice(Emit.Choice choice) {
        return new Actions.Choice(
                unit.rule(choice.condition()),
                unit.body(choice.then()),
                choice.otherwise() == null ? null : unit.body(choice.otherwise()));
    }

    @Override
    public Action copy(Emit.Copy copy) {
        Map<FieldName, Actions.Field> inPlace = new LinkedHashMap<>();
        for (Emit emit : block.statements()) {
            if (emit instanceof Emit.Field field) {
                inPlace.put(field.name(), field(field));
            }
        }
        Set<FieldName> without = copy.without();
        return new CopyAction(unit.node(copy.record()), copy.only(), without == null ? Set.of() : without, inPlace);
    }

    @Override
    public Action require(Emit.Require require) {
        return new Actions.Require(
                require.span(), unit.rule(require.condition()), require.warn(), unit.rule(require.message()));
    }
}
