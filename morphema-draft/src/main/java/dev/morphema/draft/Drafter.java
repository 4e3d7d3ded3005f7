package dev.morphema.draft;

import dev.morphema.draft.Body.Node;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Finds out a mapping by values: which records of the sources are those of the target, and of what
 * each field of the target is made. Not thread-safe.
 */
final class Drafter {
    private static final int MOST_ALIGNMENTS = 4;
    private static final int MOST_FILTERED = 4;
    private static final int MOST_TRIED = 40;
    private static final double ENOUGH = 0.999;

    private final boolean typed;
    private final Tables tables;
    private final Set<String> taken;
    private final Prefixes prefixes;
    private final Scope sources;
    /** All single values of the sources. */
    private final Set<String> texts;

    /**
     * @param typed whether the target tells numbers from texts
     * @param taken names of the top level
     * @param prefixes those of the target
     * @param sources as a whole
     */
    Drafter(boolean typed, Tables tables, Set<String> taken, Prefixes prefixes, Scope sources) {
        this.sources = sources;
        this.texts = texts(sources);
        this.typed = typed;
        this.tables = tables;
        this.taken = taken;
        this.prefixes = prefixes;
    }

    /** What is around a place. */
    private record Place(Scope scope, Set<String> around, RuleFinder rules, Map<String, String> numberings) {}

    private Place place(Scope scope, Set<String> around) {
        Set<String> names = new HashSet<>(taken);
        scope.vars().forEach(variable -> names.add(variable.name()));
        return new Place(scope, around, new RuleFinder(scope, tables, around, names), new LinkedHashMap<>());
    }

    /** {@return the statements that write records} */
    Body record(List<Item> targets) {
        return record("", targets, place(sources, Set.of()));
    }

    /** {@return the loop that writes the items of a document that is a list} */
    Body items(List<Item> items) {
        return repeated("", List.of(items), place(sources, Set.of()));
    }

    private static Set<String> texts(Scope sources) {
        Set<String> texts = new HashSet<>();
        sources.turns().forEach(turn -> {
            for (Object held : turn) {
                texts.addAll(Entries.texts(Columns.items(held)));
            }
        });
        return texts;
    }

    private Body record(String name, List<Item> targets, Place place) {
        Body keyed = typed && Entries.areLikely(targets, texts) ? keyed(targets, place) : null;
        if (keyed != null && share(keyed) > ENOUGH) {
            return keyed;
        }
        Body named = fields(name, targets, place);
        return keyed != null && share(keyed) > share(named) ? keyed : named;
    }

    /**
     * {@return a loop that makes an object, if the names of its fields stand in what it goes
     * through}
     */
    private @Nullable Body keyed(List<Item> targets, Place place) {
        List<List<Item>> entries = targets.stream().map(Entries::of).toList();
        return Keyed.of(repeated("", entries, place)).orElse(null);
    }

    private Body fields(String name, List<Item> targets, Place place) {
        List<Node> nodes = new ArrayList<>();
        int right = 0;
        int total = 0;
        double cost = 0;
        if (targets.stream()
                .anyMatch(item -> item.cell() != null && !item.cell().text().isEmpty())) {
            List<@Nullable Cell> cells = new ArrayList<>();
            targets.forEach(item -> cells.add(item.cell()));
            Body own = rule("", name, cells, place, true);
            nodes.addAll(own.nodes());
            right += own.right();
            total += own.total();
            cost += own.cost();
        }
        for (String field : names(targets)) {
            Body body = field(name, field, targets, place);
            nodes.addAll(body.nodes());
            right += body.right();
            total += body.total();
            cost += body.cost();
        }
        return new Body(nodes, right, total, cost);
    }

    /** The names of all fields, such that each record has them in this order. */
    private static List<String> names(List<Item> targets) {
        List<String> names = new ArrayList<>();
        for (Item target : targets) {
            int at = 0;
            for (String name : target.fields().keySet()) {
                int known = names.indexOf(name);
                if (known < 0) {
                    names.add(at, name);
                    at++;
                } else {
                    at = Math.max(at, known + 1);
                }
            }
        }
        return names;
    }

    private Body field(String around, String name, List<Item> targets, Place place) {
        boolean several = targets.stream()
                .anyMatch(target -> target.isList(name) || target.field(name).size() > 1);
        List<List<Item>> held =
                targets.stream().map(target -> target.field(name)).toList();
        String namespace = targets.stream()
                .filter(target -> target.fields().containsKey(name))
                .findFirst()
                .map(target -> target.namespace(name))
                .orElse(null);
        String written = prefixes.written(name, namespace);
        if (several) {
            return list(written, held, place);
        }
        boolean record = held.stream().flatMap(List::stream).anyMatch(Item::isRecord);
        if (record) {
            return nested(written, held, place);
        }
        List<@Nullable Cell> cells = new ArrayList<>();
        held.forEach(items -> cells.add(items.isEmpty() ? null : items.get(0).cell()));
        return rule(written, around.isEmpty() ? name : around + " " + name, cells, place, true);
    }

    private Body rule(String field, String about, List<@Nullable Cell> cells, Place place, boolean constants) {
        Wanted wanted = new Wanted(about, cells, typed);
        Rule rule = place.rules().find(wanted, constants);
        if (rule == null) {
            rule = numbered(wanted, place);
        }
        if (rule == null) {
            return todo(field, Remarks.wanted(wanted));
        }
        String remark = Remarks.of(rule, wanted);
        return new Body(
                List.of(new Body.FieldRule(field, rule.type(), rule.leftOut(), rule.expression(), remark)),
                1,
                1,
                rule.cost());
    }

    /** The number of a turn among those with the same key. */
    private @Nullable Rule numbered(Wanted wanted, Place place) {
        for (Column column : place.rules().columns()) {
            Map<String, Integer> counts = new HashMap<>();
            boolean all = column.distinct().size() > 1;
            for (int i = 0; all && i < column.cells().size(); i++) {
                Cell key = column.cells().get(i);
                Cell want = wanted.cells().get(i);
                int number = counts.merge(key == null ? "" : key.text(), 1, Integer::sum);
                all = want != null && want.text().equals(String.valueOf(number));
            }
            if (all && counts.size() < column.cells().size()) {
                Set<String> names = new HashSet<>(taken);
                place.scope().vars().forEach(variable -> names.add(variable.name()));
                String name = place.numberings().computeIfAbsent(column.expression(), by -> Names.variable("n", names));
                return Rule.of(name, Column.NUMBER, 2);
            }
        }
        return null;
    }

    private static Body todo(String field, String what) {
        return new Body(List.of(new Body.FieldRule(field, "", false, "todo(" + Texts.quoted(what) + ")", "")), 0, 1, 0);
    }

    private Body nested(String name, List<List<Item>> held, Place place) {
        List<Integer> where = new ArrayList<>();
        List<Item> records = new ArrayList<>();
        for (int i = 0; i < held.size(); i++) {
            if (!held.get(i).isEmpty()) {
                where.add(i);
                records.add(held.get(i).get(0));
            }
        }
        boolean always = where.size() == held.size();
        Place own = always ? place : place(place.scope().only(where), place.around());
        Body body = always ? record(name, records, own) : withLets(record(name, records, own), own);
        Node node = always
                        && body.nodes().size() == 1
                        && body.nodes().get(0) instanceof Body.FieldLoop loop
                        && loop.name().isEmpty()
                ? new Body.FieldLoop(name, loop.clause(), loop.body())
                : new Body.FieldRecord(name, !always, body);
        if (!always) {
            boolean[] holds = new boolean[held.size()];
            where.forEach(i -> holds[i] = true);
            List<Conditions.Condition> conditions =
                    new Conditions(place.rules().columns(), place.rules().terms()).find(holds);
            if (!conditions.isEmpty()) {
                node = new Body.Conditional(
                        conditions.get(0).expression(), List.of(new Body.FieldRecord(name, false, body)));
            }
        }
        return new Body(List.of(node), body.right(), body.total(), body.cost());
    }

    private Body list(String name, List<List<Item>> held, Place place) {
        boolean records = held.stream().flatMap(List::stream).anyMatch(Item::isRecord);
        if (!records) {
            String rule = new Lists(held, typed).find(place.rules());
            if (rule != null) {
                return new Body(List.of(new Body.FieldRule(name, "", false, rule, Remarks.ofLists(held))), 1, 1, 1);
            }
        }
        return repeated(name, held, place);
    }

    /** A loop over what is repeated, whose turns write what is held. */
    private Body repeated(String name, List<List<Item>> held, Place place) {
        Set<String> names = new HashSet<>(taken);
        place.scope().vars().forEach(variable -> names.add(variable.name()));
        List<Chain> chains = Chain.all(place.scope(), place.rules().found(), names);
        Aligner aligner = new Aligner(held, names, tables);
        Body best = best(name, held, place, aligner.align(chains), MOST_ALIGNMENTS, null);
        if (best == null || best.right() < best.total() * ENOUGH) {
            best = best(name, held, place, promising(held, place, aligner.alignFiltered(chains)), MOST_FILTERED, best);
        }
        if (best != null) {
            return best;
        }
        return unknown(name, held, names);
    }

    /** What repeats is not known, but what it is to write. */
    private static Body unknown(String name, List<List<Item>> held, Set<String> names) {
        List<Item> records = held.stream().flatMap(List::stream).toList();
        if (records.stream().noneMatch(Item::isRecord) && !name.isEmpty()) {
            return todo(name, "a list of values");
        }
        Body body = wanted(records);
        return Body.FieldLoop.unknown(name, Names.first(names, "row", "each"), body);
    }

    private static Body wanted(List<Item> records) {
        List<Node> nodes = new ArrayList<>();
        int total = 0;
        for (String field : names(records)) {
            List<Item> held = new ArrayList<>();
            records.forEach(record -> held.addAll(record.field(field)));
            List<@Nullable Cell> cells = new ArrayList<>();
            held.forEach(item -> cells.add(item.cell()));
            Body body = held.stream().anyMatch(Item::isRecord)
                    ? wanted(held)
                    : todo(field, Remarks.wanted(new Wanted(field, cells, false)));
            boolean record = held.stream().anyMatch(Item::isRecord);
            nodes.addAll(record ? List.of(new Body.FieldRecord(field, true, body)) : body.nodes());
            total += body.total();
        }
        return new Body(nodes, 0, total, 0);
    }

    /** {@return those of some loops by which most single values are explained, the best first} */
    private List<Alignment> promising(List<List<Item>> held, Place place, List<Alignment> alignments) {
        List<Item> flat = held.stream().flatMap(List::stream).toList();
        Map<Alignment, Integer> explained = new LinkedHashMap<>();
        for (Alignment alignment : alignments.subList(0, Math.min(alignments.size(), MOST_TRIED))) {
            Place own = place(alignment.scope(), place.around());
            int count = 0;
            for (Leaves.Leaf leaf : Leaves.of(flat)) {
                count += own.rules().find(new Wanted(leaf.name(), leaf.cells(), typed), false) == null ? 0 : 1;
            }
            explained.put(alignment, count);
        }
        List<Alignment> best = new ArrayList<>(explained.keySet());
        best.sort(Comparator.comparingInt(alignment -> -explained.get(alignment)));
        return best.subList(0, Math.min(best.size(), MOST_FILTERED));
    }

    private @Nullable Body best(
            String name,
            List<List<Item>> held,
            Place place,
            List<Alignment> alignments,
            int most,
            @Nullable Body before) {
        List<Item> flat = held.stream().flatMap(List::stream).toList();
        List<Leaves.Leaf> leaves = Leaves.of(flat);
        Map<Alignment, Double> scores = new LinkedHashMap<>();
        for (Alignment alignment : alignments) {
            scores.put(alignment, score(alignment, leaves));
        }
        List<Alignment> likely = new ArrayList<>(alignments);
        likely.sort(Comparator.comparingDouble((Alignment alignment) -> -scores.get(alignment)));
        Body best = before;
        int perfect = 0;
        for (Alignment alignment : likely.subList(0, Math.min(likely.size(), most))) {
            Body body = loop(name, flat, alignment, place);
            if (best == null || isBetter(body, best)) {
                best = body;
            }
            if (share(best) > ENOUGH && ++perfect > 1) {
                break;
            }
        }
        return best == null || best.right() == 0 ? null : best;
    }

    /** More that is right, and if it is as much, by simpler rules. */
    private static boolean isBetter(Body body, Body best) {
        double difference = share(body) - share(best);
        return difference > 1e-9 || difference > -1e-9 && body.cost() < best.cost();
    }

    private static double share(Body body) {
        return body.total() == 0 ? 0 : (double) body.right() / body.total();
    }

    private static double score(Alignment alignment, List<Leaves.Leaf> leaves) {
        int[] turns = IntStream.range(0, alignment.scope().size()).toArray();
        int explained = Leaves.explained(leaves, new Columns(alignment.scope()).single(), turns);
        return explained - alignment.cost() * 0.5 + (alignment.isInOrder() ? 0.1 : 0);
    }

    private Body loop(String name, List<Item> records, Alignment alignment, Place around) {
        Set<String> names = new HashSet<>(taken);
        alignment.scope().vars().forEach(variable -> names.add(variable.name()));
        String number = Names.variable("n", names);
        Set<String> over = new LinkedHashSet<>(around.around());
        over.add(alignment.over());
        String clause = alignment.clause();
        String missing = "";
        if (!alignment.isInOrder()) {
            String sorted =
                    Sorting.find(alignment, place(alignment.scope(), over).rules());
            missing = sorted == null ? "the order is another one" : "";
            clause += sorted == null ? "" : " sort by " + sorted;
        }
        Alignment numbered = alignment.numbered(number);
        Place place = place(numbered.scope(), over);
        boolean single = records.stream().noneMatch(Item::isRecord);
        Body body = single ? value(name, records, place) : withLets(record("", records, place), place);
        String written = DraftText.nodes(body.nodes());
        if (Names.isUsed(number, written)) {
            clause += " numbered " + number;
        }
        for (Map.Entry<String, String> by : place.numberings().entrySet()) {
            clause += " numbered " + by.getValue() + " by " + by.getKey();
        }
        int total = body.total() + (missing.isEmpty() ? 0 : 1);
        return new Body(
                List.of(new Body.FieldLoop(name, clause, body)), body.right(), total, body.cost() + alignment.cost());
    }

    /** Puts the names that rules use before them. */
    private static Body withLets(Body body, Place place) {
        String written = DraftText.nodes(body.nodes());
        List<Node> nodes = new ArrayList<>();
        place.rules().lets().forEach((name, expression) -> {
            if (Names.isUsed(name, written)) {
                nodes.add(new Body.Let(name, expression));
            }
        });
        nodes.addAll(body.nodes());
        return new Body(nodes, body.right(), body.total(), body.cost());
    }

    /** The rule of each item of a list of single values. */
    private Body value(String name, List<Item> items, Place place) {
        List<@Nullable Cell> cells = new ArrayList<>();
        items.forEach(item -> cells.add(item.cell()));
        return rule("", name, cells, place, false);
    }
}
