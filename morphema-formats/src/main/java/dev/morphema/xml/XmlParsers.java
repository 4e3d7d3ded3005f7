package dev.morphema.xml;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import com.fasterxml.aalto.stax.InputFactoryImpl;
import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLResolver;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLInputFactory2;
import org.codehaus.stax2.XMLStreamReader2;
import org.jspecify.annotations.Nullable;

/** Makes parsers that take documents from anyone: nothing outside of a document is fetched, and entities have limits. */
final class XmlParsers {
    /** Elements within elements; deeper documents are refused. */
    static final int MOST_DEEP = 500;

    /** References to entities of the document's own; catalogues use one or two for each entry. */
    private static final long MOST_ENTITIES = 5_000_000;

    /** So much of a document is looked at to choose the parser. */
    private static final int START = 1 << 13;

    private static final Pattern ENCODING = Pattern.compile("encoding\\s*=\\s*[\"']([^\"']+)");

    /** Knows all that XML 1.0 has. */
    private static final XMLInputFactory FACTORY = factory();

    /** Takes half the time, and knows no entities of a document's own. */
    private static final XMLInputFactory FASTER = faster();

    private XmlParsers() {}

    /**
     * {@return a parser at the start of a document; closing it leaves the stream open}
     *
     * @param encoding in place of the one that the document declares, or null
     */
    static XMLStreamReader2 open(InputStream bytes, @Nullable String encoding) throws XMLStreamException, IOException {
        if (encoding != null) {
            return careful(bytes, encoding);
        }
        BufferedInputStream start = new BufferedInputStream(bytes, START);
        start.mark(START);
        byte[] first = start.readNBytes(START - 1);
        start.reset();
        return isPlain(first) ? (XMLStreamReader2) FASTER.createXMLStreamReader(start) : careful(start, null);
    }

    /** {@return a parser that knows all of XML 1.0 and says what is wrong with a document} */
    static XMLStreamReader2 careful(InputStream bytes, @Nullable String encoding) throws XMLStreamException {
        return (XMLStreamReader2)
                (encoding == null
                        ? FACTORY.createXMLStreamReader(bytes)
                        : FACTORY.createXMLStreamReader(new InputStreamReader(bytes, Charset.forName(encoding))));
    }

    /**
     * Whether a document has no DTD, and is in ASCII or UTF-8: then the faster parser reads it. The start must tell; where
     * it ends before the root element begins, it does not.
     */
    private static boolean isPlain(byte[] start) {
        String text = new String(start, StandardCharsets.ISO_8859_1);
        int at = text.startsWith("\u00EF\u00BB\u00BF") ? 3 : 0;
        while (at >= 0 && at < text.length()) {
            if (text.startsWith("<?", at)) {
                int end = text.indexOf("?>", at);
                if (text.startsWith("<?xml", at) && end > 0 && !isUtf8(text.substring(at, end))) {
                    return false;
                }
                at = end < 0 ? -1 : end + 2;
            } else if (text.startsWith("<!--", at)) {
                int end = text.indexOf("-->", at);
                at = end < 0 ? -1 : end + 3;
            } else if (text.charAt(at) <= ' ') {
                at++;
            } else {
                return text.charAt(at) == '<' && at + 1 < text.length() && text.charAt(at + 1) != '!';
            }
        }
        return false;
    }

    private static boolean isUtf8(String declaration) {
        Matcher encoding = ENCODING.matcher(declaration);
        return declaration.contains("1.0")
                && (!encoding.find() || encoding.group(1).equalsIgnoreCase("UTF-8"));
    }

    private static XMLInputFactory faster() {
        InputFactoryImpl factory = new InputFactoryImpl();
        factory.setProperty(XMLInputFactory2.P_LAZY_PARSING, false);
        return factory;
    }

    private static XMLInputFactory factory() {
        WstxInputFactory factory = new WstxInputFactory();
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        // Faults are to arise where they are, not when a text is asked for later.
        factory.setProperty(XMLInputFactory2.P_LAZY_PARSING, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, true);
        // The internal subset of a DTD counts. What is external is never fetched: it is taken as empty.
        factory.setProperty(XMLInputFactory.RESOLVER, (XMLResolver)
                (publicId, systemId, base, namespace) -> new ByteArrayInputStream(new byte[0]));
        factory.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, MOST_DEEP);
        factory.setProperty(WstxInputProperties.P_MAX_ENTITY_COUNT, MOST_ENTITIES);
        factory.setProperty(WstxInputProperties.P_MAX_ENTITY_DEPTH, 20);
        return factory;
    }
}
