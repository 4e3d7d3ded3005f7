package dev.morphema.testing;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** The least and the largest value of a parameter. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.PARAMETER)
public @interface LongRange {
    /** {@return the least value} */
    long min() default 0;

    /** {@return the largest value} */
    long max() default Long.MAX_VALUE;
}
