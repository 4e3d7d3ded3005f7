package dev.morphema.value;

/** True or false. */
public enum BooleanValue implements Value {
    TRUE,
    FALSE;

    /** {@return the value of a Java boolean} */
    public static BooleanValue of(boolean truth) {
        return truth ? TRUE : FALSE;
    }

    /** {@return whether this is true} */
    public boolean isTrue() {
        return this == TRUE;
    }

    @Override
    public Kind kind() {
        return Kind.BOOLEAN;
    }

    @Override
    public String toString() {
        return this == TRUE ? "true" : "false";
    }
}
