package org.polyclave.server.access;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * The study that a handler works on, named by {@code {slug}} in its path, opened for whoever asks. To accounts that are not
 * members the study does not exist; members with a lesser role are refused.
 */
@Documented
@Target(ElementType.PARAMETER)
@Retention(RetentionPolicy.RUNTIME)
public @interface AtLeast {
    /** The least role. */
    Role value();

    /** Whether those who score blind now may, because nothing is shown that could tell them what others scored. */
    boolean evenBlind() default false;
}
