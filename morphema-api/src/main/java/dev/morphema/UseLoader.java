package dev.morphema;

import dev.morphema.check.Environment;
import dev.morphema.format.Input;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.syntax.Decl;
import dev.morphema.syntax.MappingTree;
import dev.morphema.syntax.Parser;
import dev.morphema.syntax.SourceText;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Reads a mapping and those that it uses. */
final class UseLoader {
    private static final Pattern MAPPING = Pattern.compile("(\\s|\uFEFF|#[^\n]*\n)*morphema\\b");

    private final List<MappingTree> trees = new ArrayList<>();
    private final List<Problem> problems = new ArrayList<>();
    private final Map<SourceText, MappingOrigin> origins = new LinkedHashMap<>();
    private final Set<Object> seen = new HashSet<>();

    private UseLoader() {}

    /** All texts that make up one mapping; the first is the mapping itself. */
    record Loaded(List<MappingTree> trees, List<Problem> problems, Map<SourceText, MappingOrigin> origins)
            implements Environment.Files {
        /** {@return the text of the mapping itself} */
        SourceText main() {
            return origins.keySet().iterator().next();
        }

        @Override
        public Input find(SourceText from, String path) {
            return origins.get(from).file(path);
        }

        @Override
        public List<Input> all(SourceText from, String pattern) {
            return origins.get(from).files(pattern);
        }
    }

    static Loaded load(MappingOrigin origin) {
        UseLoader loader = new UseLoader();
        loader.read(origin, null);
        return new Loaded(loader.trees, loader.problems, loader.origins);
    }

    private void read(MappingOrigin origin, Decl.@Nullable Use use) {
        String text;
        try {
            if (!seen.add(origin.identity())) {
                return;
            }
            text = origin.text();
        } catch (IOException e) {
            problems.add(unreadable(origin, use, e));
            return;
        } catch (ProblemException e) {
            problems.add(
                    use == null ? e.problem() : e.problem().at(use.fileSpan().location()));
            return;
        }
        if (use != null && !MAPPING.matcher(text).lookingAt()) {
            // Nothing of another file is shown.
            problems.add(use.fileSpan()
                    .error(Code.SYNTAX, "This file is no mapping: it does not begin with the version.")
                    .withHelp("the first line of a mapping is: morphema 1"));
            return;
        }
        SourceText source = new SourceText(origin.name(), text);
        origins.put(source, origin);
        Parser.Result parsed = Parser.parse(source);
        trees.add(parsed.tree());
        problems.addAll(parsed.problems());
        for (Decl decl : parsed.tree().declarations()) {
            if (decl instanceof Decl.Use next) {
                read(origin.use(next.file()), next);
            } else if (use != null
                    && (decl instanceof Decl.Source || decl instanceof Decl.Target || decl instanceof Decl.Param)) {
                problems.add(decl.span()
                        .error(Code.SYNTAX, "A mapping that others use has no sources, targets or parameters.")
                        .withHelp("it holds prefixes, tables, lets and defines"));
            }
        }
    }

    static Problem unreadable(MappingOrigin origin, Decl.@Nullable Use use, IOException e) {
        boolean bytes = e instanceof CharacterCodingException;
        Problem problem = bytes
                ? Problem.error(Code.NOT_READABLE, "The mapping " + origin.name() + " is not a text in UTF-8.")
                : Problem.error(Code.FILE_NOT_FOUND, "The mapping " + origin.name() + " cannot be read.");
        return use == null ? problem : problem.at(use.fileSpan().location());
    }
}
