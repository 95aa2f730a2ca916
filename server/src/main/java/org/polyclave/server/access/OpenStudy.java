package org.polyclave.server.access;

import java.util.Locale;
import org.polyclave.server.platform.Problems;

/**
 * A study that an account may see, with the account's role in it.
 *
 * @param blind whether the account scores blind now and may not see what others scored
 */
public record OpenStudy(long id, String slug, String title, long revision, Role role, long account, boolean blind) {
    /** This, if the account has at least a role; for what depends on the request, and not on the handler alone. */
    public OpenStudy require(Role needed) {
        if (!role.reaches(needed)) {
            throw Problems.forbidden("This takes the role '" + needed.name().toLowerCase(Locale.ROOT)
                    + "' in this study. Ask its owner.");
        }
        return this;
    }
}
