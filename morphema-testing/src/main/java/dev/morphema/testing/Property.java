package dev.morphema.testing;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.junit.jupiter.api.TestTemplate;
import org.junit.jupiter.api.extension.ExtendWith;

/**
 * A test that holds for all values of its parameters; it is tried with many. They are the same in
 * each run; the system property {@code properties.seed} gives other ones (a number, or {@code
 * random}), and {@code properties.times} so many times as many (0.1 is a tenth).
 */
@TestTemplate
@ExtendWith(PropertyExtension.class)
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.METHOD)
public @interface Property {
    /** {@return with how many values it is tried} */
    int tries() default 1_000;
}
