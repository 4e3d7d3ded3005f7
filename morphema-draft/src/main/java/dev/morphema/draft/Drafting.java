package dev.morphema.draft;

import dev.morphema.FormattedMapping;
import dev.morphema.Inputs;
import dev.morphema.Mapping;
import dev.morphema.Morphema;
import dev.morphema.Outputs;
import dev.morphema.problem.ProblemException;
import dev.morphema.samples.Difference;
import dev.morphema.samples.Documents;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Drafts a mapping from samples or schemas of both sides: by the values, if the one is what the
 * mapping is to make of the other; else by the names and kinds of fields.
 *
 * <pre>{@code
 * Draft draft = Drafting.draft(List.of("manifest.csv"), "notice.xml", Path.of("."));
 * }</pre>
 */
public final class Drafting {
    /** With fewer fields found by their values, the two samples are not of the same things. */
    private static final double OF_THE_SAME = 0.25;

    private final Map<String, Side> sources = new LinkedHashMap<>();
    private final Side target;
    private final String targetName;
    private final Path folder;
    private final Set<String> taken = new HashSet<>();

    private Drafting(List<String> from, String to, Path folder) {
        this.folder = folder.toAbsolutePath().normalize();
        for (String file : from) {
            Side side = Side.read(file);
            sources.put(Names.variable(side.stem(), taken), side);
        }
        this.target = Side.read(to);
        this.targetName = Names.variable(target.stem(), taken);
    }

    /**
     * {@return a mapping that makes a document of others}
     *
     * @param from samples or schemas of the sources; of a schema perhaps a part, behind {@code #}
     * @param to the document that the mapping is to make of the samples; or a sample of another
     *     one, or a schema
     * @param folder where the mapping will stand; samples and schemas in it or below are named in
     *     the mapping
     * @throws ProblemException if a file cannot be read
     */
    public static Draft draft(List<String> from, String to, Path folder) {
        return new Drafting(from, to, folder).draft();
    }

    private Draft draft() {
        boolean values = target.sample() != null
                && !target.items().isEmpty()
                && sources.values().stream().allMatch(side -> side.sample() != null);
        Draft byValues = values ? byValues() : null;
        return byValues == null ? byNames() : byValues;
    }

    private boolean isTyped() {
        return target.format().startsWith("json");
    }

    /** {@return a draft by what the samples hold; null if they are not of the same things} */
    private @Nullable Draft byValues() {
        Tables tables = new Tables(taken);
        Prefixes prefixes = new Prefixes(target.namespace());
        Drafter drafter = new Drafter(isTyped(), tables, new HashSet<>(taken), prefixes, scope());
        Body body = target.isList() ? drafter.items(target.items()) : drafter.record(target.items());
        if (body.made() < body.total() * OF_THE_SAME) {
            return null;
        }
        String drafted = DraftText.nodes(body.nodes());
        Repair repair = new Repair(drafted, with -> text(with, tables, prefixes, ""), this::tried);
        String statements = repair.statements();
        List<Difference> differences = repair.differences();
        String tried = differences == null
                ? ""
                : differences.isEmpty()
                        ? " With the samples it gives what is expected."
                        : " With the samples it gives something else at " + places(differences.size()) + ".";
        String remark = found(body.right() - repair.takenBack(), body.total()) + tried;
        return new Draft(
                formatted(text(statements, tables, prefixes, remark)),
                body.right() - repair.takenBack(),
                body.total(),
                differences != null,
                differences == null ? List.of() : differences);
    }

    private static String places(int count) {
        return count == 1 ? "one place" : count + " places";
    }

    private static String found(int right, int total) {
        return right + " of " + total + (total == 1 ? " field has" : " fields have") + " a rule.";
    }

    private Draft byNames() {
        Tables tables = new Tables(taken);
        Prefixes prefixes = new Prefixes(target.namespace());
        NameDrafter drafter = new NameDrafter(isTyped(), tables, new HashSet<>(taken), prefixes);
        Body body = drafter.document(target.form(), scope());
        Repair repair =
                new Repair(DraftText.nodes(body.nodes()), with -> text(with, tables, prefixes, ""), this::checked);
        String statements = repair.statements();
        String remark = found(body.right(), body.total()) + " They were found by names and kinds, so each is a guess.";
        return new Draft(
                formatted(text(statements, tables, prefixes, remark)), body.right(), body.total(), false, List.of());
    }

    /** The sources as a whole. */
    private Scope scope() {
        List<Var> vars = new ArrayList<>();
        @Nullable Object[] turn = new @Nullable Object[sources.size()];
        for (Map.Entry<String, Side> source : sources.entrySet()) {
            Side side = source.getValue();
            boolean list = side.isList();
            turn[vars.size()] = list ? side.items() : side.items().get(0);
            vars.add(new Var(source.getKey(), list ? Var.Form.RECORDS : Var.Form.SOURCE));
        }
        List<@Nullable Object[]> turns = new ArrayList<>();
        turns.add(turn);
        return new Scope(vars, turns);
    }

    private String text(String statements, Tables tables, Prefixes prefixes, String remark) {
        StringBuilder out = new StringBuilder("morphema 1\n\n");
        if (!remark.isEmpty()) {
            out.append("# A draft: ").append(remark).append("\n\n");
        }
        prefixes.declared()
                .forEach((prefix, namespace) -> out.append("prefix ")
                        .append(prefix)
                        .append(" = ")
                        .append(Texts.quoted(namespace))
                        .append('\n'));
        for (Map.Entry<String, Side> source : sources.entrySet()) {
            Side side = source.getValue();
            List<String> more = new ArrayList<>();
            addFile(side, more);
            out.append("source ")
                    .append(source.getKey())
                    .append(": ")
                    .append(side.written(more))
                    .append('\n');
        }
        out.append('\n');
        for (String table : tables.usedIn(statements)) {
            out.append(table).append('\n');
        }
        List<String> more = new ArrayList<>();
        String namespace = target.namespace();
        if (namespace != null && !namespace.isEmpty()) {
            more.add("namespace = " + Texts.quoted(namespace));
        }
        if (isTyped() && target.sample() != null && target.items().stream().anyMatch(Item::hasNulls)) {
            more.add("missing = null");
        }
        if (target.schema() != null) {
            addFile(target, more);
        }
        out.append("\ntarget ")
                .append(targetName)
                .append(": ")
                .append(target.written(more))
                .append(" {\n");
        return out.append(statements).append("}\n").toString();
    }

    /** Names a sample or schema, if it is where a mapping may read. */
    private void addFile(Side side, List<String> options) {
        String path = relative(side.path());
        if (path != null) {
            options.add((side.schema() == null ? "sample = " : "schema = ") + Texts.quoted(path + side.fragment()));
        }
    }

    private static FormattedMapping formatted(String text) {
        return Morphema.standard().format("draft", text);
    }

    /** {@return the path of a file below the folder of the mapping; null if it is elsewhere} */
    private @Nullable String relative(Path file) {
        Path absolute = file.toAbsolutePath().normalize();
        return absolute.startsWith(folder)
                ? folder.relativize(absolute).toString().replace('\\', '/')
                : null;
    }

    /** A mapping that is only checked differs nowhere. */
    private List<Difference> checked(String text) {
        Morphema.standard().load("draft", text, folder);
        return List.of();
    }

    /** {@return where the draft gives something else for the samples} */
    private List<Difference> tried(String text) {
        try {
            Mapping mapping = Morphema.standard().load("draft", text, folder);
            Inputs inputs = Inputs.NONE;
            for (Map.Entry<String, Side> source : sources.entrySet()) {
                inputs = inputs.andFile(source.getKey(), source.getValue().path());
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            mapping.run(inputs, Outputs.stream(targetName, out));
            return Documents.differences(mapping, targetName, target.path(), out.toByteArray());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
