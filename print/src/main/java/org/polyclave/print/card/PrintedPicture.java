package org.polyclave.print.card;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Locale;

/**
 * A picture as it stands on a page. Drawings stay drawings, so that they are sharp at every size.
 *
 * @param mediaType as the pictures of a study have it
 * @param width in pixels, or in the units of a drawing; so is the height
 * @param bytes cleaned, as a study keeps them
 */
public record PrintedPicture(String mediaType, int width, int height, byte[] bytes) {
    private static final String DRAWING = "image/svg+xml";

    /** @param em of the type around it for one pixel or unit */
    public String html(double em) {
        String style = String.format(Locale.ROOT, "width:%.4fem;height:%.4fem", em * width, em * height);
        if (!mediaType.equals(DRAWING)) {
            return "<img style=\"" + style + "\" src=\"data:" + mediaType + ";base64,"
                    + Base64.getEncoder().encodeToString(bytes) + "\"/>";
        }
        String drawing = new String(bytes, StandardCharsets.UTF_8);
        int root = drawing.indexOf("<svg");
        return root < 0 ? "" : "<svg style=\"" + style + "\"" + drawing.substring(root + "<svg".length());
    }
}
