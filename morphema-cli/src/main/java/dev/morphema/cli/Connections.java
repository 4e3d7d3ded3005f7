package dev.morphema.cli;

import dev.morphema.http.WebSource;
import dev.morphema.jdbc.Database;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.io.Reader;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Properties;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What inputs and outputs may be beside files: databases at addresses that begin with {@code
 * jdbc:}, documents at addresses of HTTP, and both by their names in a file of connections. In that
 * file <code>${NAME}</code> stands for a variable of the environment, so that no password need be
 * written down.
 */
final class Connections {
    private static final String ADDRESS = "jdbc:";
    private static final String URL = "url";
    private static final String HEADER = "header.";
    private static final Pattern VARIABLE = Pattern.compile("\\$\\{([^}]*)}");

    private final Map<String, Properties> connections;

    private Connections(Map<String, Properties> connections) {
        this.connections = connections;
    }

    /**
     * {@return the connections that are known}
     *
     * @param file of connections, or null: properties (as Java reads them) such as {@code
     *     harbour.url}, {@code harbour.user} and {@code harbour.password}
     * @param environment the variables
     * @throws ProblemException if the file cannot be read, or a variable is not set
     */
    static Connections of(@Nullable Path file, Map<String, String> environment) {
        Map<String, Properties> connections = new TreeMap<>();
        if (file != null) {
            Properties all = read(file);
            for (String key : all.stringPropertyNames()) {
                int point = key.indexOf('.');
                if (point <= 0) {
                    throw wrong("A connection has a name and a property of it, with a point between.", key, file);
                }
                connections
                        .computeIfAbsent(key.substring(0, point), n -> new Properties())
                        .setProperty(key.substring(point + 1), expanded(all.getProperty(key), key, file, environment));
            }
            connections.forEach((name, properties) -> {
                if (properties.getProperty(URL) == null) {
                    throw wrong("The connection " + name + " has no address.", name + "." + URL, file);
                }
            });
        }
        return new Connections(connections);
    }

    private static Properties read(Path file) {
        Properties all = new Properties();
        try (Reader reader = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
            all.load(reader);
            return all;
        } catch (IOException | IllegalArgumentException e) {
            throw new ProblemException(
                    Problem.error(Code.FILE_NOT_FOUND, "The connections cannot be read.")
                            .withValue(file.toString()),
                    e);
        }
    }

    private static String expanded(String text, String key, Path file, Map<String, String> environment) {
        Matcher variables = VARIABLE.matcher(text);
        return variables.replaceAll(found -> {
            String value = environment.get(found.group(1));
            if (value == null) {
                throw wrong("The environment has no variable " + found.group(1) + ".", key, file);
            }
            return Matcher.quoteReplacement(value);
        });
    }

    private static ProblemException wrong(String message, String key, Path file) {
        return new ProblemException(
                Problem.error(Code.USAGE, message).withValue(key).withHelp("this is a key of " + file));
    }

    /** {@return the database that a word of the command line means; empty if it means none} */
    Optional<Database> database(String word) {
        if (word.startsWith(ADDRESS)) {
            return Optional.of(Database.at(shown(word), word, new Properties()));
        }
        Properties found = connections.get(word);
        if (found == null || isWeb(found.getProperty(URL))) {
            return Optional.empty();
        }
        Properties properties = new Properties();
        properties.putAll(found);
        String url = Objects.requireNonNull((String) properties.remove(URL));
        return Optional.of(Database.at(word, url, properties));
    }

    /** {@return the address of HTTP that a word of the command line means, if it means one} */
    Optional<WebSource> web(String word) {
        if (isWeb(word)) {
            return Optional.of(WebSource.at(address(word, word)));
        }
        Properties found = connections.get(word);
        if (found == null || !isWeb(found.getProperty(URL))) {
            return Optional.empty();
        }
        WebSource source = WebSource.at(address(found.getProperty(URL), word));
        for (String key : found.stringPropertyNames()) {
            String value = found.getProperty(key);
            if (key.startsWith(HEADER)) {
                source = source.header(key.substring(HEADER.length()), value);
            } else if (key.equals("timeout")) {
                source = source.timeout(Duration.ofSeconds(count(value, word, key)));
            } else if (key.equals("attempts")) {
                source = source.attempts(count(value, word, key));
            } else if (key.equals("next")) {
                source = source.nextPageAt(value.split("\\."));
            } else if (!key.equals(URL)) {
                throw wrong(word, key, "There is no such property of an address.");
            }
        }
        return Optional.of(source);
    }

    /** {@return whether a word is an address, and so no file} */
    static boolean isAddress(String word) {
        return word.startsWith(ADDRESS) || isWeb(word);
    }

    private static boolean isWeb(String text) {
        return text.startsWith("http://") || text.startsWith("https://");
    }

    private static URI address(String text, String word) {
        try {
            URI address = URI.create(text);
            if (address.getHost() != null) {
                return address;
            }
        } catch (IllegalArgumentException e) {
            // told below
        }
        throw new ProblemException(Problem.error(Code.USAGE, "This is no address.")
                .withValue(isWeb(word) ? shown(word) : word + "." + URL));
    }

    private static int count(String text, String word, String key) {
        if (text.matches("[1-9]\\d{0,5}")) {
            return Integer.parseInt(text);
        }
        throw wrong(word, key, "This is no number from 1 on.");
    }

    private static ProblemException wrong(String word, String key, String message) {
        return new ProblemException(Problem.error(Code.USAGE, message)
                .withValue(word + "." + key)
                .withHelp("an address has url, header.NAME, timeout (in seconds), attempts and next"));
    }

    /** {@return what a word means as messages show it}, without what may be a password */
    static String shown(String word) {
        if (!isAddress(word)) {
            return word;
        }
        return word.replaceFirst("[?;].*", "").replaceFirst("//[^/@]*@", "//");
    }
}
