package dev.morphema.xml;

import dev.morphema.formats.FieldOrder;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.RecordBuilder;
import dev.morphema.value.Value;
import java.io.IOException;
import javax.xml.stream.XMLStreamException;
import org.jspecify.annotations.Nullable;

/** The parts of an XML document (XML 1.0 with namespaces), one after the other. Not thread-safe. */
interface XmlTokens {
    /** What a part is; comments and processing instructions are none. */
    enum Token {
        /** An element begins. */
        START,
        /** An element ends. */
        END,
        /** A piece of the text of an element; pieces may follow one another. */
        TEXT,
        /** The document has ended. */
        DONE
    }

    /** {@return the next part} */
    Token next() throws XMLStreamException, IOException;

    /**
     * {@return the name of the element that begins, without prefix; mostly the same object when it
     * comes again}
     */
    String local();

    /** {@return the namespace of that name, null or empty if it is in none} */
    @Nullable
    String namespace();

    /** {@return how many elements are open, the one that begins included} */
    int depth();

    /**
     * {@return how many attributes the element has that begins, without declarations of namespaces}
     */
    int attributes();

    /** {@return the name of an attribute, without prefix} */
    String attributeLocal(int index);

    /** {@return the namespace of that name, null or empty if it is in none} */
    @Nullable
    String attributeNamespace(int index);

    /** {@return the value of an attribute} */
    String attribute(int index);

    /** An element is looked for that becomes a record; the token at hand is not needed any more. */
    default void beginRecord() throws IOException {
        // nothing is to be done for it
    }

    /** Adds the value of an attribute to a row as its bytes; says whether that could be done. */
    default boolean attributeBytes(int index, FieldBytes.Row row, int slot) {
        return false;
    }

    /** {@return how many characters the text at hand has at most} */
    int mostText();

    /** Copies the text at hand; gives where the copy ends. */
    int copyText(char[] into, int at);

    /**
     * {@return whether the text at hand holds references or is a CDATA section, so that its white
     * space is meant}
     */
    boolean isMarked() throws XMLStreamException;

    /**
     * If the element that begins has no attributes and holds nothing but a text of common form,
     * adds that to a row as its bytes and goes to the element's end.
     *
     * @return whether it did; if not, nothing is changed
     */
    default boolean leaf(FieldBytes.Row row, int slot) {
        return false;
    }

    /**
     * Takes the next element as a whole if it stands as one stood before.
     *
     * @param around the place whose element it is
     * @param number which record it is
     * @return its value, or null if it is to be read part by part
     */
    default @Nullable Value known(ElementPlace around, long number) throws IOException {
        return null;
    }

    /**
     * Takes child elements of the element at hand, from the next one on, that stand as they stood
     * before; perhaps none.
     */
    default void known(ElementPlace place, RecordBuilder record) {
        // of no use where each is taken by itself
    }

    /** {@return the place behind the tag before the element that begins, for {@link #learn}} */
    default long before() {
        return 0;
    }

    /**
     * Remembers how an element stood that has just ended.
     *
     * @param before the place behind the tag before it
     * @param around the place whose element it is
     * @param place of the element itself
     */
    default void learn(long before, ElementPlace around, FieldOrder.Field field, ElementPlace place) {
        // of no use where each is taken by itself
    }

    /** Goes to the end of the element that begins. */
    void skip() throws XMLStreamException, IOException;

    /** {@return the line on which the part at hand begins, counted from 1} */
    int line();

    /** {@return where on its line the part at hand begins, counted from 1; 0 if it is not known} */
    int column();

    /** Gives up what is held; the stream stays open. */
    void close() throws XMLStreamException;
}
