package dev.morphema.standard;

import dev.morphema.format.Options;
import dev.morphema.formats.Decoding;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * How an input seems to be written, from its name and its first bytes.
 *
 * @param format its name in mappings
 * @param options those that are not as they usually are, by name, in the order of the mapping
 */
public record InputGuess(String format, Map<String, Object> options) {
    private static final Charset WINDOWS = Charset.forName("windows-1252");

    /** A sequence of bytes that is cut off may end in the middle of a character. */
    private static final int LONGEST_CHARACTER = 4;

    /** {@return the options as a reader takes them} */
    public Options forReader() {
        Options all = Options.NONE;
        for (Map.Entry<String, Object> option : options.entrySet()) {
            all = all.with(option.getKey(), option.getValue());
        }
        return all;
    }

    /**
     * {@return the format with its options as a mapping writes it}, such as {@code csv(delimiter =
     * ";")}.
     */
    public String written() {
        if (options.isEmpty()) {
            return format;
        }
        List<String> written = new ArrayList<>();
        options.forEach((name, value) -> written.add(name + " = "
                + (value instanceof Boolean ? value : "\"" + value.toString().replace("\t", "\\t") + "\"")));
        return format + "(" + String.join(", ", written) + ")";
    }

    /**
     * {@return how an input seems to be written}
     *
     * @param name of the file, whose ending counts where the bytes do not tell
     * @param head its first bytes
     * @throws IOException never in practice, as the bytes are in memory
     */
    public static InputGuess of(String name, byte[] head) throws IOException {
        Decoding.Start unmarked = Decoding.start(new ByteArrayInputStream(head), charset(head));
        String text = new String(unmarked.bytes().readAllBytes(), unmarked.charset());
        String start = text.stripLeading();
        String lower = name.toLowerCase(Locale.ROOT).replaceAll("\\.gz$", "");
        String format = format(start, lower);
        if (!format.equals("csv")) {
            return new InputGuess(format, Map.of());
        }
        Map<String, Object> options = new LinkedHashMap<>(CsvGuess.of(text));
        if (unmarked.charset().equals(WINDOWS)) {
            options.put("encoding", WINDOWS.name().toLowerCase(Locale.ROOT));
        }
        return new InputGuess("csv", options);
    }

    /** The bytes tell more than the ending, but for CSV, which may begin with anything. */
    private static String format(String start, String name) {
        if (name.endsWith(".csv")) {
            return "csv";
        }
        if (start.startsWith("<")) {
            return "xml";
        }
        if (start.startsWith("{") || start.startsWith("[")) {
            return isLines(start, name) ? "jsonl" : "json";
        }
        if (name.endsWith(".json")) {
            return "json";
        }
        if (isNamedLines(name)) {
            return "jsonl";
        }
        return name.endsWith(".xml") ? "xml" : "csv";
    }

    private static boolean isNamedLines(String name) {
        return name.endsWith(".jsonl") || name.endsWith(".ndjson");
    }

    /** Whether each line is a record of its own, rather than all of them one document. */
    private static boolean isLines(String start, String name) {
        if (isNamedLines(name)) {
            return true;
        }
        int end = start.indexOf('\n');
        String first = end < 0 ? "" : start.substring(0, end).strip();
        String rest = end < 0 ? "" : start.substring(end).stripLeading();
        return !name.endsWith(".json") && first.startsWith("{") && first.endsWith("}") && rest.startsWith("{");
    }

    /** {@return the encoding if no byte order mark decides it} */
    private static Charset charset(byte[] head) {
        for (int cut = 0; cut < Math.min(LONGEST_CHARACTER, head.length + 1); cut++) {
            if (isUtf8(head, head.length - cut)) {
                return StandardCharsets.UTF_8;
            }
        }
        return WINDOWS;
    }

    private static boolean isUtf8(byte[] bytes, int length) {
        try {
            StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes, 0, length));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }
}
