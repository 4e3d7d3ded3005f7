package dev.morphema.draft;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.Looked;
import dev.morphema.Morphema;
import dev.morphema.schemas.LearnedSchemas;
import dev.morphema.schemas.LearnedXsd;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** How much of a mapping is found out, of pairs of inputs and outputs from many trades. */
class DraftPairsTest {
    @TempDir
    private Path folder;

    @Test
    @DisplayName("the page of drafts says how many fields are right")
    void shares() throws IOException {
        List<Pairs.Pair> pairs = Pairs.all();
        List<Draft> drafts = pairs.parallelStream().map(this::draft).toList();
        List<Draft> bySchema = pairs.parallelStream().map(this::draftBySchema).toList();
        StringBuilder table = new StringBuilder();
        Total byValues = new Total();
        Total byNames = new Total();
        for (int i = 0; i < pairs.size(); i++) {
            Pairs.Pair pair = pairs.get(i);
            Pairs.Score values = score(pair, drafts.get(i));
            Pairs.Score names = score(pair, bySchema.get(i));
            table.append("| %s | %d of %d | %d of %d |%n"
                    .formatted(pair.name(), values.right(), values.fields(), names.right(), names.fields()));
            byValues.add(values);
            byNames.add(names);
        }
        table.append("| **all %d pairs** | %s | %s |%n".formatted(pairs.size(), byValues, byNames));
        assertThat(Files.readString(Path.of("../docs/drafts.md"))).contains(table.toString());
    }

    private Pairs.Score score(Pairs.Pair pair, Draft draft) throws IOException {
        assertThat(Morphema.standard().check("draft", draft.text(), folder).problems())
                .as("%s%n%s", pair, draft.text())
                .noneMatch(problem -> problem.isError());
        return Pairs.score(pair, draft.text(), folder);
    }

    /** {@return a schema of what is to be made, learned from it} */
    private String schema(Pairs.Pair pair) throws IOException {
        Looked looked = Morphema.standard().look(List.of(pair.output()), Long.MAX_VALUE);
        String stem = "target" + Math.floorMod(pair.name().hashCode(), 1_000_000);
        Path file =
                switch (looked.format()) {
                    case "xml" ->
                        Files.writeString(folder.resolve(stem + ".xsd"), LearnedXsd.write(looked.shape(), true));
                    case "csv" ->
                        Files.writeString(
                                folder.resolve(stem + ".csv"),
                                Files.readAllLines(pair.output()).get(0) + "\n");
                    default ->
                        Files.writeString(
                                folder.resolve(stem + ".schema.json"),
                                LearnedSchemas.json(looked.shape(), looked.isSequence()));
                };
        return file.toString();
    }

    private Draft draftBySchema(Pairs.Pair pair) {
        try {
            return Drafting.draft(names(pair.inputs()), schema(pair), folder);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static List<String> names(List<Path> files) {
        return files.stream().map(Path::toString).toList();
    }

    private static final class Total {
        private int right;
        private int fields;
        private int pairs;
        private double shares;

        void add(Pairs.Score score) {
            right += score.right();
            fields += score.fields();
            shares += (double) score.right() / score.fields();
            pairs++;
        }

        @Override
        public String toString() {
            return "**%d of %d**, a mean of %d %%".formatted(right, fields, Math.round(100 * shares / pairs));
        }
    }

    private Draft draft(Pairs.Pair pair) {
        return Drafting.draft(names(pair.inputs()), pair.output().toString(), folder);
    }
}
