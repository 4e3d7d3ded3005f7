package dev.morphema.cli;

import dev.morphema.Mapping;
import dev.morphema.Outputs;
import dev.morphema.format.Insertion;
import dev.morphema.jdbc.Database;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The outputs of a run as the command line names them: files, folders, standard output, databases,
 * and documents that take in a part.
 */
final class GivenOutputs {
    private static final String STANDARD = "-";

    /** The format whose documents are no texts. */
    private static final String WORKBOOK = "xlsx";

    private final Terminal terminal;
    private final Mapping mapping;
    private final Map<String, String> places = new LinkedHashMap<>();
    private final Merge merge;
    private final boolean append;

    /**
     * What is put into documents that are there.
     *
     * @param words the file, perhaps with its target; or nothing
     * @param path the names that lead to the place
     * @param existing what becomes of entries that are there
     */
    record Merge(List<String> words, List<String> path, Insertion.Existing existing) {
        Map<String, List<String>> files(Mapping mapping) {
            return NamedWords.of(words, mapping.targets(), "target", "--merge-into");
        }
    }

    /**
     * The outputs that words name; all are shown if there are no words.
     *
     * @param words files, perhaps with their targets
     * @param append whether files are gone on with
     */
    GivenOutputs(Terminal terminal, Mapping mapping, List<String> words, Merge merge, boolean append) {
        this.terminal = terminal;
        this.mapping = mapping;
        this.merge = merge;
        this.append = append;
        take(NamedWords.of(words, mapping.targets(), "target", "--out"));
        Map<String, List<String>> merged = merge.files(mapping);
        take(merged);
        for (String target : merged.keySet()) {
            if (mapping.hasManyDocuments(target)) {
                throw TerminalCommand.usage(
                        "The target " + target + " has many documents, and one is put into another.", null);
            }
        }
        if (places.isEmpty()) {
            if (mapping.targets().isEmpty()) {
                throw TerminalCommand.usage("The mapping has no target, so there is nothing to write.", null);
            }
            mapping.targets().forEach(target -> places.put(target, STANDARD));
        }
    }

    private void take(Map<String, List<String>> given) {
        given.forEach((target, words) -> {
            if (words.size() > 1 || places.putIfAbsent(target, words.get(0)) != null) {
                throw TerminalCommand.usage("The target " + target + " is given twice.", null);
            }
        });
    }

    /** {@return where each target goes, as it was named} */
    Map<String, String> places() {
        return places;
    }

    /** {@return whether some output is no stream that somebody may stop reading} */
    boolean areFilesThere() {
        return places.values().stream().anyMatch(place -> !place.equals(STANDARD));
    }

    /** {@return the outputs of one run} */
    Outputs staged(Connections connections) {
        Map<String, List<String>> merged = merge.files(mapping);
        long shown = places.values().stream().filter(STANDARD::equals).count();
        Outputs staged = Outputs.NONE;
        for (Map.Entry<String, String> output : places.entrySet()) {
            String target = output.getKey();
            Optional<Database> database = connections.database(output.getValue());
            if (merged.containsKey(target)) {
                staged = staged.andMerged(target, Path.of(output.getValue()), merge.path(), merge.existing());
            } else if (output.getValue().equals(STANDARD)) {
                staged = shown(staged, target, shown > 1 ? target : "");
            } else if (database.isPresent()) {
                staged = staged.andRecords(target, database.get().output());
            } else {
                staged = file(staged, target, output.getValue());
            }
        }
        return staged;
    }

    /** {@return the targets whose output is a workbook at a place} */
    private List<String> sharing(String place) {
        return places.entrySet().stream()
                .filter(output -> output.getValue().equals(place)
                        && mapping.formatOf(output.getKey()).equals(WORKBOOK))
                .map(Map.Entry::getKey)
                .toList();
    }

    private Outputs shown(Outputs outputs, String target, String title) {
        if (terminal.look().colourOut() && mapping.formatOf(target).equals(WORKBOOK)) {
            throw TerminalCommand.usage("A workbook is not for a screen.", "--out " + target + "=FILE.xlsx");
        }
        ShownOutput place = new ShownOutput(terminal, title, mapping.formatOf(target));
        return mapping.hasManyDocuments(target)
                ? outputs.andDocuments(target, place::show)
                : outputs.andStream(target, place.stream());
    }

    private Outputs file(Outputs outputs, String target, String word) {
        Path place = Path.of(word);
        List<String> sharing = sharing(word);
        if (sharing.size() > 1 && sharing.contains(target)) {
            // They are one output, which stands for all.
            return sharing.get(0).equals(target) ? outputs.andShared(sharing, place) : outputs;
        }
        if (mapping.hasManyDocuments(target)) {
            if (append) {
                throw TerminalCommand.usage("A folder of documents is not appended to.", null);
            }
            return outputs.andFolder(target, place);
        }
        return append ? outputs.andAppended(target, place) : outputs.andFile(target, place);
    }
}
