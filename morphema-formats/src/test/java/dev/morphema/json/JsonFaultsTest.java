package dev.morphema.json;

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

/**
 * What is wrong with a document is told where it is, in plain words, with a way out; by whichever
 * way it is read.
 */
class JsonFaultsTest {
    private static Problem fault(String document, boolean rereadable) {
        byte[] bytes = document.getBytes(StandardCharsets.UTF_8);
        return assertThatThrownBy(() -> {
                    try (RecordReader reader = JsonSource.document()
                            .open(
                                    new Pieces(bytes, rereadable, bytes.length + 1),
                                    Projection.everything(),
                                    Options.NONE)) {
                        while (reader.next() != null) {
                            // goes on to the fault
                        }
                    }
                })
                .asInstanceOf(InstanceOfAssertFactories.type(ProblemException.class))
                .actual()
                .problem();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            {"a":1#"b":2}      | 2:1  | between two fields a comma is missing.            |
            [1 2]              | 1:4  | between two items of a list a comma is missing.   |
            {"a":1,}           | 1:8  | a field's name in double quotes is expected.      | is there a comma before the closing bracket?
            {'a':1}            | 1:2  | a field's name in double quotes is expected.      | names stand in double quotes, not in single ones and not without
            {"a" 1}            | 1:6  | after a field's name a colon is missing.          |
            {"a":}             | 1:6  | a value is expected.                              | what has no value is null
            [1,,2]             | 1:4  | a value is expected.                              | is there one comma too many, or no value before it? What has none is null
            [1,]               | 1:4  | a value is expected.                              | is there a comma before the closing bracket?
            {"a":'x'}          | 1:6  | a value is expected.                              | a text stands in double quotes; the words of JSON are true, false and null
            {"a":.5}           | 1:6  | a value is expected.                              | numbers are written like -12.5 or 1e3; any other form stands in double quotes
            {"a":01}           | 1:7  | a number has a leading zero.             | numbers are written like -12.5 or 1e3; any other form stands in double quotes
            {"a":1.}           | 1:7  | this is not a JSON number.               | numbers are written like -12.5 or 1e3; any other form stands in double quotes
            {"a":+1}           | 1:7  | this is not a JSON number.               | numbers are written like -12.5 or 1e3; any other form stands in double quotes
            {"a":NaN}          | 1:9  | this is not a JSON number.               | numbers are written like -12.5 or 1e3; any other form stands in double quotes
            {"a":True}         | 1:6  | this word has no meaning.                         | a text stands in double quotes; the words of JSON are true, false and null
            {"a":comment}      | 1:6  | this word has no meaning.                         | a text stands in double quotes; the words of JSON are true, false and null
            {"a":"c:\\dir"}    | 1:10 | \\d stands for no character.                      | a backslash in a text is written \\\\, and paths on Windows may have / as well
            {"a":"\\u12"}      | 1:11 | four hexadecimal digits must follow \\u.          | a backslash in a text is written \\\\
            {"a":"x#y"}        | 1:8  | a text holds a control character, such as a line break, that is not escaped. | a line break in a text is written \\n
            {"a":1, // one#}   | 1:9  | JSON has no comments.                             | leave it out, or make a field of it
            {"a":1             | 1:7  | the input ends in the middle of a value.          |
            {"a":[1}           | 1:8  | a closing bracket does not match its opening bracket. |
            ]                  | 1:1  | a closing bracket has no opening bracket.            | is there one closing bracket too many?
            """)
    void isToldInPlainWords(String document, String place, String message, String help) {
        String text = document.replace('#', '\n');
        for (boolean rereadable : new boolean[] {true, false}) {
            Problem problem = fault(text, rereadable);
            assertThat(problem.code()).isEqualTo(Code.BAD_JSON);
            assertThat(problem.message()).isEqualTo("This is not well-formed JSON here: " + message);
            assertThat(problem.help()).isEqualTo(help);
        }
        Problem problem = fault(text, true);
        assertThat(problem.input().line() + ":" + problem.input().column()).isEqualTo(place);
    }
}
