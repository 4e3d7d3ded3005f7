package dev.morphema.xml;

import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLStreamReader2;
import org.jspecify.annotations.Nullable;

/** What the parser of a library finds. */
final class XmlLibraryTokens implements XmlTokens {
    private final XMLStreamReader2 xml;

    XmlLibraryTokens(XMLStreamReader2 xml) {
        this.xml = xml;
    }

    @Override
    public Token next() throws XMLStreamException {
        while (xml.hasNext()) {
            switch (xml.next()) {
                case XMLStreamConstants.START_ELEMENT:
                    return Token.START;
                case XMLStreamConstants.END_ELEMENT:
                    return Token.END;
                case XMLStreamConstants.CHARACTERS:
                case XMLStreamConstants.CDATA:
                case XMLStreamConstants.SPACE:
                    return Token.TEXT;
                case XMLStreamConstants.ENTITY_REFERENCE:
                    throw new XMLStreamException("Undeclared general entity", xml.getLocation());
                default:
                // says nothing
            }
        }
        return Token.DONE;
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

    @Override
    public void skip() throws XMLStreamException {
        xml.skipElement();
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
