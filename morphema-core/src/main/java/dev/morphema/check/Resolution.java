package dev.morphema.check;

import dev.morphema.function.Function;
import dev.morphema.syntax.Block;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.Loop;
import dev.morphema.syntax.Name;
import dev.morphema.syntax.Stmt;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What the checker found out about the nodes of a tree, by identity. Not changed after the check.
 */
public final class Resolution {
    /** The namespaces of the prefixes that need no declaration. */
    static final Map<String, String> KNOWN_NAMESPACES = Map.of(
            "xml", "http://www.w3.org/XML/1998/namespace",
            "xsi", "http://www.w3.org/2001/XMLSchema-instance");

    /** What a call calls. */
    public sealed interface Callee {}

    /** A function of the language. */
    public record Builtin(Function function) implements Callee {}

    /** A define of the mapping, by its index. */
    public record Defined(int index) implements Callee {}

    /** One name of a loop. */
    public record LoopName(String name, Binding binding) {}

    /**
     * What a member of a group is, or an item of a for expression without expression.
     *
     * @param whole whether it is the value of the first name, with the other names as more fields;
     *     if not, it is a record of all names
     * @param names at least one
     */
    public record Member(boolean whole, List<LoopName> names) {
        public Member {
            names = List.copyOf(names);
        }
    }

    private final Map<Expr.Reference, Binding> references = new IdentityHashMap<>();
    private final Map<Expr.Call, Callee> calls = new IdentityHashMap<>();
    private final Set<Integer> volatileDefines = new HashSet<>();
    private final Map<Expr.Lookup, Integer> tables = new IdentityHashMap<>();
    private final Map<Object, Integer> slots = new IdentityHashMap<>();
    private final Map<Block, List<Integer>> blockSlots = new IdentityHashMap<>();
    private final Map<Object, Converter> converters = new IdentityHashMap<>();
    private final Map<Expr.OwnField, Stmt.Field> ownFields = new IdentityHashMap<>();
    private final Map<Expr, Expr.Step> steps = new IdentityHashMap<>();
    private final Map<Object, Member> members = new IdentityHashMap<>();
    private final Map<String, String> prefixes = new LinkedHashMap<>();

    void put(Expr.Reference reference, Binding binding) {
        references.put(reference, binding);
    }

    /** {@return what a name stands for} */
    public Binding binding(Expr.Reference reference) {
        return Objects.requireNonNull(references.get(reference), () -> "unresolved " + reference.name());
    }

    /** {@return all uses of names, with what they stand for} */
    public Map<Expr.Reference, Binding> references() {
        return Collections.unmodifiableMap(references);
    }

    void putStep(Expr.Step step) {
        steps.put(step.base(), step);
    }

    /** {@return the step to a field or attribute that goes on from an expression, or null} */
    public Expr.@Nullable Step stepFrom(Expr base) {
        return steps.get(base);
    }

    void put(Expr.Call call, Callee callee) {
        calls.put(call, callee);
    }

    void putVolatileDefines(Set<Integer> defines) {
        volatileDefines.addAll(defines);
    }

    /**
     * {@return whether what is called gives something else each time, so that no call may be left
     * out or put off}
     */
    public boolean isVolatile(Expr.Call call) {
        return Defines.isVolatile(callee(call), volatileDefines);
    }

    /** {@return what a call calls} */
    public Callee callee(Expr.Call call) {
        return Objects.requireNonNull(calls.get(call));
    }

    /** {@return all calls, with what each calls; not to be changed} */
    public Map<Expr.Call, Callee> calls() {
        return Collections.unmodifiableMap(calls);
    }

    void put(Expr.Lookup lookup, int table) {
        tables.put(lookup, table);
    }

    /** {@return the table that a look-up asks; empty if it asks a record for a field} */
    public Optional<Integer> table(Expr.Lookup lookup) {
        return Optional.ofNullable(tables.get(lookup));
    }

    /**
     * {@return the slot of a node of the tree}; the first time it is asked for, the next of the
     * frame.
     */
    int slotFor(Object node, Scope.Slots ofFrame) {
        return slots.computeIfAbsent(node, n -> ofFrame.next());
    }

    /** {@return the slot that a clause, a key, a let or a captured field was given} */
    public int slot(Object node) {
        return slots.get(node);
    }

    /** {@return the slot of a node, if it was given one} */
    public Optional<Integer> slotIfAny(Object node) {
        return Optional.ofNullable(slots.get(node));
    }

    /** As {@link #slotFor}; the slot is emptied whenever a block is entered. */
    int slotFor(Object node, Scope.Slots ofFrame, Block block) {
        boolean first = !slots.containsKey(node);
        int slot = slotFor(node, ofFrame);
        if (first) {
            blockSlots.computeIfAbsent(block, b -> new ArrayList<>()).add(slot);
        }
        return slot;
    }

    /** {@return the slots that are emptied whenever a block is entered} */
    public List<Integer> blockSlots(Block block) {
        return blockSlots.getOrDefault(block, List.of());
    }

    void putConverter(Object node, Converter converter) {
        converters.put(node, converter);
    }

    /** {@return the conversion that a typed field was given} */
    public Optional<Converter> converter(Object node) {
        return Optional.ofNullable(converters.get(node));
    }

    void put(Expr.OwnField ownField, Stmt.Field field) {
        ownFields.put(ownField, field);
    }

    /** {@return the field that {@code .name} means} */
    public Stmt.Field field(Expr.OwnField ownField) {
        return Objects.requireNonNull(ownFields.get(ownField));
    }

    void put(Object groupOrForEach, Member member) {
        members.put(groupOrForEach, member);
    }

    /** {@return what a member of a group is} */
    public Member member(Loop.Clause group) {
        return Objects.requireNonNull(members.get(group));
    }

    /** {@return what an item of a for expression without expression is} */
    public Member member(Expr.ForEach forEach) {
        return Objects.requireNonNull(members.get(forEach));
    }

    void putPrefix(String prefix, String uri) {
        prefixes.put(prefix, uri);
    }

    /**
     * {@return the name of a field in data, with the namespace of its prefix if that is declared}
     */
    public FieldName fieldName(Name name, boolean attribute) {
        String prefix = name.prefix();
        String uri = prefix == null ? null : KNOWN_NAMESPACES.getOrDefault(prefix, prefixes.get(prefix));
        return new FieldName(uri, name.text(), attribute);
    }

    /** {@return the declared prefixes with their namespaces} */
    public Map<String, String> prefixes() {
        return prefixes;
    }
}
