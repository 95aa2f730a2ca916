package org.polyclave.formats.study;

import com.fasterxml.jackson.annotation.JsonInclude;

/**
 * A picture of a study. What it shows says what readers hear who cannot see it.
 *
 * @param content SHA-256 of its bytes, in hexadecimal digits
 * @param mediaType {@code image/png}, {@code image/jpeg} or {@code image/svg+xml}
 * @param width in pixels, or in the units of a drawing
 * @param licence under which others may use it
 * @param row id of the row of which it is a picture, or empty
 * @param place coordinates at which it was taken, kept only by choice; empty if not kept
 * @param data its bytes in Base64, in a study file; empty where they are kept elsewhere
 */
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
        @JsonInclude(JsonInclude.Include.NON_EMPTY) String data) {
    public Picture {
        row = Missing.or(row, "");
        place = Missing.or(place, "");
        data = Missing.or(data, "");
    }

    public Picture withId(String newId) {
        return new Picture(newId, content, mediaType, width, height, shows, credit, licence, row, place, data);
    }

    public Picture withData(String newData) {
        return new Picture(id, content, mediaType, width, height, shows, credit, licence, row, place, newData);
    }

    public Picture withoutPlace() {
        return new Picture(id, content, mediaType, width, height, shows, credit, licence, row, "", data);
    }

    /** The same picture with what another says about it; a place can be forgotten, but not given. */
    public Picture told(Picture other) {
        String kept = other.place.isEmpty() ? "" : place;
        return new Picture(
                id, content, mediaType, width, height, other.shows, other.credit, other.licence, other.row, kept, data);
    }
}
