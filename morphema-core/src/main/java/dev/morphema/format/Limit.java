package dev.morphema.format;

import java.util.Arrays;
import java.util.Optional;

/** Something of which an input or a run may have only so much. */
public enum Limit {
    /** Bytes of one input, decompressed. */
    BYTES("bytes", Limits.UNLIMITED, "bytes in one input"),
    /** Bytes that a compressed input becomes for each of its own, beyond the first 64 MB. */
    GROWTH("growth", 200, "bytes for each byte of a compressed input"),
    /** Characters that the entities of one XML document, or the aliases of a YAML one, become. */
    ENTITIES("entities", 16L << 20, "characters that the entities or aliases of a document stand for"),
    /** Lists, objects and elements within one another. */
    DEPTH("depth", 500, "lists, objects or elements within one another"),
    /**
     * Characters of one text, or its bytes. It is looked at when memory is taken for a text, so
     * twice as many may pass.
     */
    TEXT("text", 64L << 20, "characters in one text", 1 << 17),
    /** Characters of one name in JSON or XML. */
    NAME("name", 50_000, "characters in one name"),
    /**
     * Different names in one XML document that is read by characters: a long stream, one with
     * entities or another encoding.
     */
    NAMES("names", 10_000, "different names in one XML document"),
    /** Attributes of one XML element, and of a CSV row the columns. */
    FIELDS("fields", 100_000, "columns of a row, or attributes of an element"),
    /** Records that are read of one source. */
    RECORDS("records", Limits.UNLIMITED, "records of one source"),
    /** Calls of defined functions and turns of loops within what is made of one record. */
    STEPS("steps", 100_000_000, "calls and turns of loops for one record"),
    /** Milliseconds that a run takes. */
    TIME("time", Limits.UNLIMITED, "milliseconds");

    private final String word;
    private final long usual;
    private final String what;
    private final long least;

    Limit(String word, long usual, String what) {
        this(word, usual, what, 1);
    }

    Limit(String word, long usual, String what, long least) {
        this.least = least;
        this.word = word;
        this.usual = usual;
        this.what = what;
    }

    /** {@return what the limit is called where it is set} */
    public String word() {
        return word;
    }

    /** {@return how much there may be if nothing is said} */
    public long usual() {
        return usual;
    }

    /** {@return what is counted, in the plural} */
    public String what() {
        return what;
    }

    /** {@return the smallest number that the limit can have} */
    public long least() {
        return least;
    }

    /** {@return the limit that is called so} */
    public static Optional<Limit> of(String word) {
        return Arrays.stream(values()).filter(limit -> limit.word.equals(word)).findFirst();
    }
}
