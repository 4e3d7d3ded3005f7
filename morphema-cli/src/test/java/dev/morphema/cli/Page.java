package dev.morphema.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A page of the documentation, with examples. A fenced block with a file name after its language is
 * that file; a block {@code console} holds commands, each with what it prints.
 */
final class Page {
    private static final Pattern BLOCK =
            Pattern.compile("^```(\\S+)(?: (\\S+))?\\n(.*?)^```", Pattern.MULTILINE | Pattern.DOTALL);

    private static final String SQLITE = "jdbc:sqlite:";

    private final Path folder;

    /** @param folder where the files of the page are laid out */
    Page(Path folder) {
        this.folder = folder;
    }

    /** {@return what the commands of a page print, which is what the page says} */
    List<String> replay(Path page) throws IOException {
        List<String> printed = new ArrayList<>();
        Matcher blocks = BLOCK.matcher(Files.readString(page));
        while (blocks.find()) {
            String text = blocks.group(3);
            if (blocks.group(2) != null) {
                Path file = folder.resolve(blocks.group(2));
                Files.createDirectories(file.getParent());
                Files.writeString(file, text);
            } else if (blocks.group(1).equals("console")) {
                String replayed = replayed(text);
                assertThat(replayed).as("%s", page).isEqualTo(text);
                printed.add(replayed);
            }
        }
        return printed;
    }

    private String replayed(String console) {
        StringBuilder out = new StringBuilder();
        for (String line : console.lines().toList()) {
            if (line.startsWith("$ morphema ")) {
                out.append(line).append('\n').append(printed(line.substring("$ morphema ".length())));
            } else if (line.startsWith("$ cat ")) {
                out.append(line).append('\n').append(content(line.substring("$ cat ".length())));
            } else if (line.startsWith("$ sqlite3 ")) {
                out.append(line).append('\n').append(rows(line.substring("$ sqlite3 ".length())));
            }
        }
        return out.toString();
    }

    private String content(String file) {
        try {
            return Files.readString(folder.resolve(file));
        } catch (IOException e) {
            throw new AssertionError(file, e);
        }
    }

    /** What the shell of SQLite does and prints: a script is run, of a query the rows are shown. */
    private String rows(String words) {
        String[] parts = words.split(" ", 2);
        StringBuilder out = new StringBuilder();
        try (Connection connection = DriverManager.getConnection(SQLITE + folder.resolve(parts[0]));
                Statement statement = connection.createStatement()) {
            if (parts[1].startsWith("< ")) {
                for (String sql :
                        Files.readString(folder.resolve(parts[1].substring(2))).split(";\n")) {
                    statement.execute(sql);
                }
                return "";
            }
            try (ResultSet rows = statement.executeQuery(parts[1].replace("\"", ""))) {
                while (rows.next()) {
                    for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
                        String cell = rows.getString(i);
                        out.append(i == 1 ? "" : "|").append(cell == null ? "" : cell);
                    }
                    out.append('\n');
                }
            }
        } catch (SQLException | IOException e) {
            throw new AssertionError(words, e);
        }
        return out.toString();
    }

    private String printed(String words) {
        List<String> located = new ArrayList<>();
        for (String word : words.split(" ")) {
            int at = word.indexOf('=') + 1;
            int database = word.indexOf(SQLITE);
            at = database < 0 ? at : database + SQLITE.length();
            boolean file = (word.contains(".") || word.endsWith("/")) && !word.startsWith("-");
            String unquoted = word.substring(at).replace("'", "");
            located.add(file ? word.substring(0, at) + folder + "/" + unquoted : word);
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ByteArrayOutputStream err = new ByteArrayOutputStream();
        Main.run(located.toArray(String[]::new), new ByteArrayInputStream(new byte[0]), out, err);
        String text = out.toString(StandardCharsets.UTF_8) + err.toString(StandardCharsets.UTF_8);
        return text.replace(folder + "/", "")
                .replace(folder + "\\", "")
                .replaceAll("took {4}[0-9.]+ s", "took    0.05 s");
    }
}
