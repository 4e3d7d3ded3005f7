package dev.morphema.http;

import dev.morphema.format.Input;
import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.problem.ProblemException;
import dev.morphema.standard.StandardFormats;
import dev.morphema.value.FieldName;
import dev.morphema.value.RecordValue;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Goes from page to page. */
final class Pages {
    /** A link of a header, with its parameters (RFC 8288). */
    private static final Pattern LINK = Pattern.compile("<([^>]*)>([^<]*)");

    private static final Pattern NEXT =
            Pattern.compile(";\\s*rel\\s*=\\s*(?:\"(?:[^\"]*\\s)?next(?:\\s[^\"]*)?\"|next\\b)");

    private Pages() {}

    /**
     * {@return the pages, or null if the first was asked for under a condition and is as it was}
     */
    static @Nullable Fetched fetch(Requests requests, URI first, List<String> nextField) {
        Fetched fetched = new Fetched();
        Set<URI> seen = new HashSet<>();
        try {
            URI address = first;
            while (address != null) {
                if (!seen.add(address)) {
                    throw requests.refused(address, "The pages lead back to one that was read.", null);
                }
                Requests.Answer answer = requests.get(address, first);
                if (answer.bytes() == null) {
                    return null;
                }
                int number = seen.size();
                String name = Requests.shown(address) + (number == 1 ? "" : ", page " + number);
                Input page = fetched.add(name, answer.bytes(), answer.type(), answer.conditions());
                String next = next(answer, page, nextField);
                address = next == null ? null : requests.within(first, answer.address(), next);
            }
            return fetched;
        } catch (RuntimeException e) {
            fetched.close();
            throw e;
        }
    }

    private static @Nullable String next(Requests.Answer answer, Input page, List<String> nextField) {
        for (String header : answer.links()) {
            Matcher links = LINK.matcher(header);
            while (links.find()) {
                if (NEXT.matcher(links.group(2)).find()) {
                    return links.group(1);
                }
            }
        }
        return nextField.isEmpty() ? null : field(page, nextField);
    }

    /** The text in a field. A page that is no record, or a field that is null, has none. */
    private static @Nullable String field(Input page, List<String> path) {
        Projection wanted = Projection.everything();
        for (int i = path.size() - 1; i >= 0; i--) {
            wanted = new Projection(false, Map.of(FieldName.of(path.get(i)), wanted), null, Map.of());
        }
        try (RecordReader reader = StandardFormats.source("json").open(page, wanted, Options.NONE)) {
            if (reader.isSequence()) {
                return null;
            }
            Value at = reader.whole();
            for (String step : path) {
                at = at instanceof RecordValue record ? record.get(FieldName.of(step)) : at;
            }
            return at instanceof TextValue text && text.length() > 0 ? text.text() : null;
        } catch (ProblemException e) {
            // Who reads the page tells what is wrong with it.
            return null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
