package org.polyclave.core.measuring;

/**
 * How long a pixel of a picture is, from a scale bar or a stage micrometer in it or in a picture taken with the same optics
 * and camera. Nominal magnifications are not calibration.
 *
 * <p>Uncertainties are standard uncertainties, combined to first order (JCGM 100:2008, 5.1.2): each end of a bar or of a
 * measured line is placed to {@link #END} pixels; a thing that is tilted by up to an angle t looks shorter by up to 1 − cos t,
 * taken as a rectangular distribution.
 *
 * @param millimetresPerPixel above 0
 * @param relativeUncertainty of that figure
 */
public record PictureScale(double millimetresPerPixel, double relativeUncertainty) {
    /** Of one end along the line, in pixels. */
    public static final double END = 1;

    private static final double BOTH_ENDS = END * Math.sqrt(2);

    /** A length in mm with its standard uncertainty. */
    public record Length(double millimetres, double uncertainty) {}

    /**
     * @param pixels distance of the bar's ends, above 0
     * @param millimetres what the bar says, above 0
     * @throws IllegalArgumentException for a bar without length
     */
    public static PictureScale ofBar(double pixels, double millimetres) {
        if (!(pixels > 0) || !(millimetres > 0) || !Double.isFinite(millimetres / pixels)) {
            throw new IllegalArgumentException(
                    "A scale bar has a length: " + pixels + " pixels for " + millimetres + " mm");
        }
        return new PictureScale(millimetres / pixels, BOTH_ENDS / pixels);
    }

    /**
     * The length of what was marked.
     *
     * @param marked its length in pixels
     * @param tilt largest angle between it and the plane of the bar, in degrees
     */
    public Length length(Outline marked, double tilt) {
        double length = marked.size() * millimetresPerPixel;
        double relative = Math.hypot(relativeUncertainty, shortened(tilt));
        return new Length(length, Math.hypot(length * relative, marked.uncertainty() * millimetresPerPixel));
    }

    /**
     * The ratio of two lengths or two areas in one picture: its scale cancels out, tilt does not.
     *
     * @param tilt largest angle between either and the plane of the picture, in degrees
     */
    public static Ratio ratio(Outline part, Outline whole, double tilt) {
        double shortened = shortened(tilt);
        return Ratio.of(
                part.size(),
                Math.hypot(part.uncertainty(), part.size() * shortened),
                whole.size(),
                Math.hypot(whole.uncertainty(), whole.size() * shortened));
    }

    private static double shortened(double tilt) {
        return (1 - Math.cos(Math.toRadians(tilt))) / Math.sqrt(3);
    }
}
