package org.polyclave.server.account;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** The account that asks. To who is not signed in, or may not, what the handler serves does not exist. */
@Documented
@Target(ElementType.PARAMETER)
@Retention(RetentionPolicy.RUNTIME)
public @interface Current {
    /** Whether it must be an administrator's. */
    boolean administrator() default false;

    /** Whether a script may ask by a token. */
    boolean byToken() default true;
}
