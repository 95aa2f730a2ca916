package org.polyclave.print.page;

import gg.jte.ContentType;
import gg.jte.TemplateEngine;
import gg.jte.output.StringOutput;
import java.util.Map;

/** The pages that are printed, from the templates in {@code src/main/jte}: they escape what they are given. */
public final class Templates {
    private static final TemplateEngine ENGINE = TemplateEngine.createPrecompiled(
            null, ContentType.Html, Templates.class.getClassLoader(), "org.polyclave.print.template");

    private Templates() {}

    /** A template with its parameters filled in. */
    public static String render(String template, Map<String, Object> parameters) {
        StringOutput out = new StringOutput();
        ENGINE.render(template + ".jte", parameters, out);
        return out.toString();
    }
}
