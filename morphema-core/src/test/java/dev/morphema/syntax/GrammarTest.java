package dev.morphema.syntax;

import static org.assertj.core.api.Assertions.assertThat;

import dev.morphema.problem.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/**
 * The documented grammar and the parser say the same: random sentences of the grammar are
 * understood.
 */
class GrammarTest {
    private static final int SENTENCES = 3_000;
    private static final int MOST_DEEP = 14;

    /** What the notes of the grammar forbid beyond its rules. */
    private static final Set<String> ALLOWED = Set.of(
            "Beside ??, a calculation needs parentheses.",
            "The key needs a name of its own.",
            "Comparisons do not chain.");

    /** A part of a rule. */
    private sealed interface Part {}

    private record Word(String text) implements Part {}

    private record Rule(String name) implements Part {}

    private record Series(List<Part> parts) implements Part {}

    private record OneOf(List<Part> parts) implements Part {}

    private record Maybe(Part part, boolean repeated) implements Part {}

    private final Map<String, Part> rules = new LinkedHashMap<>();
    private final Map<String, Integer> depths = new HashMap<>();
    private final Set<String> used = new LinkedHashSet<>();
    private final Random random = new Random(1);

    @Test
    @DisplayName("random sentences of the grammar are understood, and every rule is tried")
    void sentencesAreUnderstood() throws IOException {
        read(Files.readString(Path.of("../docs/grammar.ebnf")));
        List<String> refused = new ArrayList<>();
        for (int i = 0; i < SENTENCES; i++) {
            String sentence = "morphema 1\n" + sentence(new Rule("decl"), 0);
            List<Problem> problems =
                    Parser.parse(new SourceText("random", sentence)).problems();
            problems.stream()
                    .filter(p -> !ALLOWED.contains(p.message()))
                    .findFirst()
                    .ifPresent(p -> refused.add(p + "\n" + sentence));
        }
        assertThat(refused.stream().limit(3).toList())
                .as(refused.size() + " refused")
                .isEmpty();
        assertThat(used).containsAll(rules.keySet());
    }

    private void read(String grammar) {
        String text = grammar.replaceAll("(?s)\\(\\*.*?\\*\\)", "");
        text = text.substring(text.indexOf("decl "));
        Matcher matcher =
                Pattern.compile("([\\w-]+)\\s*=\\s(.*?)\\s;", Pattern.DOTALL).matcher(text);
        while (matcher.find()) {
            rules.put(matcher.group(1), new Reader(matcher.group(2)).alternatives());
        }
        // What the grammar says in words, and the tokens.
        rules.put("seq", new Rule("path"));
        rules.put("head", new Rule("product"));
        Map<String, String> tokens = Map.of(
                "NAME",
                "n",
                "word",
                "w",
                "QNAME",
                "xml:q",
                "NUMBER",
                "12.5",
                "RAW",
                "'r'",
                "TEXT",
                "\"t {n}\"",
                "PLAIN",
                "\"p\"");
        tokens.forEach((name, token) -> rules.put(name, new Word(token)));
        boolean changed = true;
        while (changed) {
            changed = false;
            for (Map.Entry<String, Part> rule : rules.entrySet()) {
                int depth = least(rule.getValue()) + 1;
                if (depth < depths.getOrDefault(rule.getKey(), Integer.MAX_VALUE / 2)) {
                    depths.put(rule.getKey(), depth);
                    changed = true;
                }
            }
        }
    }

    /** How deep the shallowest sentence of a part is. */
    private int least(Part part) {
        if (part instanceof Rule rule) {
            return depths.getOrDefault(rule.name(), Integer.MAX_VALUE / 2);
        }
        if (part instanceof Series series) {
            return series.parts().stream().mapToInt(this::least).max().orElse(0);
        }
        if (part instanceof OneOf oneOf) {
            return oneOf.parts().stream().mapToInt(this::least).min().orElse(0);
        }
        return 0;
    }

    private String sentence(Part part, int depth) {
        if (part instanceof Word word) {
            return word.text() + " ";
        }
        if (part instanceof Rule rule) {
            used.add(rule.name());
            String inner = sentence(rules.get(rule.name()), depth + 1);
            // Own text must begin its line, and a condition with else before another else stands in
            // brackets.
            return rule.name().equals("stmt") ? "\n" + inner : inner;
        }
        if (part instanceof Series series) {
            StringBuilder out = new StringBuilder();
            for (int i = 0; i < series.parts().size(); i++) {
                Part piece = series.parts().get(i);
                boolean required = i == 1 && series.parts().get(0).equals(new Word("require"));
                out.append(required ? "( " + sentence(piece, depth) + ") " : sentence(piece, depth));
            }
            return out.toString();
        }
        if (part instanceof OneOf oneOf) {
            List<Part> parts = oneOf.parts();
            if (depth > MOST_DEEP) {
                int least = least(part);
                parts = parts.stream().filter(p -> least(p) == least).toList();
            }
            return sentence(parts.get(random.nextInt(parts.size())), depth);
        }
        Maybe maybe = (Maybe) part;
        StringBuilder out = new StringBuilder();
        while (depth <= MOST_DEEP && random.nextInt(3) == 0) {
            out.append(sentence(maybe.part(), depth));
            if (!maybe.repeated()) {
                break;
            }
        }
        return out.toString();
    }

    /** Reads the right side of a rule. */
    private static final class Reader {
        private final Matcher tokens;
        private String token = "";

        Reader(String text) {
            tokens = Pattern.compile("\"[^\"]+\"|'[^']+'|[\\w-]+|[|()\\[\\]{}]").matcher(text);
            next();
        }

        private void next() {
            token = tokens.find() ? tokens.group() : "";
        }

        Part alternatives() {
            List<Part> parts = new ArrayList<>();
            parts.add(series());
            while (token.equals("|")) {
                next();
                parts.add(series());
            }
            return parts.size() == 1 ? parts.get(0) : new OneOf(parts);
        }

        private Part series() {
            List<Part> parts = new ArrayList<>();
            while (!token.isEmpty() && !"|)]}".contains(token)) {
                parts.add(part());
            }
            return parts.size() == 1 ? parts.get(0) : new Series(parts);
        }

        private Part part() {
            String first = token;
            next();
            if ("([{".contains(first)) {
                Part inner = alternatives();
                next();
                return first.equals("(") ? inner : new Maybe(inner, first.equals("{"));
            }
            return first.startsWith("\"") || first.startsWith("'")
                    ? new Word(first.substring(1, first.length() - 1))
                    : new Rule(first);
        }
    }
}
