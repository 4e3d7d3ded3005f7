package dev.morphema.testing;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** A parameter of a {@link Property} that is made at random. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.PARAMETER)
public @interface ForAll {
    /**
     * {@return the method of the test class that gives what makes the values; by the parameter's
     * type if empty}
     */
    String value() default "";
}
