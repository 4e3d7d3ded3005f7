package dev.morphema.xml;

import dev.morphema.formats.FieldOrder;
import dev.morphema.formats.KnownBytes;
import dev.morphema.value.FieldName;
import org.jspecify.annotations.Nullable;

/**
 * How an element stood: its tags, with the white space before them, and where between them there
 * are values. Where another begins like that, only its values are looked at. Not thread-safe.
 */
final class ElementForm {
    /**
     * Each element that began like the form and was not like it costs so much trust; without trust
     * it is given up.
     */
    private static final int LOSS = 4;

    private static final int MOST_TRUST = 64;

    /** What stands between the tags. */
    enum Content {
        /** A text, possibly empty. */
        TEXT,
        /** Child elements. */
        CHILDREN,
        /** Missing: the start tag ends the element. */
        NONE
    }

    /**
     * An attribute.
     *
     * @param name of it
     * @param slot in the record that the element is, or -1 if it is not wanted
     * @param passes whether its value may stay bytes
     * @param behind the closing quote and all up to the next value, or to the end of the start tag
     */
    record Attribute(FieldName name, int slot, boolean passes, KnownBytes behind) {}

    /**
     * How many lines end in the tags.
     *
     * @param before the start tag
     * @param start in the start tag or before it
     * @param end in the end tag, or before it and behind the last child element
     */
    record Lines(int before, int start, int end) {}

    private final FieldOrder.Field field;
    private final KnownBytes start;
    private final Attribute[] attributes;
    private final Content content;
    private final @Nullable ElementPlace place;
    private final @Nullable KnownBytes end;
    private final Lines lines;
    private int trust = MOST_TRUST;

    /**
     * @param field that the element is of the record around it
     * @param start all from behind the tag before to the first value, or to the end of the start
     *     tag
     * @param content what stands between the tags
     * @param place what is wanted of the element if it is a record; else null
     * @param end all from behind the last value or element to the end of the end tag, if there is
     *     one
     */
    ElementForm(
            FieldOrder.Field field,
            KnownBytes start,
            Attribute[] attributes,
            Content content,
            @Nullable ElementPlace place,
            @Nullable KnownBytes end,
            Lines lines) {
        this.field = field;
        this.start = start;
        this.attributes = attributes;
        this.content = content;
        this.place = place;
        this.end = end;
        this.lines = lines;
    }

    FieldOrder.Field field() {
        return field;
    }

    KnownBytes start() {
        return start;
    }

    /** {@return the attributes, not to be changed} */
    Attribute[] attributes() {
        return attributes;
    }

    Content content() {
        return content;
    }

    /** {@return what is wanted of the element if it is a record; null if it is a text} */
    @Nullable
    ElementPlace place() {
        return place;
    }

    @Nullable
    KnownBytes end() {
        return end;
    }

    Lines lines() {
        return lines;
    }

    /** {@return whether it is worthwhile to look whether an element stands like that} */
    boolean isTrusted() {
        return trust > 0;
    }

    /** An element that began like that was, or was not, like that to its end. */
    void tried(boolean taken) {
        trust = taken ? Math.min(MOST_TRUST, trust + 1) : trust - LOSS;
    }
}
