package dev.morphema.draft;

import dev.morphema.syntax.MappingPrinter;
import dev.morphema.value.Kind;

/** How values are written in a mapping. */
final class Texts {
    private Texts() {}

    /** {@return a text in quotes, such that nothing in it means something} */
    static String quoted(String text) {
        return '"' + inTemplate(text) + '"';
    }

    /** {@return the part of a template that prints as a text} */
    static String inTemplate(String text) {
        StringBuilder out = new StringBuilder();
        for (char c : text.toCharArray()) {
            switch (c) {
                case '\\' -> out.append("\\\\");
                case '"' -> out.append("\\\"");
                case '\n' -> out.append("\\n");
                case '\r' -> out.append("\\r");
                case '\t' -> out.append("\\t");
                case '{' -> out.append("{{");
                case '}' -> out.append("}}");
                default -> out.append(c);
            }
        }
        return out.toString();
    }

    /** {@return a raw text} */
    static String single(String text) {
        return "'" + text.replace("'", "''") + "'";
    }

    /** {@return a text without templates} */
    static String raw(String text) {
        return text.matches("[\\x20-\\x7e&&[^\"\\\\{}]]*") ? '"' + text + '"' : MappingPrinter.raw(text);
    }

    /** {@return a constant} */
    static String constant(Cell cell) {
        boolean bare = cell.kind() == Kind.NUMBER || cell.kind() == Kind.BOOLEAN || cell.kind() == Kind.NULL;
        return bare ? cell.text() : quoted(cell.text());
    }
}
