package dev.morphema.json;

import dev.morphema.formats.FieldOrder;
import dev.morphema.value.FieldBytes;
import dev.morphema.value.TextValue;
import dev.morphema.value.Value;
import java.io.Closeable;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonToken;

/**
 * The tokens of JSON (RFC 8259), one after the other; of several documents, if there are. A name
 * that comes again is mostly the same object. Not thread-safe.
 */
interface JsonTokens extends Closeable {
    /** Goes to the next token; gives it, or null at the end. */
    @Nullable
    JsonToken next() throws IOException;

    /** {@return the token at hand, or null at the end} */
    @Nullable
    JsonToken current();

    /** Goes to the next name of the object at hand; gives it, or null at the object's end. */
    @Nullable
    String nextName() throws IOException;

    /**
     * Goes to the next token; gives the text or number that it is, or null if it is something
     * else
     *
     * @throws ArithmeticException if it is a number that has too many digits
     * @throws NumberFormatException if its exponent has too many
     */
    @Nullable
    Value nextScalar() throws IOException;

    /** A record is about to begin; the name, text or number at hand is not needed any more. */
    default void beginRecord() throws IOException {
        // nothing is to be done for it
    }

    /**
     * Goes to the next token; if it is a text or a number that can be taken as its bytes, adds it
     * to a row.
     *
     * @return whether it did; if not, the token is at hand
     */
    default boolean nextBytes(FieldBytes.Row row, int slot) throws IOException {
        next();
        return false;
    }

    /**
     * Takes fields of the object at hand, from the next one on, that stand where they stood before
     * and are texts or numbers of common form; perhaps none.
     *
     * @param row gets what may stay bytes
     * @param values get the others, and may have some already; null if all may stay bytes
     * @return the field whose name is at hand in the end; null if the next token is to be asked for
     */
    default FieldOrder.@Nullable Field fields(
            FieldOrder place, FieldBytes.Row row, @Nullable Value @Nullable [] values) {
        return null;
    }

    /** Remembers where the name at hand stands, for {@link #fields}. */
    default void learn(FieldOrder place, FieldOrder.Field field) {
        // of no use where each is taken by itself
    }

    /** {@return the name of the field at hand} */
    String name();

    /** {@return the text at hand} */
    TextValue text() throws IOException;

    /**
     * {@return the number at hand}
     *
     * @throws ArithmeticException if it has too many digits
     * @throws NumberFormatException if its exponent has too many
     */
    Value number() throws IOException;

    /**
     * Goes to the end of the object or list that begins at hand; does nothing at any other token.
     */
    void skip() throws IOException;

    /** {@return the line on which the token at hand begins, counted from 1} */
    int line();

    /** {@return where on its line the token at hand begins, counted from 1} */
    int column();
}
