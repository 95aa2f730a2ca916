package org.polyclave.server.measuring;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.polyclave.demo.specimen.SpecimenPicture;
import org.springframework.boot.autoconfigure.condition.ConditionalOnBooleanProperty;
import org.springframework.stereotype.Component;

/** A caliper and a microscope camera that are not there: the demo's. What they send follows from a seed and the step. */
@Component
@ConditionalOnBooleanProperty("polyclave.demo")
public class SimulatedInstruments {
    private static final int WIDTH = 720;
    private static final int HEIGHT = 540;
    /** Spores on the slide; the higher the magnification the fewer are seen. */
    private static final int SEEN_AT_TEN = 24;

    private static final double SPORE_MM = 0.0083;

    /** The text that a caliper sends, as if it were typed: of things about as large as {@code around}. */
    public String caliper(double around, long seed, int step) {
        Random random = new Random(seed * 31 + step);
        return String.format(Locale.ROOT, "%.2f mm", around * Math.exp(0.06 * random.nextGaussian()));
    }

    /**
     * What the camera sees of a slide of spores, with a scale bar.
     *
     * @param magnification 10, 20 or 40
     * @param step the focus drifts with it, and comes back
     */
    public byte[] camera(int magnification, long seed, int step) {
        int seen = Math.max(1, SEEN_AT_TEN * 10 / magnification);
        Random slide = new Random(seed);
        List<double[]> spores = new ArrayList<>();
        for (int i = 0; i < seen; i++) {
            double length = SPORE_MM * Math.exp(0.05 * slide.nextGaussian());
            spores.add(new double[] {length, length / (1.55 + 0.04 * slide.nextGaussian())});
        }
        double focus = 0.7 + 2.2 * Math.abs(Math.sin(step / 5.0));
        return SpecimenPicture.spores(spores, WIDTH, HEIGHT, focus, seed).jpeg();
    }
}
