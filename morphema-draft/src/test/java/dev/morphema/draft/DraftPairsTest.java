package dev.morphema.draft;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.Morphema;
import java.io.IOException;
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
        StringBuilder table = new StringBuilder();
        int right = 0;
        int fields = 0;
        double shares = 0;
        List<Pairs.Pair> pairs = Pairs.all();
        List<Draft> drafts = pairs.parallelStream().map(this::draft).toList();
        for (int i = 0; i < pairs.size(); i++) {
            Pairs.Pair pair = pairs.get(i);
            Draft draft = drafts.get(i);
            assertThat(Morphema.standard().check("draft", draft.text(), folder).problems())
                    .as("%s%n%s", pair, draft.text())
                    .noneMatch(problem -> problem.isError());
            Pairs.Score score = Pairs.score(pair, draft.text(), folder);
            table.append("| %s | %d of %d |%n".formatted(pair.name(), score.right(), score.fields()));
            right += score.right();
            fields += score.fields();
            shares += (double) score.right() / score.fields();
        }
        table.append("| **all %d pairs** | **%d of %d**, a mean of %d %% |%n"
                .formatted(pairs.size(), right, fields, Math.round(100 * shares / pairs.size())));
        assertThat(Files.readString(Path.of("../docs/drafts.md"))).contains(table.toString());
    }

    private Draft draft(Pairs.Pair pair) {
        List<String> from = pair.inputs().stream().map(Path::toString).toList();
        return Drafting.draft(from, pair.output().toString(), folder);
    }
}
