package dev.morphema.schemas;

import dev.morphema.format.Input;
import dev.morphema.problem.Code;
import dev.morphema.problem.InputLocation;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import dev.morphema.shape.SchemaReader;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.transform.sax.SAXSource;
import javax.xml.validation.Schema;
import javax.xml.validation.Validator;
import org.apache.xerces.jaxp.SAXParserFactoryImpl;
import org.apache.xerces.util.SecurityManager;
import org.xml.sax.ErrorHandler;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;
import org.xml.sax.XMLReader;

/** Validates XML as it is read. Nothing outside of the document is fetched. Not thread-safe. */
final class XmlValidation implements ErrorHandler {
    private static final String SECURITY = "http://apache.org/xml/properties/security-manager";

    private final SchemaReader.Files files;
    private final List<Problem> problems;
    private final int most;
    private final ElementPlaces places = new ElementPlaces();
    private String document = "";

    XmlValidation(SchemaReader.Files files, List<Problem> problems, int most) {
        this.files = files;
        this.problems = problems;
        this.most = most;
    }

    /** Ends the reading of a document in which enough is wrong. */
    private static final class EnoughException extends SAXException {
        private static final long serialVersionUID = 1L;
    }

    void validate(Input input, SchemaPath path) throws IOException {
        document = input.name();
        XsdLoader loader = new XsdLoader(files);
        Schema schema = loader.schema(path.file());
        try (InputStream bytes = input.open()) {
            places.setParent(reader());
            Validator validator = schema.newValidator();
            validator.setErrorHandler(this);
            validator.setResourceResolver(loader.resolver());
            validator.validate(new SAXSource(places, new InputSource(bytes)));
        } catch (EnoughException e) {
            // The caller knows how many there may be.
        } catch (SAXParseException e) {
            add(e, Code.BAD_XML);
        } catch (SAXException e) {
            throw new ProblemException(Problem.error(Code.BAD_SCHEMA, String.valueOf(e.getMessage())), e);
        }
    }

    private static XMLReader reader() throws SAXException {
        try {
            SAXParserFactoryImpl parsers = new SAXParserFactoryImpl();
            parsers.setNamespaceAware(true);
            XMLReader reader = parsers.newSAXParser().getXMLReader();
            reader.setFeature("http://xml.org/sax/features/external-general-entities", false);
            reader.setFeature("http://xml.org/sax/features/external-parameter-entities", false);
            reader.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
            reader.setProperty(SECURITY, new SecurityManager());
            return reader;
        } catch (ParserConfigurationException e) {
            throw new SAXException(e);
        }
    }

    @Override
    public void warning(SAXParseException problem) {
        // Warnings of Xerces are about schemas, which were looked at.
    }

    @Override
    public void error(SAXParseException problem) throws SAXException {
        // Of two things that Xerces says of one place, the first tells which rule, the second the
        // same again.
        boolean again = !problems.isEmpty()
                && problem.getMessage().startsWith("cvc-attribute.3")
                && problems.get(problems.size() - 1).input() != null
                && problems.get(problems.size() - 1).input().line() == problem.getLineNumber();
        if (!again && !problem.getMessage().startsWith("cvc-type.3.1.3")) {
            add(problem, Code.INVALID);
        }
        if (problems.size() >= most) {
            throw new EnoughException();
        }
    }

    @Override
    public void fatalError(SAXParseException problem) throws SAXException {
        throw problem;
    }

    private void add(SAXParseException problem, Code code) {
        problems.add(Problem.error(code, XsdLoader.sentence(problem.getMessage()))
                .in(new InputLocation(
                        document,
                        0,
                        Math.max(0, problem.getLineNumber()),
                        Math.max(0, problem.getColumnNumber()),
                        places.path(),
                        null)));
    }
}
