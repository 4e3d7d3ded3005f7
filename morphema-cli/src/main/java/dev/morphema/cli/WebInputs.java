package dev.morphema.cli;

import dev.morphema.http.Fetched;
import dev.morphema.http.WebSource;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/**
 * What was got from addresses, for one run or, as long as nothing new is there, for several. All of
 * it is gone when this is closed.
 */
final class WebInputs implements AutoCloseable {
    private final Map<String, Fetched> byWord = new HashMap<>();
    private boolean anyNew;

    /** {@return what is at an address now} */
    Fetched get(String word, WebSource source) {
        Fetched before = byWord.get(word);
        if (before == null) {
            Fetched first = source.fetch();
            byWord.put(word, first);
            anyNew = true;
            return first;
        }
        Optional<Fetched> now = source.fetchSince(before);
        if (now.isPresent()) {
            byWord.put(word, now.get());
            before.close();
            anyNew = true;
        }
        return byWord.get(word);
    }

    /** {@return whether there is nothing but what a run has taken already} */
    boolean isTaken() {
        return !byWord.isEmpty() && !anyNew;
    }

    /** A run has taken all that there is. */
    void take() {
        anyNew = false;
    }

    @Override
    public void close() {
        byWord.values().forEach(Fetched::close);
    }
}
