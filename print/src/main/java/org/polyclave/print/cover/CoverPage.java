package org.polyclave.print.cover;

import java.util.Map;
import org.polyclave.print.page.Templates;
import org.polyclave.wording.cover.Cover;

/** The cover of an edition as a fragment of HTML that needs no script; its links lead to the parts of the edition. */
public final class CoverPage {
    private CoverPage() {}

    public static String html(Cover cover, String slug) {
        return Templates.render("cover/cover", Map.of("cover", cover, "slug", slug));
    }
}
