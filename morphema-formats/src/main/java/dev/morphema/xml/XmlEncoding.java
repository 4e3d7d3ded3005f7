package dev.morphema.xml;

import dev.morphema.formats.Decoding;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Finds the encoding of a document: by its byte order mark, by the mapping, by its declaration, in
 * this order (XML 1.0, section 4.3.3 and appendix F).
 */
final class XmlEncoding {
    /** So many bytes hold the declaration. */
    private static final int START = 1 << 10;

    private static final Pattern DECLARED =
            Pattern.compile("<\\?xml\\s[^>]*?\\sencoding\\s*=\\s*(?:\"([^\"]*)\"|'([^']*)')");

    /** An encoding that shows in the first bytes, since each document begins with a {@code <}. */
    private record Family(Charset charset, int... first) {
        boolean isAt(byte[] start) {
            for (int i = 0; i < first.length; i++) {
                if (i >= start.length || (start[i] & 0xFF) != first[i]) {
                    return false;
                }
            }
            return true;
        }
    }

    private static final List<Family> FAMILIES = List.of(
            new Family(Charset.forName("UTF-32BE"), 0, 0, 0, '<'),
            new Family(Charset.forName("UTF-32LE"), '<', 0, 0, 0),
            new Family(StandardCharsets.UTF_16BE, 0, '<'),
            new Family(StandardCharsets.UTF_16LE, '<', 0),
            new Family(Charset.forName("IBM037"), 0x4C, 0x6F, 0xA7, 0x94));

    private XmlEncoding() {}

    /**
     * {@return a document after its byte order mark, with its encoding}
     *
     * @param input its name, for problems
     * @param encoding the one that the mapping names, or null
     * @throws ProblemException if the document declares an encoding that is not known
     */
    static Decoding.Start start(InputStream bytes, String input, @Nullable String encoding) throws IOException {
        BufferedInputStream in = new BufferedInputStream(bytes, START);
        in.mark(START);
        byte[] start = in.readNBytes(START - 1);
        in.reset();
        Charset charset = encoding == null ? byItself(start, input) : Charset.forName(encoding);
        return Decoding.start(in, charset);
    }

    private static Charset byItself(byte[] start, String input) {
        Family family =
                FAMILIES.stream().filter(each -> each.isAt(start)).findFirst().orElse(null);
        Charset shown = family == null ? StandardCharsets.ISO_8859_1 : family.charset();
        Matcher declared = DECLARED.matcher(new String(start, shown));
        boolean wide = family != null && !family.charset().name().startsWith("IBM");
        if (wide || !declared.lookingAt()) {
            return family == null ? StandardCharsets.UTF_8 : shown;
        }
        String name = declared.group(1) == null ? declared.group(2) : declared.group(1);
        Charset charset = known(name);
        if (charset == null) {
            throw refused("The document declares an encoding that is not known.", input, name);
        }
        if (charset.name().startsWith("UTF-16") || charset.name().startsWith("UTF-32")) {
            throw refused("The document declares " + charset + ", but its bytes are in another encoding.", input, name);
        }
        return charset;
    }

    private static @Nullable Charset known(String name) {
        try {
            return Charset.forName(name);
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            return null;
        }
    }

    private static ProblemException refused(String message, String input, String declared) {
        return new ProblemException(Problem.error(Code.BAD_ENCODING, message)
                .in(InputLocation.at(input, 1, 1))
                .withValue(declared)
                .withHelp("the source can name the encoding: xml(encoding = \"UTF-8\")"));
    }
}
