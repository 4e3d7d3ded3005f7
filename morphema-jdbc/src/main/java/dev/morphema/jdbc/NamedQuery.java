package dev.morphema.jdbc;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * A query with named parameters, {@code :name}, as JDBC takes it. What stands in texts, quoted
 * names and comments is none, nor is a cast {@code ::type}. Immutable.
 */
final class NamedQuery {
    private final String sql;
    private final List<String> names;

    private NamedQuery(String sql, List<String> names) {
        this.sql = sql;
        this.names = List.copyOf(names);
    }

    /** {@return the query with a question mark for each parameter} */
    String sql() {
        return sql;
    }

    /** {@return the name of each question mark's parameter, in order} */
    List<String> names() {
        return names;
    }

    Set<String> parameters() {
        return new LinkedHashSet<>(names);
    }

    static NamedQuery parse(String text) {
        StringBuilder sql = new StringBuilder();
        List<String> names = new ArrayList<>();
        int at = 0;
        while (at < text.length()) {
            int end = endOfQuoted(text, at);
            if (end > at) {
                sql.append(text, at, end);
            } else if (text.startsWith("::", at)) {
                end = at + 2;
                sql.append("::");
            } else if (text.charAt(at) == ':' && at + 1 < text.length() && isNameStart(text.charAt(at + 1))) {
                end = at + 1;
                while (end < text.length() && Character.isJavaIdentifierPart(text.charAt(end))) {
                    end++;
                }
                names.add(text.substring(at + 1, end));
                sql.append('?');
            } else {
                end = at + 1;
                sql.append(text.charAt(at));
            }
            at = end;
        }
        return new NamedQuery(sql.toString(), names);
    }

    private static boolean isNameStart(char c) {
        return Character.isLetter(c) || c == '_';
    }

    /** {@return where the text, name or comment that begins at a place ends; else the place} */
    private static int endOfQuoted(String text, int at) {
        char c = text.charAt(at);
        if (c == '\'' || c == '"' || c == '`') {
            // A doubled quote ends one part and begins the next.
            return behind(text, String.valueOf(c), at + 1);
        }
        if (text.startsWith("--", at)) {
            return behind(text, "\n", at);
        }
        return text.startsWith("/*", at) ? behind(text, "*/", at + 2) : at;
    }

    private static int behind(String text, String end, int from) {
        int found = text.indexOf(end, from);
        return found < 0 ? text.length() : found + end.length();
    }
}
