package dev.morphema;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import dev.morphema.testing.ForAll;
import dev.morphema.testing.Gen;
import dev.morphema.testing.Gens;
import dev.morphema.testing.Property;
import dev.morphema.testing.Provide;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * A slip in a mapping is told as problems at places in it, or leaves a mapping that can be run; it
 * is never a failure.
 */
class SpoiledMappingsProperties {
    private static final Pattern TOKEN = Pattern.compile(
            "\"(?:[^\"\\\\\n]|\\\\.)*\"|'[^'\n]*'|[\\p{L}_][\\p{L}\\d_]*|[0-9.]+|\\s+|#[^\n]*|=>|[=!<>]=|\\?\\?|.",
            Pattern.DOTALL);
    private static final String ODD = "\0\"'{}()[]=.,:#\\é1 \n\uD800";

    private static final List<Path> MAPPINGS = mappings();
    private static final List<String> TOKENS =
            MAPPINGS.stream().flatMap(mapping -> tokens(mapping).stream()).toList();

    /** One slip: what is done to which token, and with which other one. */
    private record Slip(int kind, int at, int other) {
        void in(List<String> tokens) {
            int place = at % tokens.size();
            String token = tokens.get(place);
            String another = TOKENS.get(other % TOKENS.size());
            switch (kind) {
                case 0 -> tokens.set(place, "");
                case 1 -> tokens.add(place, token + " ");
                case 2 -> tokens.set(place, another);
                case 3 -> tokens.add(place, another + " ");
                case 4 -> tokens.set(place, tokens.set(other % tokens.size(), token));
                default -> tokens.set(place, withOddCharacter(token));
            }
        }

        private String withOddCharacter(String token) {
            int within = other % (token.length() + 1);
            return token.substring(0, within) + ODD.charAt(other % ODD.length()) + token.substring(within);
        }
    }

    private static List<Path> mappings() {
        try (Stream<Path> files = Stream.concat(Files.walk(Path.of("../docs/cases")), Files.walk(Path.of("../demo")))) {
            return files.filter(file -> file.toString().endsWith(".morphema"))
                    .sorted()
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static List<String> tokens(Path mapping) {
        try {
            return TOKEN.matcher(Files.readString(mapping))
                    .results()
                    .map(MatchResult::group)
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Provide
    Gen<Path> documented() {
        return Gens.of(MAPPINGS);
    }

    @Provide
    Gen<List<Slip>> slips() {
        Gen<Integer> any = Gens.integers().between(0, 100_000);
        return Gens.combine(Gens.integers().between(0, 5), any, any)
                .as(Slip::new)
                .list()
                .ofMinSize(1)
                .ofMaxSize(3);
    }

    @Property(tries = 20_000)
    void slipsAreToldWhereTheyAre(@ForAll("documented") Path file, @ForAll("slips") List<Slip> slips) {
        List<String> tokens = new ArrayList<>(tokens(file));
        slips.forEach(slip -> slip.in(tokens));
        String mapping = String.join("", tokens);
        Checked checked = Morphema.standard().check("spoiled.morphema", mapping, file.getParent());
        for (Problem problem : checked.problems()) {
            assertThat(problem.message()).as(mapping).endsWith(".").doesNotContain("Exception");
            assertThat(problem.rule()).as("%s in %s", problem, mapping).isNotNull();
            if (problem.rule().toString().startsWith("spoiled.morphema")) {
                assertThat(problem.rule().line()).as(mapping).isBetween(1, mapping.split("\n", -1).length);
            }
        }
        boolean wrong = checked.problems().stream().anyMatch(Problem::isError);
        assertThat(checked.mapping().isEmpty()).as(mapping).isEqualTo(wrong);
        checked.mapping()
                .ifPresent(sound -> assertThat(sound.plan()).as(mapping).isNotNull());
    }
}
