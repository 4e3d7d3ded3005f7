package dev.morphema.xml;

import dev.morphema.format.Limit;
import javax.xml.stream.Location;
import javax.xml.stream.XMLStreamException;

/** A document goes beyond a limit that is not the parser's. */
final class XmlLimitException extends XMLStreamException {
    private static final long serialVersionUID = 1L;

    private final Limit limit;

    XmlLimitException(Limit limit, Location place) {
        super(limit.word(), place);
        this.limit = limit;
    }

    Limit limit() {
        return limit;
    }
}
