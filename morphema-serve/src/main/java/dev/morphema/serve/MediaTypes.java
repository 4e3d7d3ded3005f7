package dev.morphema.serve;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The media types of formats (RFC 9110), and which of them somebody takes. */
final class MediaTypes {
    private static final Map<String, List<String>> BY_FORMAT = Map.of(
            "json", List.of("application/json", "text/json"),
            "jsonl", List.of("application/x-ndjson", "application/jsonl"),
            "xml", List.of("application/xml", "text/xml"),
            "csv", List.of("text/csv"),
            "yaml", List.of("application/yaml", "text/yaml", "application/x-yaml"),
            "xlsx", List.of("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"));

    private static final Pattern CHARSET = Pattern.compile("(?i)charset\\s*=\\s*\"?([^\\s;\"]+)");
    private static final Pattern QUALITY = Pattern.compile("(?i);\\s*q\\s*=\\s*([01](?:\\.\\d{0,3})?)");

    private MediaTypes() {}

    /** {@return the media types of a format, the usual one first} */
    static List<String> of(String format) {
        return BY_FORMAT.getOrDefault(format, List.of("text/plain"));
    }

    /** {@return whether a message of a media type may be of a format; one without may be any} */
    static boolean fits(@Nullable String type, String format) {
        String bare = bare(type);
        // What a client sends that was not told what it sends.
        boolean unknown = bare.isEmpty()
                || bare.equals("application/octet-stream")
                || bare.equals("application/x-www-form-urlencoded");
        return unknown
                || of(format).contains(bare)
                || bare.endsWith("+" + format)
                || bare.equals("text/plain") && !format.equals("xlsx");
    }

    private static String bare(@Nullable String type) {
        return type == null ? "" : type.split(";", 2)[0].strip().toLowerCase(Locale.ROOT);
    }

    /**
     * {@return the encoding that a media type names, if it names one}
     *
     * @throws IllegalArgumentException if there is none such
     */
    static Optional<Charset> charset(@Nullable String type) {
        Matcher found = CHARSET.matcher(type == null ? "" : type);
        try {
            return found.find() ? Optional.of(Charset.forName(found.group(1))) : Optional.empty();
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            throw new IllegalArgumentException(found.group(1), e);
        }
    }

    /** {@return the one of some formats that is liked best; empty if none is taken} */
    static Optional<String> best(@Nullable String accept, List<String> formats) {
        if (accept == null || accept.isBlank()) {
            return formats.stream().findFirst();
        }
        String best = null;
        double most = 0;
        for (String format : formats) {
            double liked = quality(accept, format);
            if (liked > most) {
                most = liked;
                best = format;
            }
        }
        return Optional.ofNullable(best);
    }

    /** The most exact of the ranges that fit says how much. */
    private static double quality(String accept, String format) {
        double quality = 0;
        int exactness = -1;
        for (String range : accept.split(",")) {
            String type = bare(range);
            int exact = exactness(type, format);
            if (exact > exactness) {
                exactness = exact;
                Matcher found = QUALITY.matcher(range);
                quality = found.find() ? Double.parseDouble(found.group(1)) : 1;
            }
        }
        return quality;
    }

    private static int exactness(String range, String format) {
        List<String> names = new ArrayList<>(of(format));
        if (names.contains(range)) {
            return 2;
        }
        boolean part = range.endsWith("/*")
                && names.stream().anyMatch(name -> name.startsWith(range.substring(0, range.length() - 1)));
        return part ? 1 : range.equals("*/*") ? 0 : -1;
    }
}
