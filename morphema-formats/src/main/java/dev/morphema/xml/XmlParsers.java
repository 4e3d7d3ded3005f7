package dev.morphema.xml;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import java.io.ByteArrayInputStream;
import java.io.StringReader;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLResolver;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLInputFactory2;
import org.codehaus.stax2.XMLStreamReader2;

/**
 * Makes parsers that take documents from anyone: nothing outside of a document is fetched, and
 * entities have limits.
 */
final class XmlParsers {
    /**
     * References to entities of the document's own, also those that stand for nothing; catalogues
     * use one or two for each entry.
     */
    static final long MOST_ENTITIES = 5_000_000;

    static final int DEEPEST_ENTITY = 20;

    private static final XMLInputFactory FACTORY = factory(Limits.DEFAULT);

    private XmlParsers() {}

    /**
     * {@return a parser at the start of a document; closing it leaves the reader open}
     *
     * @param characters of the document, without a byte order mark
     * @param limits beyond which it is refused
     */
    static XMLStreamReader2 open(XmlCharacterReader characters, Limits limits) throws XMLStreamException {
        XMLInputFactory factory = limits.areUsualBut(Limit.TIME) ? FACTORY : factory(limits);
        return (XMLStreamReader2) factory.createXMLStreamReader(characters);
    }

    /**
     * {@return a parser that tells where each part of a document stands in its text, which is
     * taken as it is written: neither line ends nor references become something else}
     */
    static XMLStreamReader2 asWritten(String text) throws XMLStreamException {
        XMLInputFactory factory = factory(Limits.DEFAULT);
        factory.setProperty(XMLInputFactory.IS_COALESCING, false);
        factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
        return (XMLStreamReader2) factory.createXMLStreamReader(new StringReader(text));
    }

    private static XMLInputFactory factory(Limits limits) {
        WstxInputFactory factory = new WstxInputFactory();
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        // Faults are to arise where they are, not when a text is asked for later.
        factory.setProperty(XMLInputFactory2.P_LAZY_PARSING, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, true);
        // The internal subset of a DTD counts. What is external is never fetched: it is taken as
        // empty.
        factory.setProperty(XMLInputFactory.RESOLVER, (XMLResolver)
                (publicId, systemId, base, namespace) -> new ByteArrayInputStream(new byte[0]));
        factory.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, limits.mostInt(Limit.DEPTH));
        factory.setProperty(WstxInputProperties.P_MAX_TEXT_LENGTH, limits.mostInt(Limit.TEXT));
        factory.setProperty(WstxInputProperties.P_MAX_ATTRIBUTE_SIZE, limits.mostInt(Limit.TEXT));
        factory.setProperty(WstxInputProperties.P_MAX_ATTRIBUTES_PER_ELEMENT, limits.mostInt(Limit.FIELDS));
        factory.setProperty(WstxInputProperties.P_MAX_ENTITY_COUNT, MOST_ENTITIES);
        factory.setProperty(WstxInputProperties.P_MAX_ENTITY_DEPTH, DEEPEST_ENTITY);
        return factory;
    }
}
