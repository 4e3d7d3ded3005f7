package dev.morphema.testing;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** The least and the largest value of a parameter. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.PARAMETER)
public @interface IntRange {
    /** {@return the least value} */
    int min() default 0;

    /** {@return the largest value} */
    int max() default Integer.MAX_VALUE;
}
