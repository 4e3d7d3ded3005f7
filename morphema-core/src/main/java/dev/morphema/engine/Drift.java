package dev.morphema.engine;

import dev.morphema.check.CheckedMapping;
import dev.morphema.format.Expectation;
import dev.morphema.format.Projection;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.value.FieldName;
import dev.morphema.value.ListValue;
import dev.morphema.value.Many;
import dev.morphema.value.RecordValue;
import dev.morphema.value.Value;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;

/**
 * Compares the fields that a mapping uses of a source with those that its input has: an input with
 * none of them is refused, each path that leads nowhere is reported.
 */
final class Drift {
    /** One record without a field says little: it may be optional. */
    private static final int FEW_RECORDS = 2;

    private static final int MOST_SHOWN = 5;

    private final CheckedMapping.Source source;
    private final PathWatch.Found found;
    private final Supplier<List<Value>> examples;
    private final Supplier<String> firstInput;
    private final Consumer<Problem> warnings;
    private final List<Value> looked = new ArrayList<>();
    private boolean hasLooked;

    /**
     * @param found in all readings of the source
     * @param examples gives some records or the document with all that there is, or none if that is
     *     not possible
     * @param firstInput names the input, or the first of many
     * @param warnings takes what is reported
     */
    Drift(
            CheckedMapping.Source source,
            PathWatch.Found found,
            Supplier<List<Value>> examples,
            Supplier<String> firstInput,
            Consumer<Problem> warnings) {
        this.source = source;
        this.found = found;
        this.examples = examples;
        this.firstInput = firstInput;
        this.warnings = warnings;
    }

    void report() {
        Projection root = source.projection();
        if (found.count(List.of()) == 0 || root.keepsAll() || root.layout().size() == 0) {
            return;
        }
        boolean any = false;
        boolean foreseen = true;
        for (int slot = 0; slot < root.layout().size(); slot++) {
            any |= found.has(List.of(root.layout().name(slot)));
            foreseen &= root.child(slot).isForeseen();
        }
        if (!foreseen && !source.options().allowsMismatch()) {
            if (!any) {
                throw refused(root, names(List.of()), firstInput.get());
            }
            if (!found.foreignInputs().isEmpty()) {
                throw refused(root, Set.of(), found.foreignInputs().get(0));
            }
        }
        report(root, List.of());
    }

    private ProblemException refused(Projection root, Set<FieldName> names, String input) {
        Set<FieldName> wanted = new LinkedHashSet<>();
        for (int slot = 0; slot < root.layout().size(); slot++) {
            wanted.add(root.layout().name(slot));
        }
        String there = names.isEmpty() ? "" : ", it has " + shown(names, wanted);
        return new ProblemException(Problem.error(
                        Code.MISMATCH,
                        "The input of the source " + source.decl().name().text()
                                + " has nothing that the mapping reads.")
                .in(InputLocation.at(input, 0, 0))
                .withHelp("the mapping reads " + shown(wanted, names) + there
                        + "; is it the right file? The option mismatch = allow takes it as empty"));
    }

    /** Names a few fields, with their namespaces where that is what tells them from others. */
    private static String shown(Set<FieldName> names, Set<FieldName> others) {
        return names.stream()
                        .limit(MOST_SHOWN)
                        .map(name -> others.stream().anyMatch(other -> differsInNamespace(name, other))
                                ? withNamespace(name)
                                : name.toString())
                        .collect(Collectors.joining(", "))
                + (names.size() > MOST_SHOWN ? ", …" : "");
    }

    private static boolean differsInNamespace(FieldName a, FieldName b) {
        return a.toString().equals(b.toString()) && !a.equals(b);
    }

    private static String withNamespace(FieldName name) {
        String namespace = name.namespace();
        return name
                + (namespace == null || namespace.isEmpty() ? " in no namespace" : " in the namespace " + namespace);
    }

    private void report(Projection place, List<FieldName> path) {
        for (int slot = 0; slot < place.layout().size(); slot++) {
            List<FieldName> child = new ArrayList<>(path);
            child.add(place.layout().name(slot));
            Projection field = place.child(slot);
            if (!found.has(child)) {
                warnOf(child, field.expectation());
            } else if (!field.keepsAll() && found.count(child) > 0) {
                report(field, child);
            }
        }
    }

    private void warnOf(List<FieldName> path, Expectation expectation) {
        if (expectation == Expectation.OPTIONAL) {
            return;
        }
        List<FieldName> around = path.subList(0, path.size() - 1);
        FieldName name = path.get(path.size() - 1);
        Set<FieldName> there = names(around);
        Set<String> names = there.stream().map(FieldName::toString).collect(Collectors.toCollection(TreeSet::new));
        Optional<FieldName> elsewhere =
                there.stream().filter(other -> differsInNamespace(name, other)).findFirst();
        boolean near = !NearNames.near(name.toString(), names).isEmpty();
        if (expectation == Expectation.EXPECTED || near || found.isBroken(path) || found.count(around) >= FEW_RECORDS) {
            String in = around.isEmpty()
                    ? ""
                    : " in " + around.stream().map(FieldName::toString).collect(Collectors.joining("."));
            warnings.accept(Problem.warning(
                            Code.MISSING_FIELD,
                            "No record of the source " + source.decl().name().text() + " has a field "
                                    + (elsewhere.isPresent() ? withNamespace(name) : name) + in
                                    + ", so it is absent everywhere.")
                    .at(source.decl().name().span().location())
                    .withHelp(elsewhere
                            .map(other -> "there is " + withNamespace(other))
                            .or(() -> NearNames.proposal(name.toString(), names))
                            .orElse(null)));
        }
    }

    /**
     * {@return the names of the fields that are there at a path, as far as that can be found out}
     */
    private Set<FieldName> names(List<FieldName> path) {
        if (!hasLooked) {
            hasLooked = true;
            looked.addAll(examples.get());
        }
        Set<FieldName> names = new LinkedHashSet<>();
        looked.forEach(value -> addNames(value, path, names));
        return names;
    }

    private static void addNames(Value value, List<FieldName> path, Set<FieldName> names) {
        if (value instanceof Many many) {
            many.items().forEach(item -> addNames(item, path, names));
        } else if (value instanceof ListValue list) {
            list.items().forEach(item -> addNames(item, path, names));
        } else if (value instanceof RecordValue record && path.isEmpty()) {
            for (int slot = 0; slot < record.layout().fields(); slot++) {
                names.add(record.layout().name(slot));
            }
        } else if (value instanceof RecordValue record) {
            for (int slot : PathNodes.slots(record.layout(), path.get(0))) {
                addNames(record.get(slot), path.subList(1, path.size()), names);
            }
        }
    }
}
