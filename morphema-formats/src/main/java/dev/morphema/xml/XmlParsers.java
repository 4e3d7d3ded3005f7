package dev.morphema.xml;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import java.io.ByteArrayInputStream;
import java.io.Reader;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLResolver;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLInputFactory2;
import org.codehaus.stax2.XMLStreamReader2;

/** Makes parsers that take documents from anyone: nothing outside of a document is fetched, and entities have limits. */
final class XmlParsers {
    /** Elements within elements; deeper documents are refused. */
    static final int MOST_DEEP = 500;

    /** References to entities of the document's own; catalogues use one or two for each entry. */
    private static final long MOST_ENTITIES = 5_000_000;

    private static final XMLInputFactory FACTORY = factory();

    private XmlParsers() {}

    /**
     * {@return a parser at the start of a document; closing it leaves the reader open}
     *
     * @param characters of the document, without a byte order mark
     */
    static XMLStreamReader2 open(Reader characters) throws XMLStreamException {
        return (XMLStreamReader2) FACTORY.createXMLStreamReader(new XmlCharacterReader(characters));
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
