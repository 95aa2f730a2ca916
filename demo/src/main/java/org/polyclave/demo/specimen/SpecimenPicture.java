package org.polyclave.demo.specimen;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Line2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import org.polyclave.study.model.Mark.Point;

/**
 * Draws a specimen as a camera would take it: parametric outlines on a mottled ground, a scale bar, blur and grain. Everything
 * is decided by the seed. What the picture shows is known to a fraction of a pixel, so that measuring can be tested against it.
 */
public final class SpecimenPicture {
    private static final Color INK = new Color(24, 22, 20);

    private final int width;
    private final int height;
    private final double millimetresPerPixel;
    private final Random random;
    private final BufferedImage image;
    private final Graphics2D pen;
    private final Map<String, List<Point>> ends = new LinkedHashMap<>();

    private SpecimenPicture(int width, int height, double millimetresPerPixel, long seed, Color ground) {
        this.width = width;
        this.height = height;
        this.millimetresPerPixel = millimetresPerPixel;
        random = new Random(seed);
        image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        pen = image.createGraphics();
        pen.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        pen.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        pen.setColor(ground);
        pen.fillRect(0, 0, width, height);
        mottle(ground);
    }

    /**
     * A picture and what it shows.
     *
     * @param bar the two ends of the scale bar
     * @param barText what the bar says
     * @param ends where each size that can be read begins and ends, by its name
     */
    public record Rendered(
            byte[] jpeg, int width, int height, List<Point> bar, String barText, Map<String, List<Point>> ends) {
        /** @throws IllegalArgumentException if the picture does not show it */
        public List<Point> endsOf(String size) {
            List<Point> of = ends.get(size);
            if (of == null) {
                throw new IllegalArgumentException("The picture does not show '" + size + "'");
            }
            return of;
        }
    }

    /** A ripe fruit under a lens, lying as it fell. */
    public static Rendered fruit(double lengthMm, double beakShare, int width, int height, double focus, long seed) {
        double scale = lengthMm / (0.42 * Math.min(width, height));
        SpecimenPicture picture = new SpecimenPicture(width, height, scale, seed, new Color(226, 221, 208));
        double length = lengthMm / scale;
        double half = length / 2;
        double breadth = length * (0.24 + 0.04 * picture.random.nextDouble());
        Path2D body = new Path2D.Double();
        double shoulder = half - length * beakShare;
        body.moveTo(-half, 0);
        body.curveTo(-half, -breadth, shoulder - breadth * 0.4, -breadth * 1.25, shoulder, -breadth * 0.32);
        body.lineTo(half, 0);
        body.lineTo(shoulder, breadth * 0.32);
        body.curveTo(shoulder - breadth * 0.4, breadth * 1.25, -half, breadth, -half, 0);
        body.closePath();
        AffineTransform place = picture.somewhere();
        picture.fill(body, place, new Color(126, 92, 52), new Color(70, 48, 26), length);
        for (int rib = -2; rib <= 2; rib++) {
            Path2D line = new Path2D.Double();
            line.moveTo(-half * 0.86, rib * breadth * 0.12);
            line.quadTo(-half * 0.1, rib * breadth * 0.42, shoulder * 0.9, rib * breadth * 0.1);
            picture.draw(line, place, new Color(92, 64, 34), length / 160);
        }
        picture.ends.put("fruit-length", points(place, -half, 0, half, 0));
        return picture.finish(1, focus);
    }

    /** A crab from above with its claws spread. */
    public static Rendered crab(
            double widthMm, double lengthMm, double clawMm, int teeth, int width, int height, double focus, long seed) {
        double scale = widthMm / (0.4 * Math.min(width, height));
        SpecimenPicture picture = new SpecimenPicture(width, height, scale, seed, new Color(205, 208, 204));
        double half = widthMm / scale / 2;
        double tall = lengthMm / scale / 2;
        double claw = clawMm / scale;
        AffineTransform place = picture.somewhere();
        Color shell = new Color(134, 112, 78);
        Color edge = new Color(66, 52, 34);
        for (int side : new int[] {-1, 1}) {
            for (int leg = 0; leg < 4; leg++) {
                double y = tall * (-0.1 + 0.3 * leg);
                Path2D limb = new Path2D.Double();
                limb.moveTo(side * half * 0.7, y);
                limb.lineTo(side * half * 1.5, y + tall * (0.1 + 0.1 * leg));
                limb.lineTo(side * half * 1.85, y + tall * (0.55 + 0.16 * leg));
                picture.draw(limb, place, shell, half / 9);
            }
            // The claw: an oval of the height that is read, with a finger.
            Shape palm =
                    new Ellipse2D.Double(side * half * 1.25 - claw * 0.62, -tall * 1.5 - claw / 2, claw * 1.24, claw);
            Path2D arm = new Path2D.Double();
            arm.moveTo(side * half * 0.62, -tall * 0.6);
            arm.lineTo(side * half * 1.15, -tall * 1.3);
            picture.draw(arm, place, shell, half / 5);
            picture.fill(palm, place, new Color(150, 120, 84), edge, half);
            Path2D finger = new Path2D.Double();
            finger.moveTo(side * half * 1.25 - side * claw * 0.55, -tall * 1.5 - claw * 0.12);
            finger.quadTo(
                    side * half * 1.25 - side * claw * 0.9,
                    -tall * 1.5 - claw * 0.42,
                    side * half * 1.25 - side * claw * 1.02,
                    -tall * 1.5 + claw * 0.02);
            picture.draw(finger, place, edge, half / 24);
        }
        picture.fill(carapace(half, tall, teeth), place, shell, edge, half * 2);
        for (int side : new int[] {-1, 1}) {
            Path2D groove = new Path2D.Double();
            groove.moveTo(side * half * 0.16, -tall * 0.45);
            groove.quadTo(side * half * 0.4, 0, side * half * 0.2, tall * 0.5);
            picture.draw(groove, place, edge, half / 60);
        }
        picture.ends.put("carapace-width", points(place, -half, 0, half, 0));
        picture.ends.put("carapace-length", points(place, 0, -tall, 0, tall));
        picture.ends.put(
                "claw-height", points(place, half * 1.25, -tall * 1.5 - claw / 2, half * 1.25, -tall * 1.5 + claw / 2));
        return picture.finish(10, focus);
    }

    /** As wide as twice {@code half}, at y = 0, and as long as twice {@code tall}, at x = 0. */
    private static Path2D carapace(double half, double tall, int teeth) {
        Path2D shape = new Path2D.Double();
        shape.moveTo(0, -tall);
        shape.lineTo(half * 0.34, -tall * 0.93);
        for (int tooth = 1; tooth <= teeth; tooth++) {
            double share = tooth / (double) teeth;
            double x = half * (0.34 + 0.66 * Math.sin(share * Math.PI / 2));
            double y = -tall * 0.93 * Math.cos(share * Math.PI / 2);
            shape.lineTo(x, y);
            if (tooth < teeth) {
                shape.lineTo(x * 0.96, y + tall * 0.08);
            }
        }
        shape.curveTo(half * 0.86, tall * 0.5, half * 0.5, tall, 0, tall);
        Path2D whole = new Path2D.Double(shape);
        AffineTransform mirror = AffineTransform.getScaleInstance(-1, 1);
        whole.append(mirror.createTransformedShape(shape), false);
        return whole;
    }

    /** Spores in a mount; each bears its number as its name: "1 length", "1 width". */
    public static Rendered spores(List<double[]> lengthsAndWidthsMm, int width, int height, double focus, long seed) {
        double longest =
                lengthsAndWidthsMm.stream().mapToDouble(s -> s[0]).max().orElseThrow();
        int columns = (int) Math.ceil(Math.sqrt(lengthsAndWidthsMm.size() * 4 / 3.0));
        int lines = (lengthsAndWidthsMm.size() + columns - 1) / columns;
        double box = Math.min(width / (double) columns, height * 0.86 / lines);
        double scale = longest / (0.8 * box);
        SpecimenPicture picture = new SpecimenPicture(width, height, scale, seed, new Color(232, 229, 216));
        for (int i = 0; i < lengthsAndWidthsMm.size(); i++) {
            double length = lengthsAndWidthsMm.get(i)[0] / scale;
            double breadth = lengthsAndWidthsMm.get(i)[1] / scale;
            AffineTransform place = AffineTransform.getTranslateInstance(
                    (i % columns + 0.5) * width / columns, (Math.floorDiv(i, columns) + 0.5) * height * 0.86 / lines);
            place.rotate(picture.random.nextDouble() * Math.PI);
            picture.fill(
                    new Ellipse2D.Double(-length / 2, -breadth / 2, length, breadth),
                    place,
                    new Color(176, 132, 84),
                    new Color(92, 58, 30),
                    length);
            double drop = breadth * (0.2 + 0.2 * picture.random.nextDouble());
            picture.draw(
                    new Ellipse2D.Double(-drop / 2, -drop / 2, drop, drop), place, new Color(120, 82, 46), length / 50);
            picture.ends.put((i + 1) + " spore-length", points(place, -length / 2, 0, length / 2, 0));
            picture.ends.put((i + 1) + " spore-width", points(place, 0, -breadth / 2, 0, breadth / 2));
        }
        return picture.finish(0.01, focus);
    }

    private AffineTransform somewhere() {
        AffineTransform place = AffineTransform.getTranslateInstance(
                width * (0.48 + 0.04 * random.nextDouble()), height * (0.46 + 0.04 * random.nextDouble()));
        place.rotate((random.nextDouble() - 0.5) * 0.5);
        return place;
    }

    private void mottle(Color ground) {
        for (int i = 0; i < 24; i++) {
            int shade = random.nextInt(13) - 6;
            pen.setColor(new Color(
                    clamp(ground.getRed() + shade),
                    clamp(ground.getGreen() + shade),
                    clamp(ground.getBlue() + shade),
                    90));
            double size = width * (0.05 + 0.2 * random.nextDouble());
            pen.fill(new Ellipse2D.Double(
                    random.nextDouble() * width - size / 2, random.nextDouble() * height - size / 2, size, size * 0.7));
        }
    }

    private static int clamp(int value) {
        return Math.max(0, Math.min(255, value));
    }

    /** Fills up to the outline and no farther: a line drawn around would make the thing larger. */
    private void fill(Shape shape, AffineTransform place, Color colour, Color edge, double size) {
        Shape placed = place.createTransformedShape(shape);
        Shape before = pen.getClip();
        pen.setColor(colour);
        pen.fill(placed);
        pen.clip(placed);
        pen.setColor(edge);
        pen.setStroke(new BasicStroke((float) Math.max(2, size / 40)));
        pen.draw(placed);
        pen.setClip(before);
    }

    private void draw(Shape shape, AffineTransform place, Color colour, double thickness) {
        pen.setColor(colour);
        pen.setStroke(new BasicStroke((float) Math.max(1, thickness), BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        pen.draw(place.createTransformedShape(shape));
    }

    private static List<Point> points(AffineTransform place, double... xy) {
        double[] placed = new double[xy.length];
        place.transform(xy, 0, placed, 0, xy.length / 2);
        List<Point> points = new ArrayList<>();
        for (int i = 0; i < placed.length; i += 2) {
            points.add(new Point(placed[i], placed[i + 1]));
        }
        return points;
    }

    /** @param unit in mm, of which the bar shows 1, 2 or 5, or ten times that */
    private Rendered finish(double unit, double focus) {
        double wanted = width * 0.25 * millimetresPerPixel;
        double bar = Stream.of(100, 50, 20, 10, 5, 2, 1)
                .map(n -> n * unit / 10)
                .filter(b -> b <= wanted)
                .findFirst()
                .orElse(unit / 10);
        double pixels = bar / millimetresPerPixel;
        double x = width * 0.06;
        double y = height * 0.93;
        pen.setColor(INK);
        pen.fill(new Rectangle2D.Double(x, y - 2, pixels, Math.max(4, height / 150.0)));
        boolean small = bar < 0.1;
        String text = small ? Math.round(bar * 1000) + " um" : bar < 1 ? bar + " mm" : Math.round(bar) + " mm";
        label(text, x, y - height * 0.03, height * 0.028);
        expose(focus);
        return new Rendered(
                jpeg(image),
                width,
                height,
                List.of(new Point(x, y), new Point(x + pixels, y)),
                text,
                new LinkedHashMap<>(ends));
    }

    /** Strokes of the few signs that a scale bar needs: machines without a screen often have no fonts. */
    private static final Map<Character, double[][]> SIGNS = Map.ofEntries(
            Map.entry('0', new double[][] {{0, 0, 1, 0, 1, 2, 0, 2, 0, 0}}),
            Map.entry('1', new double[][] {{0.1, 0.4, 0.5, 0, 0.5, 2}}),
            Map.entry('2', new double[][] {{0, 0.3, 0.2, 0, 0.8, 0, 1, 0.3, 1, 0.7, 0, 2, 1, 2}}),
            Map.entry('5', new double[][] {{1, 0, 0, 0, 0, 0.9, 0.8, 0.9, 1, 1.2, 1, 1.7, 0.8, 2, 0, 2}}),
            Map.entry('.', new double[][] {{0.4, 1.95, 0.4, 2}}),
            Map.entry('m', new double[][] {{0, 2, 0, 0.9, 0.5, 0.9, 0.5, 2}, {0.5, 0.9, 1, 0.9, 1, 2}}),
            Map.entry('u', new double[][] {{0, 0.9, 0, 2, 0.9, 2}, {0.9, 0.9, 0.9, 2}}));

    private void label(String text, double x, double y, double size) {
        pen.setStroke(new BasicStroke((float) Math.max(1.5, size / 9), BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        double at = x;
        for (int c = 0; c < text.length(); c++) {
            for (double[] stroke : SIGNS.getOrDefault(text.charAt(c), new double[0][])) {
                for (int i = 0; i + 3 < stroke.length; i += 2) {
                    pen.draw(new Line2D.Double(
                            at + stroke[i] * size / 2.4,
                            y + (stroke[i + 1] - 2) * size / 2,
                            at + stroke[i + 2] * size / 2.4,
                            y + (stroke[i + 3] - 2) * size / 2));
                }
            }
            at += size * 0.66;
        }
    }

    /**
     * What optics and sensor add: blur, then noise.
     *
     * @param focus standard deviation of the blur in pixels
     */
    private void expose(double focus) {
        int[] pixels = ((DataBufferInt) image.getRaster().getDataBuffer()).getData();
        if (focus > 0) {
            int[] line = blur(focus);
            int[] across = new int[pixels.length];
            smear(pixels, across, line, 1, width, height, width);
            smear(across, pixels, line, width, height, width, 1);
        }
        int bits = random.nextInt() | 1;
        for (int i = 0; i < pixels.length; i++) {
            // Quick noise: xorshift, and the difference of two even numbers, which is nearly enough like film.
            bits ^= bits << 13;
            bits ^= bits >>> 17;
            bits ^= bits << 5;
            int noise = (bits & 15) - (bits >> 4 & 15);
            int p = pixels[i];
            pixels[i] = clamp((p >> 16 & 255) + noise) << 16
                    | clamp((p >> 8 & 255) + noise) << 8
                    | clamp((p & 255) + noise);
        }
    }

    /** Weights that add up to 256. */
    private static int[] blur(double focus) {
        int half = (int) Math.ceil(focus * 2);
        int[] line = new int[2 * half + 1];
        double all = 0;
        for (int i = 0; i < line.length; i++) {
            all += weight(i - half, focus);
        }
        int left = 256;
        for (int i = 0; i < line.length; i++) {
            line[i] = (int) Math.round(256 * weight(i - half, focus) / all);
            left -= line[i];
        }
        line[half] += left;
        return line;
    }

    private static double weight(int distance, double focus) {
        return Math.exp(-0.5 * distance * distance / (focus * focus));
    }

    /** Weighs neighbours along lines of {@code length} pixels that are {@code step} apart; there are {@code lines} of them. */
    private static void smear(int[] from, int[] to, int[] weights, int step, int length, int lines, int lineStep) {
        int half = weights.length / 2;
        for (int l = 0; l < lines; l++) {
            int start = l * lineStep;
            for (int i = 0; i < length; i++) {
                int redBlue = 0x800080;
                int green = 0x8000;
                for (int k = -half; k <= half; k++) {
                    int p = from[start + Math.max(0, Math.min(length - 1, i + k)) * step];
                    redBlue += weights[k + half] * (p & 0xff00ff);
                    green += weights[k + half] * (p & 0xff00);
                }
                to[start + i * step] = ((redBlue >>> 8) & 0xff00ff) | ((green >>> 8) & 0xff00);
            }
        }
    }

    private static byte[] jpeg(BufferedImage image) {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ImageWriteParam how = writer.getDefaultWriteParam();
        how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
        how.setCompressionQuality(0.72F);
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (var out = ImageIO.createImageOutputStream(bytes)) {
            writer.setOutput(out);
            writer.write(null, new IIOImage(image, null, null), how);
        } catch (IOException impossible) {
            throw new UncheckedIOException("Writing to memory failed", impossible);
        } finally {
            writer.dispose();
        }
        return bytes.toByteArray();
    }
}
