package dev.morphema.schemas;

import com.ctc.wstx.stax.WstxInputFactory;
import dev.morphema.problem.InputLocation;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.apache.xerces.impl.xs.XSComplexTypeDecl;
import org.apache.xerces.xs.XSAttributeDeclaration;
import org.apache.xerces.xs.XSComplexTypeDefinition;
import org.apache.xerces.xs.XSElementDeclaration;
import org.apache.xerces.xs.XSObject;
import org.codehaus.stax2.XMLStreamLocation2;
import org.codehaus.stax2.XMLStreamReader2;
import org.jspecify.annotations.Nullable;

/**
 * Where the elements and attributes of an XML Schema are declared, as its model does not tell. The
 * files are read once more when the first place is asked for: that is when there is a problem. Not
 * thread-safe.
 */
final class XsdPlaces {
    private static final String XSD = "http://www.w3.org/2001/XMLSchema";
    private static final String ELEMENT = "element";
    private static final String ATTRIBUTE = "attribute";
    private static final String NOWHERE = "";

    /**
     * A declaration.
     *
     * @param kind element or attribute
     * @param namespace that of its schema
     * @param type the name of the complex type in which it stands, that of a type without name made
     *     as Xerces does; empty for those at the top
     */
    private record Declared(String kind, String namespace, String type, String name) {}

    private final List<String> files;
    private final SchemaReader.Files opener;
    private final Map<Declared, InputLocation> places = new HashMap<>();
    /** Those that stand in a group which types share are found by their name alone. */
    private final Map<Declared, InputLocation> byName = new HashMap<>();

    private final Set<Declared> repeated = new HashSet<>();
    private boolean read;

    /** @param files all of the schema, in the order in which they were loaded */
    XsdPlaces(List<String> files, SchemaReader.Files opener) {
        this.files = files;
        this.opener = opener;
    }

    /** {@return where an element is declared, or null if that is not sure} */
    @Nullable
    InputLocation of(XSElementDeclaration element) {
        return of(ELEMENT, element.getEnclosingCTDefinition(), element);
    }

    /** {@return where an attribute is declared, or null if that is not sure} */
    @Nullable
    InputLocation of(XSAttributeDeclaration attribute) {
        return of(ATTRIBUTE, attribute.getEnclosingCTDefinition(), attribute);
    }

    private @Nullable InputLocation of(String kind, @Nullable XSComplexTypeDefinition type, XSObject declared) {
        if (!read) {
            read = true;
            files.forEach(this::read);
        }
        String around = type instanceof XSComplexTypeDecl made ? made.getTypeName() : NOWHERE;
        String namespace = type == null ? declared.getNamespace() : type.getNamespace();
        InputLocation place =
                places.get(new Declared(kind, namespace == null ? "" : namespace, around, declared.getName()));
        return place == null ? byName.get(anywhere(kind, declared.getName())) : place;
    }

    private void read(String file) {
        XMLInputFactory factory = new WstxInputFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (InputStream bytes = opener.open(file).open()) {
            XMLStreamReader2 in = (XMLStreamReader2) factory.createXMLStreamReader(file, bytes);
            Deque<String> names = new ArrayDeque<>();
            Deque<String> types = new ArrayDeque<>();
            String namespace = "";
            while (in.hasNext()) {
                int event = in.next();
                if (event == XMLStreamConstants.START_ELEMENT) {
                    String target = names.isEmpty() ? in.getAttributeValue(null, "targetNamespace") : null;
                    namespace = target == null ? namespace : target;
                    begin(in, file, namespace, names, types);
                } else if (event == XMLStreamConstants.END_ELEMENT) {
                    names.pop();
                    types.pop();
                }
            }
        } catch (IOException | XMLStreamException e) {
            // Without the place the problem is told all the same.
        }
    }

    private void begin(XMLStreamReader2 in, String file, String namespace, Deque<String> names, Deque<String> types) {
        String given = in.getAttributeValue(null, "name");
        String name = given == null ? "" : given;
        String type = types.isEmpty() ? NOWHERE : types.peek();
        String kind = in.getLocalName();
        boolean declares = kind.equals(ELEMENT) || kind.equals(ATTRIBUTE);
        if (declares && given != null && XSD.equals(in.getNamespaceURI())) {
            XMLStreamLocation2 begin = in.getLocationInfo().getStartLocation();
            note(
                    new Declared(kind, namespace, type, name),
                    InputLocation.at(file, begin.getLineNumber(), begin.getColumnNumber()));
        }
        if (kind.equals("complexType")) {
            // The name that Xerces makes has those of all that is around, from within.
            type = given == null ? "#AnonType_" + String.join("", names) : given;
        }
        names.push(name);
        types.push(type);
    }

    private static Declared anywhere(String kind, String name) {
        return new Declared(kind, NOWHERE, NOWHERE, name);
    }

    private void note(Declared declared, InputLocation place) {
        places.putIfAbsent(declared, place);
        Declared anywhere = anywhere(declared.kind(), declared.name());
        if (repeated.contains(anywhere) || byName.putIfAbsent(anywhere, place) != null) {
            repeated.add(anywhere);
            byName.remove(anywhere);
        }
    }
}
