package dev.morphema.samples;

import dev.morphema.Mapping;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javax.xml.stream.XMLStreamException;

/** Compares documents by what they mean. */
public final class Documents {
    private Documents() {}

    /**
     * {@return the places at which a document of a target is not the expected one}: CSV and JSON by
     * their values, XML by its elements, attributes and texts.
     *
     * @param expected the file with the expected document
     * @param actual the document
     * @throws IOException if the expected document cannot be read
     * @throws ProblemException if one of them is not well-formed
     */
    public static List<Difference> differences(Mapping mapping, String target, Path expected, byte[] actual)
            throws IOException {
        byte[] wanted = Files.readAllBytes(expected);
        if (!mapping.formatOf(target).equals("xml")) {
            return ValueDifferences.between(
                    mapping.readBack(target, expected.toString(), wanted), mapping.readBack(target, target, actual));
        }
        try {
            return XmlDifferences.between(XmlTree.parse(wanted), XmlTree.parse(actual));
        } catch (XMLStreamException e) {
            throw new ProblemException(
                    Problem.error(Code.BAD_XML, "The expected output " + expected + " is not well-formed."), e);
        }
    }
}
