package dev.morphema.engine;

import dev.morphema.check.Resolution;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.FieldName;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Compiles the statements of one block. */
final class ActionCompiler implements Stmt.Visitor<@Nullable Action> {
    private final UnitCompiler unit;
    private final Resolution resolution;
    private final Block block;
    private final Map<Stmt.Field, Actions.Field> fields = new IdentityHashMap<>();

    ActionCompiler(UnitCompiler unit, Resolution resolution, Block block) {
        this.unit = unit;
        this.resolution = resolution;
        this.block = block;
    }

    @Override
    public Action field(Stmt.Field field) {
        Actions.Field known = fields.get(field);
        if (known == null) {
            known = make(field);
            fields.put(field, known);
        }
        return known;
    }

    private Actions.Field make(Stmt.Field field) {
        Content content = field.content() instanceof Stmt.Rule rule
                ? new Content.Rule(
                        unit.node(rule.value()), resolution.converter(field).orElse(null))
                : unit.content(field.content());
        return new Actions.Field(
                field.name().span(),
                unit.fieldName(field.name(), field.attribute()),
                field.presence(),
                content,
                resolution.slotIfAny(field).orElse(-1),
                resolution.slotIfAny(field.content()).orElse(-1));
    }

    @Override
    public Action ownText(Stmt.OwnText ownText) {
        return new Actions.OwnText(unit.node(ownText.value()));
    }

    @Override
    public Action item(Stmt.Item item) {
        return new Actions.Item(unit.content(item.content()), unit.counted());
    }

    /**
     * Makes known how lets and kept fields are calculated, before anything is compiled that may use
     * them.
     */
    void prepare(Stmt statement) {
        if (statement instanceof Stmt.Let let) {
            unit.lazy(resolution.slot(let), () -> unit.node(let.value()));
        } else if (statement instanceof Stmt.Field field) {
            resolution.slotIfAny(field).ifPresent(slot -> unit.lazy(slot, () -> kept(field)));
        }
    }

    private Node kept(Stmt.Field field) {
        Content.Rule rule = (Content.Rule) ((Actions.Field) field(field)).content();
        return new KeptNode(field.name().span(), rule);
    }

    @Override
    public @Nullable Action let(Stmt.Let let) {
        return null;
    }

    @Override
    public Action ifThen(Stmt.If ifThen) {
        return new Actions.Choice(
                unit.node(ifThen.condition()),
                unit.body(ifThen.then()),
                ifThen.otherwise() == null ? null : unit.body(ifThen.otherwise()));
    }

    @Override
    public Action copy(Stmt.Copy copy) {
        Set<FieldName> names = new LinkedHashSet<>();
        copy.names().forEach(name -> {
            names.add(unit.fieldName(name, false));
            names.add(unit.fieldName(name, true));
        });
        Map<FieldName, Actions.Field> inPlace = new LinkedHashMap<>();
        for (Stmt statement : block.statements()) {
            if (statement instanceof Stmt.Field field) {
                Actions.Field action = (Actions.Field) field(field);
                inPlace.put(action.name(), action);
            }
        }
        boolean only = copy.choice() == Stmt.Copy.Choice.ONLY;
        boolean without = copy.choice() == Stmt.Copy.Choice.WITHOUT;
        return new CopyAction(unit.node(copy.record()), only ? names : null, without ? names : Set.of(), inPlace);
    }

    @Override
    public Action require(Stmt.Require require) {
        return new Actions.Require(
                require.span(), unit.node(require.condition()), require.warn(), unit.node(require.message()));
    }
}
