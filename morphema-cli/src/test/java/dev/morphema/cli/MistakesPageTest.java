package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.Morphema;
import dev.morphema.problem.Problem;
import dev.morphema.problem.RuleLocation;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Each slip on the page of mistakes is told as the page says. */
class MistakesPageTest {
    private static final Path PAGE = Path.of("../docs/problems/mistakes.md");
    private static final Pattern ROW = Pattern.compile(
            "\\| (\\w+) \\| `(.*?)` \\| (?:`(.*?)`|nothing) \\| (?:\\[|`)([a-z-]+)(?:\\]\\(\\4\\.md\\)|`) \\| (\\d+):(\\d+) \\| (.*) \\|");
    private static final int LEAST = 60;
    private static final int LEAST_REPLACED = 10;

    @TempDir
    private Path folder;

    @Test
    @DisplayName("the mappings are good, and each slip is told at its place with its proposal")
    void slips() throws IOException {
        List<String> good = new Page(folder).replay(PAGE);
        assertThat(good).hasSize(3).allSatisfy(printed -> assertThat(printed).contains(": good."));
        Matcher row = ROW.matcher(Files.readString(PAGE));
        int rows = 0;
        int replaced = 0;
        while (row.find()) {
            rows++;
            Path mapping = folder.resolve(row.group(1) + ".morphema");
            String before = Files.readString(mapping);
            String slip = changed(before, text(row.group(2)), text(row.group(3)));
            assertThat(slip).isNotEqualTo(before);
            Problem first = problems(slip).get(0);
            assertThat(first.code().printed()).as(row.group()).isEqualTo(row.group(4));
            assertThat(first.rule()).as(row.group()).isNotNull();
            assertThat(first.rule().line() + ":" + first.rule().column())
                    .as(row.group())
                    .isEqualTo(row.group(5) + ":" + row.group(6));
            assertThat(first.help() == null ? "none" : first.help())
                    .as(row.group())
                    .isEqualTo(row.group(7).replace("&#124;", "|"));
            replaced += first.replacement().isPresent() ? 1 : 0;
            first.replacement()
                    .ifPresent(name -> assertThat(problems(replaced(slip, first.rule(), name)))
                            .as(row.group())
                            .noneMatch(problem -> problem.code() == first.code()));
        }
        assertThat(replaced).isGreaterThanOrEqualTo(LEAST_REPLACED);
        assertThat(rows).isGreaterThanOrEqualTo(LEAST);
        assertThat(Files.readString(PAGE).split("\n\\| (csv|json|xml) \\|").length - 1)
                .isEqualTo(rows);
    }

    private List<Problem> problems(String mapping) {
        return Morphema.standard().check("slip", mapping, folder).problems();
    }

    private static String replaced(String mapping, RuleLocation place, String by) {
        List<String> lines = new ArrayList<>(List.of(mapping.split("\n", -1)));
        StringBuilder line = new StringBuilder(lines.get(place.line() - 1));
        line.replace(place.column() - 1, place.column() - 1 + place.length(), by);
        lines.set(place.line() - 1, line.toString());
        return String.join("\n", lines);
    }

    private static String text(String cell) {
        return cell == null ? "" : cell.replace("⏎", "\n").replace("\\|", "|");
    }

    private static String changed(String mapping, String old, String slip) {
        int at = mapping.indexOf(old);
        return mapping.substring(0, at) + slip + mapping.substring(at + old.length());
    }
}
