package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import org.jspecify.annotations.Nullable;

/**
 * A picture of a study. What it shows says what readers hear who cannot see it.
 *
 * @param content SHA-256 of its bytes, in hexadecimal digits
 * @param mediaType {@code image/png}, {@code image/jpeg} or {@code image/svg+xml}
 * @param width in pixels, or in the units of a drawing
 * @param licence under which others may use it
 * @param row id of the row of which it is a picture, or empty
 * @param place coordinates at which it was taken, kept only by choice; empty if not kept
 * @param specimen id of the specimen that it shows, or empty
 * @param scale how long its pixels are; null if not known
 * @param data its bytes in Base64, in a study file; empty where they are kept elsewhere
 */
@RecordBuilder
public record Picture(
        String id,
        String content,
        String mediaType,
        int width,
        int height,
        String shows,
        String credit,
        String licence,
        String row,
        String place,
        String specimen,
        @Nullable Scale scale,
        String data)
        implements PictureBuilder.With {
    public Picture {
        row = Defaults.or(row, "");
        place = Defaults.or(place, "");
        specimen = Defaults.or(specimen, "");
        data = Defaults.or(data, "");
    }

    /** A picture of no specimen. */
    public Picture(
            String id,
            String content,
            String mediaType,
            int width,
            int height,
            String shows,
            String credit,
            String licence,
            String row,
            String place,
            String data) {
        this(id, content, mediaType, width, height, shows, credit, licence, row, place, "", null, data);
    }

    /** The same picture of the taxon, and of nothing that could be measured. */
    public Picture withoutSpecimen() {
        return with().specimen("").scale(null).build();
    }

    public Picture withoutPlace() {
        return withPlace("");
    }

    /** The same picture as its file became once it was cleaned. */
    public Picture cleaned(String newContent, String newMediaType, int newWidth, int newHeight) {
        return with().content(newContent)
                .mediaType(newMediaType)
                .width(newWidth)
                .height(newHeight)
                .data("")
                .build();
    }

    /** The same picture with what another says about it; a place can be forgotten, but not given. */
    public Picture withCaptionOf(Picture other) {
        return with().shows(other.shows)
                .credit(other.credit)
                .licence(other.licence)
                .row(other.row)
                .place(other.place.isEmpty() ? "" : place)
                .specimen(other.specimen)
                .scale(other.scale)
                .build();
    }
}
