package dev.morphema.xml;

import dev.morphema.format.Limit;
import dev.morphema.format.Limits;
import java.io.Reader;
import java.util.HashSet;
import java.util.Set;
import javax.xml.XMLConstants;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.LocationInfo;
import org.codehaus.stax2.XMLStreamReader2;
import org.jspecify.annotations.Nullable;

/**
 * What the parser of a library finds, and what it lets pass although the namespaces of XML 1.0 do
 * not.
 */
final class XmlLibraryTokens implements XmlTokens {
    /** An element counts as so many characters, about what it takes of the memory. */
    private static final int ELEMENT = 32;

    private final XmlCharacterReader characters;
    private final XMLStreamReader2 xml;
    private final long most;
    private final long mostNames;
    private final Set<String> names = new HashSet<>();
    /**
     * Whether there may be entities; then it is counted what parts there are, with what entities
     * stand for.
     */
    private boolean counts;

    private long given;

    /**
     * @param characters of the document, without a byte order mark; they are not closed
     * @param limits beyond which the document is refused
     */
    XmlLibraryTokens(Reader characters, Limits limits) throws XMLStreamException {
        this.characters = new XmlCharacterReader(characters);
        this.xml = XmlParsers.open(this.characters, limits);
        this.most = limits.most(Limit.ENTITIES);
        this.mostNames = limits.most(Limit.NAMES);
    }

    @Override
    public Token next() throws XMLStreamException {
        try {
            return token();
        } catch (IllegalArgumentException
                | IllegalStateException
                | IndexOutOfBoundsException
                | NullPointerException e) {
            // The parser trips over some documents that are not well-formed.
            throw new XMLStreamException("Unreadable", xml.getLocation(), e);
        }
    }

    private Token token() throws XMLStreamException {
        while (xml.hasNext()) {
            switch (xml.next()) {
                case XMLStreamConstants.DTD:
                    counts = true;
                    break;
                case XMLStreamConstants.PROCESSING_INSTRUCTION:
                    meet(xml.getPITarget());
                    break;
                case XMLStreamConstants.START_ELEMENT:
                    characters.endProlog();
                    count();
                    checkNamespaces();
                    return Token.START;
                case XMLStreamConstants.END_ELEMENT:
                    return Token.END;
                case XMLStreamConstants.CHARACTERS:
                case XMLStreamConstants.CDATA:
                case XMLStreamConstants.SPACE:
                    count();
                    return Token.TEXT;
                case XMLStreamConstants.ENTITY_REFERENCE:
                    throw fault("Undeclared general entity");
                default:
                // says nothing
            }
        }
        return Token.DONE;
    }

    private void count() throws XMLStreamException {
        if (!counts) {
            return;
        }
        if (xml.isStartElement()) {
            given += ELEMENT + xml.getLocalName().length();
            for (int i = 0; i < xml.getAttributeCount(); i++) {
                given += xml.getAttributeValue(i).length();
            }
        } else {
            given += xml.getTextLength();
        }
        if (given - most > characters.count()) {
            throw new XmlLimitException(Limit.ENTITIES, xml.getLocation());
        }
    }

    /**
     * The parser looks names up in a table that is slow if their hashes are the same, so there may
     * not be very many.
     */
    private void meet(@Nullable String name) throws XMLStreamException {
        if (name != null && names.add(name) && names.size() > mostNames) {
            throw new XmlLimitException(Limit.NAMES, xml.getLocation());
        }
    }

    /**
     * Namespaces in XML 1.0: names have at most one colon, within; prefixes are declared, and not
     * as nothing.
     */
    private void checkNamespaces() throws XMLStreamException {
        checkName(xml.getPrefix(), xml.getLocalName());
        for (int i = 0; i < xml.getAttributeCount(); i++) {
            checkName(xml.getAttributePrefix(i), xml.getAttributeLocalName(i));
        }
        for (int i = 0; i < xml.getNamespaceCount(); i++) {
            checkDeclaration(xml.getNamespacePrefix(i), xml.getNamespaceURI(i));
        }
    }

    private void checkName(@Nullable String prefix, String local) throws XMLStreamException {
        meet(local);
        meet(prefix);
        if (local.isEmpty() || local.indexOf(':') >= 0 || "xmlns".equals(prefix)) {
            throw fault("Malformed qualified name");
        }
    }

    private void checkDeclaration(@Nullable String prefix, @Nullable String uri) throws XMLStreamException {
        boolean isDefault = prefix == null || prefix.isEmpty();
        boolean nothing = uri == null || uri.isEmpty();
        if (!isDefault && nothing || "xmlns".equals(prefix)) {
            throw fault("Malformed namespace declaration");
        }
        if (XMLConstants.XMLNS_ATTRIBUTE_NS_URI.equals(uri)
                || XMLConstants.XML_NS_URI.equals(uri) != "xml".equals(prefix)) {
            throw fault("Malformed namespace declaration");
        }
    }

    private XMLStreamException fault(String message) {
        return new XMLStreamException(message, xml.getLocation());
    }

    @Override
    public String local() {
        return xml.getLocalName();
    }

    @Override
    public @Nullable String namespace() {
        return xml.getNamespaceURI();
    }

    @Override
    public int depth() {
        return xml.getDepth();
    }

    @Override
    public int attributes() {
        return xml.getAttributeCount();
    }

    @Override
    public String attributeLocal(int index) {
        return xml.getAttributeLocalName(index);
    }

    @Override
    public @Nullable String attributeNamespace(int index) {
        return xml.getAttributeNamespace(index);
    }

    @Override
    public String attribute(int index) {
        return xml.getAttributeValue(index);
    }

    @Override
    public int mostText() {
        return xml.getTextLength();
    }

    @Override
    public int copyText(char[] into, int at) {
        int length = xml.getTextLength();
        System.arraycopy(xml.getTextCharacters(), xml.getTextStart(), into, at, length);
        return at + length;
    }

    /**
     * A text takes as many characters in the document as it has, unless there are sections or
     * references in it.
     */
    @Override
    public boolean isMarked() throws XMLStreamException {
        LocationInfo place = xml.getLocationInfo();
        return place.getEndingCharOffset() - place.getStartingCharOffset() != xml.getTextLength();
    }

    @Override
    public void skip() throws XMLStreamException {
        for (int open = 1; open > 0; ) {
            Token token = next();
            open += token == Token.START ? 1 : token == Token.END ? -1 : 0;
        }
    }

    @Override
    public int line() {
        return xml.getLocation().getLineNumber();
    }

    @Override
    public int column() {
        return xml.getLocation().getColumnNumber();
    }

    @Override
    public void close() throws XMLStreamException {
        xml.close();
    }
}
