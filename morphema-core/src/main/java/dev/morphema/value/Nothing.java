package dev.morphema.value;

/** The two kinds of nothing: not there at all, and there but null. */
public enum Nothing implements Value {
    /** Nothing there; a rule that gives it leaves its field out. */
    ABSENT(Kind.ABSENT),
    /** What the source called null, or {@code null} written by the author. */
    NULL(Kind.NULL);

    private final Kind kind;

    Nothing(Kind kind) {
        this.kind = kind;
    }

    @Override
    public Kind kind() {
        return kind;
    }

    @Override
    public boolean isNothing() {
        return true;
    }
}
