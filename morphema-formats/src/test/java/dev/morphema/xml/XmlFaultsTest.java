package dev.morphema.xml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.morphema.format.Options;
import dev.morphema.format.Projection;
import dev.morphema.format.RecordReader;
import dev.morphema.formats.Pieces;
import dev.morphema.problem.Code;
import dev.morphema.problem.Problem;
import dev.morphema.problem.ProblemException;
import java.nio.charset.StandardCharsets;
import org.assertj.core.api.InstanceOfAssertFactories;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is wrong with a document is told where it is, in plain words, with a way out. */
class XmlFaultsTest {
    private static Problem fault(String document, boolean rereadable) {
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        return assertThatThrownBy(() -> {
                    try (RecordReader reader = new XmlSource()
                            .open(
                                    new Pieces(bytes, rereadable, bytes.length + 1),
                                    Projection.everything(),
                                    Options.NONE)) {
                        reader.next();
                    }
                })
                .asInstanceOf(InstanceOfAssertFactories.type(ProblemException.class))
                .actual()
                .problem();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            <d>\\n <r>a & b</r></d>         | 2:8  | a name is missing.                            | an ampersand in a text is written &amp;
            <d>\\n <r>R&D</r></d>           | 2:8  | &D is not ended by a semicolon.               | an ampersand in a text is written &amp;
            <d><r>&nbsp;</r></d>            | 1:12 | an entity is used but not declared.       | an ampersand in a text is written &amp;
            <d><r>a < b</r></d>             | 1:10 | no name of an element follows the <.          | a < in a text is written &lt;; names begin with a letter or _
            <d><1r/></d>                    | 1:5  | no name of an element follows the <.          | a < in a text is written &lt;; names begin with a letter or _
            <d><r x="1></r></d>             | 1:12 | a < stands in the value of an attribute.      | is the quote before it missing? a < in a text is written &lt;
            <d><r x=1/></d>                 | 1:9  | the value of an attribute does not begin with a quote. | values stand in quotes: name="value"
            <d><r x/></d>                   | 1:8  | an attribute has no value.                    | each attribute has a value in quotes: name="value"
            <d><r x="1"y="2"/></d>          | 1:12 | the start tag holds something that is not an attribute. | before each attribute there is a blank, and a value ends with the quote that it begins with
            <d><r x="1" x="2"/></d>         | 1:19 | an attribute is repeated in the same element. |
            <d><!-- a -- b --></d>          | 1:7  | a comment holds two hyphens.               | a comment ends with -->, and has no -- before
            <d>a]]>b</d>                    | 1:7  | ]]> stands in a text.                         | there it is written ]]&gt;
            <d>\\u0001</d>                  | 1:4  | a character is not allowed in XML.    | control characters other than tab and line ends must be left out where the document is made
            <d>&#0;</d>                     | 1:7  | a character is not allowed in XML.    | control characters other than tab and line ends must be left out where the document is made
            <d><p:r/></d>                   | 1:9  | the namespace prefix p is not declared.       | the element or one around it declares it: xmlns:p="…"
            <d><r></d>                      | 1:9  | the end tag </d> stands where </r> must be.   | is an element not closed before?
            <d><limit></d>                  | 1:13 | the end tag </d> stands where </limit> must be. | is an element not closed before?
            <limit>x                        | 1:8  | the document ends before its elements are closed. |
            <d><prolog:r/></d>              | 1:14 | the namespace prefix prolog is not declared.  | the element or one around it declares it: xmlns:prolog="…"
            <d><r prolog="1" prolog="2"/></d> | 1:29 | an attribute is repeated in the same element. |
            <d><r>x                         | 1:7  | the document ends before its elements are closed. |
            <d/><e/>                        | 1:6  | something follows the root element. |
            text                            | 1:1  | there is something other than an element at the start. | an XML document begins with <
            \\n<?xml version="1.0"?><d/>    | 2:5  | the XML declaration does not stand at the very start. | nothing may come before <?xml, no blank and no empty line
            <!-- only this -->              | 1:18 | there is no element.                          | is this the right file? It holds nothing else
            """)
    void isToldInPlainWords(String document, String place, String message, String help) {
        String text = document.replace("\\n", "\n").replace("\\u0001", "\u0001");
        Problem problem = fault(text, true);
        assertThat(problem.code()).isEqualTo(Code.BAD_XML);
        assertThat(problem.message()).isEqualTo("This is not well-formed XML here: " + message);
        assertThat(problem.help()).isEqualTo(help);
        assertThat(problem.input().line() + ":" + problem.input().column()).isEqualTo(place);
        assertThat(fault(text, false).code()).isEqualTo(Code.BAD_XML);
    }
}
