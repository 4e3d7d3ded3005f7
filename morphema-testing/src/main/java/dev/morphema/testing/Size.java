package dev.morphema.testing;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** How many items a list has, or at least and at most. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.PARAMETER)
public @interface Size {
    /** {@return the exact size; -1 if there are two limits} */
    int value() default -1;

    /** {@return the least size} */
    int min() default 0;

    /** {@return the largest size} */
    int max() default 20;
}
