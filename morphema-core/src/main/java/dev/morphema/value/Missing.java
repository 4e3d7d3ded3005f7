package dev.morphema.value;

/** The two kinds of nothing: not there at all, and there but null. */
public final class Missing extends Value {
    /** Nothing there; a rule that gives it leaves its field out. */
    public static final Missing ABSENT = new Missing(Kind.ABSENT);
    /** What the source called null, or {@code null} written by the author. */
    public static final Missing NULL = new Missing(Kind.NULL);

    private final Kind kind;

    private Missing(Kind kind) {
        this.kind = kind;
    }

    @Override
    public Kind kind() {
        return kind;
    }

    @Override
    public String toString() {
        return kind.name();
    }
}
