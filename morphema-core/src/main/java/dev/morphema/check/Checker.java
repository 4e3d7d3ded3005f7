package dev.morphema.check;

import dev.morphema.convert.TypeConverters;
import dev.morphema.function.Function;
import dev.morphema.function.ParameterKind;
import dev.morphema.problem.Code;
import dev.morphema.problem.NearNames;
import dev.morphema.problem.Problem;
import dev.morphema.syntax.Constant;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.Expr;
import dev.morphema.syntax.MappingTree;
import dev.morphema.syntax.Name;
import dev.morphema.syntax.TypeRef;
import dev.morphema.value.Converter;
import dev.morphema.value.FieldName;
import dev.morphema.value.Kind;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Checks a mapping before anything runs: every name is known, every function gets what it wants,
 * one value is asked for where there is one, and each target can hold what it is given. Goes on
 * after a problem.
 */
public final class Checker {
    private final Environment environment;
    private static final Set<Kind> DATES = Set.of(Kind.DATE, Kind.TIME, Kind.DATETIME);

    private final List<MappingTree> trees;
    private final Map<List<Object>, Problem> firstMissing = new HashMap<>();
    private final Map<Problem, Set<Integer>> furtherUses = new LinkedHashMap<>();
    private final Map<Place, List<Problem>> missing = new HashMap<>();
    private final Defines defines = new Defines(this);
    private final SchemaFinder schemas = new SchemaFinder(this);
    private final Resolution resolution = new Resolution();
    private final Needs needs = new Needs();
    private final Typing typing = new Typing();
    private final List<Problem> problems = new ArrayList<>();
    private final Set<Problem> reported = new LinkedHashSet<>();
    private final GlobalNames globals = new GlobalNames(this);
    private final Map<String, Name> declared = new HashMap<>();
    private final Set<String> unknownPrefixes = new HashSet<>();
    private final Map<String, String> usedPrefixes = new HashMap<>();
    /** A define can be used by any target. */
    private final Map<String, String> prefixesOfDefines = new HashMap<>();

    private final List<SourceChecker.Found> sources = new ArrayList<>();
    private final List<CheckedMapping.Table> tables = new ArrayList<>();
    private final OnDemandSources onDemand = new OnDemandSources(this);
    private final List<CheckedMapping.Param> params = new ArrayList<>();
    private final List<CheckedMapping.Global> lets = new ArrayList<>();
    private final List<CheckedMapping.Target> targets = new ArrayList<>();

    private Checker(List<MappingTree> trees, Environment environment) {
        this.trees = trees;
        this.environment = environment;
    }

    /**
     * What checking gives.
     *
     * @param mapping the mapping, which is sound only if no problem is an error
     * @param typing what is known at each place of its text
     * @param problems in the order they were found
     */
    public record Result(CheckedMapping mapping, Typing typing, List<Problem> problems) {
        public Result {
            problems = List.copyOf(problems);
        }
    }

    /**
     * {@return the meaning of a mapping with all problems}
     *
     * @param trees the mapping, followed by those that it uses
     * @param environment formats, functions and files
     */
    public static Result check(List<MappingTree> trees, Environment environment) {
        return new Checker(trees, environment).check();
    }

    private Result check() {
        // A name with a prefix may stand before the prefix does, and in another text.
        for (Decl declaration : declarations()) {
            if (declaration instanceof Decl.Prefix prefix) {
                declare(prefix);
            }
        }
        for (Decl declaration : declarations()) {
            if (declaration instanceof Decl.Named named && !(declaration instanceof Decl.Prefix)) {
                declare(named);
            }
        }
        Declarations declarations = new Declarations(this);
        requireParameters();
        typing.putGlobals(globals.findAll());
        List<CheckedMapping.Define> checkedDefines = defines.checkAll();
        resolution.putVolatileDefines(defines.volatileDefines());
        prefixesOfDefines.putAll(usedPrefixes);
        declarations.targets(targets);
        refuseForeignSamples();
        nameFurtherUses();
        if (problems.stream().noneMatch(Problem::isError)) {
            new UnusedNames(this).report(trees.get(0));
        }
        List<CheckedMapping.Source> checked = new ArrayList<>();
        for (SourceChecker.Found source : sources) {
            checked.add(source.finish(needs));
        }
        return new Result(
                new CheckedMapping(checked, tables, params, lets, checkedDefines, targets, resolution),
                typing,
                problems);
    }

    /**
     * A field is missing in the sample at a place; if it is the root, and all others are missing
     * too, that is an error.
     */
    void missing(Place place, Problem problem) {
        missing.computeIfAbsent(place, p -> new ArrayList<>()).add(problem);
    }

    /**
     * Reports a field that the sample lacks; further uses of it are the same mistake, and only
     * named.
     */
    void reportMissing(List<Place> places, FieldName name, Problem problem) {
        Problem first = firstMissing.putIfAbsent(List.of(List.copyOf(places), name), problem);
        if (first == null) {
            Problem told = report(problem);
            places.forEach(place -> missing(place, told));
        } else if (first.rule() != null
                && problem.rule() != null
                && problem.rule().line() != first.rule().line()) {
            furtherUses
                    .computeIfAbsent(first, p -> new TreeSet<>())
                    .add(problem.rule().line());
        }
    }

    private void nameFurtherUses() {
        furtherUses.forEach((first, lines) -> problems.replaceAll(problem -> {
            boolean same = problem.message().equals(first.message()) && Objects.equals(problem.rule(), first.rule());
            String on = (lines.size() == 1 ? "it is used on line " : "it is used on lines ")
                    + lines.stream().map(String::valueOf).collect(Collectors.joining(", ")) + " too";
            return same ? problem.withFurtherHelp(on) : problem;
        }));
    }

    private void requireParameters() {
        Set<String> names = new LinkedHashSet<>();
        params.forEach(param -> names.add(param.decl().name().text()));
        sources.forEach(source -> new SourceChecker(this).requireParameters(source, names));
    }

    private void refuseForeignSamples() {
        for (SourceChecker.Found source : sources) {
            List<Problem> reported = missing.getOrDefault(source.root(), List.of());
            if (needs.isForeign(source.root())) {
                problems.replaceAll(problem -> reported.contains(problem) ? problem.asError() : problem);
            }
        }
    }

    private List<Decl> declarations() {
        List<Decl> all = new ArrayList<>();
        trees.forEach(tree -> all.addAll(tree.declarations()));
        return all;
    }

    private void declare(Decl.Prefix prefix) {
        Name name = prefix.name();
        if (resolution.prefixes().containsKey(name.text()) || Resolution.KNOWN_NAMESPACES.containsKey(name.text())) {
            report(name.span().error(Code.DUPLICATE_NAME, "The prefix " + name.text() + " is declared already."));
        }
        resolution.putPrefix(name.text(), prefix.uri());
    }

    private void declare(Decl.Named decl) {
        Name name = decl.name();
        Name before = declared.putIfAbsent(name.text(), name);
        if (before != null) {
            report(name.span()
                    .error(
                            Code.DUPLICATE_NAME,
                            "The name " + name.text() + " is declared already, on line "
                                    + before.span().line() + "."));
            return;
        }
        new Declarations(this).declare(decl);
    }

    Typing typing() {
        return typing;
    }

    Needs needs() {
        return needs;
    }

    OnDemandSources onDemand() {
        return onDemand;
    }

    SchemaFinder schemas() {
        return schemas;
    }

    Defines defines() {
        return defines;
    }

    List<MappingTree> trees() {
        return trees;
    }

    List<SourceChecker.Found> sources() {
        return sources;
    }

    List<CheckedMapping.Table> tables() {
        return tables;
    }

    List<CheckedMapping.Param> params() {
        return params;
    }

    List<CheckedMapping.Global> lets() {
        return lets;
    }

    Environment environment() {
        return environment;
    }

    Resolution resolution() {
        return resolution;
    }

    GlobalNames globals() {
        return globals;
    }

    /** Reports a problem, once; gives it as it is reported. */
    Problem report(Problem problem) {
        Problem placed = defines.withCall(problem);
        if (reported.add(problem)) {
            problems.add(placed);
        }
        return placed;
    }

    @Nullable
    Function function(String name) {
        return environment.functions().find(name).orElse(null);
    }

    Set<String> functionNames() {
        Set<String> names = new LinkedHashSet<>(environment.functions().names());
        names.addAll(defines.names());
        return names;
    }

    /** {@return a scope with a name of a loop or block}, which may not hide another */
    Scope declareLocal(Scope scope, Name name, Scope.Entry entry) {
        String text = name.text();
        if (scope.find(text) != null || globals.names().contains(text)) {
            report(name.span()
                    .error(Code.HIDDEN_NAME, "The name " + text + " would hide another of the same name.")
                    .withHelp("choose another name here"));
        }
        return scope.with(text, entry);
    }

    /** {@return the name of a field in data, with the namespace of its prefix} */
    FieldName fieldName(Name name, boolean attribute) {
        return fieldName(name, attribute, List.of());
    }

    /**
     * As {@link #fieldName(Name, boolean)}, of a field of some places in sources, whose samples may
     * show its namespace.
     */
    FieldName fieldName(Name name, boolean attribute, List<Place> places) {
        FieldName field = resolution.fieldName(name, attribute);
        if (name.prefix() != null && field.namespace() == null) {
            List<String> namespaces = places.stream()
                    .flatMap(place -> place.shape() == null ? Stream.of() : place.shape().meant(field).stream())
                    .map(FieldName::namespace)
                    .filter(namespace -> namespace != null && !namespace.isEmpty())
                    .distinct()
                    .toList();
            reportPrefix(name, name.prefix(), namespaces);
        }
        return field;
    }

    /** Once for each prefix: it may well be that a whole vocabulary goes by it. */
    private void reportPrefix(Name name, String prefix, List<String> namespaces) {
        if (unknownPrefixes.add(prefix)) {
            String declaration = "prefix " + prefix + " = \""
                    + (namespaces.isEmpty()
                            ? "…\" declares it, with its namespace"
                            : String.join("\" or \"", namespaces) + "\" declares it, as the sample has it");
            report(name.span()
                    .error(Code.UNKNOWN_PREFIX, "The prefix " + prefix + " is not declared.")
                    .withHelp(
                            TypeConverters.NAMES.contains(name.text())
                                    ? "if " + name.text() + " is the type, write it behind a blank: " + prefix + ": "
                                            + name.text() + "; else " + declaration
                                    : declaration));
        }
    }

    /** {@return the kind and conversion of a type, or null if there is none such} */
    DeclaredTypes.@Nullable Declared declaredFieldType(TypeRef type) {
        Converter document = TypeConverters.NAMES.contains(type.name())
                ? null
                : environment.functions().documentTypes().get(type.name());
        if (document != null && type.arguments().isEmpty()) {
            return new DeclaredTypes.Declared(Kind.RECORD, document, true);
        }
        return declaredType(type);
    }

    /** As {@link #declaredFieldType}, for what is no field of a source. */
    DeclaredTypes.@Nullable Declared declaredType(TypeRef type) {
        if (!TypeConverters.NAMES.contains(type.name())) {
            report(type.span()
                    .error(Code.UNKNOWN_TYPE, "There is no type " + type.name() + ".")
                    .withHelp(
                            environment.functions().documentTypes().containsKey(type.name())
                                    ? "fields of sources have this type, without parentheses; a rule reads a text by "
                                            + type.name() + "(x)"
                                    : NearNames.proposal(type.name(), TypeConverters.NAMES)
                                            .orElse(null)));
            return null;
        }
        List<String> arguments = type.arguments().stream().map(Constant::text).toList();
        if (!arguments.isEmpty() && DATES.contains(TypeConverters.kind(type.name()))) {
            Problem slip =
                    PatternSlips.in(arguments.get(0), type.arguments().get(0).span());
            if (slip != null) {
                report(slip);
            }
        }
        try {
            return new DeclaredTypes.Declared(
                    TypeConverters.kind(type.name()), TypeConverters.converter(type.name(), arguments));
        } catch (IllegalArgumentException e) {
            report(type.span().error(Code.UNKNOWN_TYPE, String.valueOf(e.getMessage())));
            return new DeclaredTypes.Declared(TypeConverters.kind(type.name()), value -> value);
        }
    }

    /**
     * {@return the names of all fields of a record, or null if they are not known before the run}
     */
    @Nullable
    List<String> knownFields(Type type) {
        List<String> names = new ArrayList<>();
        if (type.fields() != null) {
            names.addAll(type.fields().keySet());
        } else if (type.places().isEmpty()) {
            return null;
        }
        for (Place node : type.places()) {
            if (node.shape() == null || !node.shape().isRecord()) {
                return null;
            }
            node.shape().names().stream()
                    .map(FieldName::toString)
                    .filter(name -> !names.contains(name))
                    .forEach(names::add);
        }
        return names;
    }

    /** A field that is written has this name. */
    void usePrefixOf(Name name) {
        String namespace =
                name.prefix() == null ? null : resolution.fieldName(name, false).namespace();
        if (namespace != null && !name.prefix().equals("xml")) {
            usedPrefixes.put(name.prefix(), namespace);
        }
    }

    /** Null is written, which XML does by an attribute of this prefix. */
    void usePrefixOfNull() {
        usedPrefixes.put("xsi", Resolution.KNOWN_NAMESPACES.get("xsi"));
    }

    /** Whole records of a source are written, in whatever namespaces their elements are. */
    void useAllPrefixes() {
        usedPrefixes.putAll(resolution.prefixes());
    }

    /** {@return the prefixes of all fields that were written since the defines were checked} */
    Map<String, String> takeUsedPrefixes() {
        Map<String, String> used = new HashMap<>(usedPrefixes);
        usedPrefixes.clear();
        usedPrefixes.putAll(prefixesOfDefines);
        return used;
    }

    /**
     * Whether some path may step to a name: only then is a let of a loop worth keeping with the
     * members of a group.
     */
    boolean mayStepTo(String name) {
        return trees.stream().anyMatch(tree -> tree.steps().contains(name));
    }

    /** Checks a constant expression, such as a parameter's default. */
    Type isolated(Expr expr, Scope scope, ParameterKind want) {
        return new ExpressionChecker(this, scope, null).one(expr, want);
    }
}
