package dev.morphema.value;

/** True or false. */
public final class BooleanValue extends Value {
    public static final BooleanValue TRUE = new BooleanValue("true");
    public static final BooleanValue FALSE = new BooleanValue("false");

    private final String text;

    private BooleanValue(String text) {
        this.text = text;
    }

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
        return text;
    }
}
