package dev.morphema.schemas;

import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import org.apache.xerces.dom.DOMInputImpl;
import org.apache.xerces.impl.xs.XMLSchemaLoader;
import org.apache.xerces.jaxp.validation.XMLSchemaFactory;
import org.apache.xerces.xs.XSModel;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.DOMError;
import org.w3c.dom.DOMErrorHandler;
import org.w3c.dom.DOMLocator;
import org.w3c.dom.ls.LSInput;
import org.w3c.dom.ls.LSResourceResolver;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;

/** Loads the files of an XML Schema through those who know where they are. */
final class XsdLoader {
    /**
     * What Xerces takes for the folder of the schema; deep enough for any {@code ../} to be within.
     */
    private static final String FOLDER = "schema:/a/b/c/d/e/f/g/h/";

    private static final String XML_NAMESPACE = "http://www.w3.org/XML/1998/namespace";

    private final SchemaReader.Files files;
    private final List<Problem> problems = new ArrayList<>();
    private final Set<String> loaded = new LinkedHashSet<>();

    XsdLoader(SchemaReader.Files files) {
        this.files = files;
    }

    /**
     * {@return all components of a schema and of those that it includes and imports}
     *
     * @throws IOException if the schema itself cannot be read
     * @throws ProblemException if something in it is wrong
     */
    XSModel load(String file) throws IOException {
        XMLSchemaLoader loader = new XMLSchemaLoader();
        loader.setParameter("resource-resolver", (LSResourceResolver) this::resolve);
        loader.setParameter("error-handler", (DOMErrorHandler) error -> {
            if (error.getSeverity() != DOMError.SEVERITY_WARNING) {
                DOMLocator place = error.getLocation();
                note(error.getMessage(), place.getUri(), file, place.getLineNumber(), place.getColumnNumber());
            }
            return true;
        });
        return sound(loader.load(input(file)), file);
    }

    /**
     * {@return a schema by which documents are validated}, as {@link #load} reads it
     *
     * @throws IOException if the schema itself cannot be read
     * @throws ProblemException if something in it is wrong
     */
    Schema schema(String file) throws IOException {
        XMLSchemaFactory factory = new XMLSchemaFactory();
        factory.setResourceResolver(this::resolve);
        factory.setErrorHandler(new Noting(file));
        try (InputStream bytes = files.open(file).open()) {
            return sound(factory.newSchema(new StreamSource(bytes, FOLDER + file)), file);
        } catch (SAXException e) {
            return sound(null, file);
        }
    }

    /** {@return what was loaded, if nothing in it is wrong} */
    private <T> T sound(@Nullable T loaded, String file) {
        if (loaded == null || !problems.isEmpty()) {
            throw new ProblemException(
                    problems.isEmpty() ? SchemaDocuments.bad(file, "This is no XML Schema.") : problems.get(0));
        }
        return loaded;
    }

    /** Notes what Xerces says of a schema. */
    private final class Noting implements ErrorHandler {
        private final String file;

        Noting(String file) {
            this.file = file;
        }

        @Override
        public void warning(SAXParseException problem) {
            // A schema with warnings can be used.
        }

        @Override
        public void error(SAXParseException problem) {
            note(problem.getMessage(), problem.getSystemId(), file, problem.getLineNumber(), problem.getColumnNumber());
        }

        @Override
        public void fatalError(SAXParseException problem) {
            error(problem);
        }
    }

    /** {@return where the declarations stand that were loaded} */
    XsdPlaces places() {
        return new XsdPlaces(List.copyOf(loaded), files);
    }

    /** {@return what finds the files that schemas name} */
    LSResourceResolver resolver() {
        return this::resolve;
    }

    private LSInput input(String file) throws IOException {
        InputStream bytes = files.open(file).open();
        loaded.add(file);
        return new DOMInputImpl(null, FOLDER + file, FOLDER + file, bytes, null);
    }

    private @Nullable LSInput resolve(
            String type,
            @Nullable String namespace,
            @Nullable String publicId,
            @Nullable String systemId,
            @Nullable String base) {
        if (XML_NAMESPACE.equals(namespace) && (systemId == null || systemId.contains("://"))) {
            InputStream own = Objects.requireNonNull(XsdLoader.class.getResourceAsStream("xml-attributes.xsd"));
            return new DOMInputImpl(null, FOLDER + "xml-attributes.xsd", FOLDER, own, null);
        }
        if (systemId == null) {
            return null;
        }
        String from = base != null && base.startsWith(FOLDER) ? base.substring(FOLDER.length()) : "";
        if (systemId.contains("://")) {
            problems.add(SchemaDocuments.bad(
                            from, "The schema imports " + systemId + ", and nothing is fetched from a network.")
                    .withHelp("keep a copy beside the schema and import it by its file"));
            return empty(namespace);
        }
        String file = SchemaPath.relative(from, systemId);
        try {
            return input(file);
        } catch (IOException e) {
            problems.add(SchemaDocuments.bad(from, "The schema names a file that cannot be read: " + file + "."));
            return empty(namespace);
        }
    }

    /** Xerces is not to look for it itself. */
    private static LSInput empty(@Nullable String namespace) {
        String target = namespace == null ? "" : " targetNamespace=\"" + namespace + "\"";
        return new DOMInputImpl(
                null,
                FOLDER + "nothing.xsd",
                FOLDER,
                "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\"" + target + "/>",
                null);
    }

    private void note(String message, @Nullable String uri, String file, int line, int column) {
        String where = uri != null && uri.startsWith(FOLDER) ? uri.substring(FOLDER.length()) : file;
        problems.add(Problem.error(Code.BAD_SCHEMA, "The schema is wrong: " + sentence(message))
                .in(InputLocation.at(where, Math.max(0, line), Math.max(0, column))));
    }

    /** The first words of Xerces name the rule of its specification. */
    static String sentence(String message) {
        int colon = message.indexOf(": ");
        return colon > 0 && colon < 40 && !message.substring(0, colon).contains(" ")
                ? message.substring(colon + 2)
                : message;
    }
}
