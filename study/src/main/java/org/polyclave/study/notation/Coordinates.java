package org.polyclave.study.notation;

/**
 * Coordinates as labels have them: {@code 54.1234, -2.345}, {@code 54.1234 N 2.345 W}, {@code 54°07'24"N, 2°20.7'W}. Latitude
 * comes first unless the letters say otherwise. In degrees of WGS 84.
 */
public sealed interface Coordinates {
    /**
     * @param latitude north of the equator, −90 to 90
     * @param longitude east of Greenwich, −180 to 180
     */
    record Place(double latitude, double longitude) implements Coordinates {}

    /** @param reason one sentence with the remedy, without a subject before it */
    record Rejected(String reason) implements Coordinates {}

    static Coordinates parse(String text) {
        return CoordinateParser.parse(text);
    }
}
