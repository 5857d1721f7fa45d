package pyrite.core;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.junit.jupiter.api.Tag;

/**
 * A test that compares what Pyrite computes with an answer from elsewhere. {@code docs/validation.md} lists them;
 * {@code bin/pyrite validate} runs them and writes the page.
 */
@Tag("validation")
@Target({ElementType.TYPE, ElementType.METHOD})
@Retention(RetentionPolicy.RUNTIME)
public @interface Validates {
    /** What is computed. */
    String what();

    /** The closed form, publication or clause that it is compared with. */
    String against();

    /** How far apart the two may be; empty where they must be equal. */
    String within() default "";
}
