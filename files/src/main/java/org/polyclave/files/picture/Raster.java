package org.polyclave.files.picture;

import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.lang.GeoLocation;
import com.drew.metadata.Metadata;
import com.drew.metadata.MetadataException;
import com.drew.metadata.exif.ExifIFD0Directory;
import com.drew.metadata.exif.GpsDirectory;
import com.twelvemonkeys.imageio.plugins.webp.WebPImageReaderSpi;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.image.AffineTransformOp;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Locale;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageInputStream;
import javax.imageio.stream.ImageOutputStream;
import org.jspecify.annotations.Nullable;

/** Pictures made of pixels: decoded, turned upright and encoded again, without what the file said besides. */
final class Raster {
    private static final int THUMBNAIL = 320;
    private static final float QUALITY = 0.92f;

    private Raster() {}

    enum Kind {
        PNG,
        JPEG,
        WEBP
    }

    static PictureFile of(byte[] bytes, Kind kind) throws PictureFile.Refused {
        if (!Chunks.endWithin(bytes, kind)) {
            throw damaged(kind);
        }
        try {
            Metadata said = metadata(bytes);
            int orientation = orientation(said);
            BufferedImage image = upright(decode(bytes, kind), orientation);
            boolean transparent = image.getColorModel().hasAlpha();
            boolean asJpeg = kind == Kind.JPEG || (kind == Kind.WEBP && !transparent);
            boolean clean = kind == Kind.JPEG && orientation == 1 && JpegSegments.onlyPicture(bytes);
            byte[] written = clean ? bytes : asJpeg ? jpeg(image) : png(image);
            return new PictureFile(
                    asJpeg ? "image/jpeg" : "image/png",
                    image.getWidth(),
                    image.getHeight(),
                    written,
                    thumbnail(image, asJpeg),
                    place(said));
        } catch (IOException | RuntimeException broken) {
            // Decoders of damaged files fail in many ways; none of them may reach the reader.
            throw damaged(kind);
        }
    }

    private static PictureFile.Refused damaged(Kind kind) {
        return new PictureFile.Refused(
                "The " + kind + " picture is damaged or cut off and cannot be decoded. Save it again.");
    }

    private static BufferedImage decode(byte[] bytes, Kind kind) throws IOException, PictureFile.Refused {
        ImageReader reader = kind == Kind.WEBP
                ? new WebPImageReaderSpi().createReaderInstance(null)
                : ImageIO.getImageReadersByFormatName(kind.name().toLowerCase(Locale.ROOT))
                        .next();
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            reader.setInput(in, true, true);
            long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
            if (pixels > PictureFile.MOST_PIXELS) {
                throw new PictureFile.Refused("The picture has " + pixels / 1_000_000
                        + " megapixels; up to 100 can be kept. Save it smaller, or cut it to what it is to show.");
            }
            return reader.read(0);
        } finally {
            reader.dispose();
        }
    }

    private static @Nullable Metadata metadata(byte[] bytes) throws IOException {
        try {
            return ImageMetadataReader.readMetadata(new ByteArrayInputStream(bytes));
        } catch (ImageProcessingException unknown) {
            return null;
        }
    }

    private static int orientation(@Nullable Metadata said) {
        ExifIFD0Directory exif = said == null ? null : said.getFirstDirectoryOfType(ExifIFD0Directory.class);
        if (exif == null || !exif.containsTag(ExifIFD0Directory.TAG_ORIENTATION)) {
            return 1;
        }
        try {
            return exif.getInt(ExifIFD0Directory.TAG_ORIENTATION);
        } catch (MetadataException unreadable) {
            return 1;
        }
    }

    private static @Nullable String place(@Nullable Metadata said) {
        GpsDirectory gps = said == null ? null : said.getFirstDirectoryOfType(GpsDirectory.class);
        GeoLocation at = gps == null ? null : gps.getGeoLocation();
        return at == null || at.isZero()
                ? null
                : String.format(Locale.ROOT, "%.5f, %.5f", at.getLatitude(), at.getLongitude());
    }

    /** Turns and mirrors as the camera's orientation (1 to 8, Exif 2.3) asks. */
    private static BufferedImage upright(BufferedImage image, int orientation) {
        double w = image.getWidth();
        double h = image.getHeight();
        AffineTransform turn = switch (orientation) {
            case 2 -> new AffineTransform(-1, 0, 0, 1, w, 0);
            case 3 -> new AffineTransform(-1, 0, 0, -1, w, h);
            case 4 -> new AffineTransform(1, 0, 0, -1, 0, h);
            case 5 -> new AffineTransform(0, 1, 1, 0, 0, 0);
            case 6 -> new AffineTransform(0, 1, -1, 0, h, 0);
            case 7 -> new AffineTransform(0, -1, -1, 0, h, w);
            case 8 -> new AffineTransform(0, -1, 1, 0, 0, w);
            default -> new AffineTransform();
        };
        if (turn.isIdentity()) {
            return image;
        }
        boolean lies = orientation > 4;
        BufferedImage upright = new BufferedImage((int) (lies ? h : w), (int) (lies ? w : h), kindOf(image));
        return new AffineTransformOp(turn, AffineTransformOp.TYPE_NEAREST_NEIGHBOR).filter(plain(image), upright);
    }

    private static int kindOf(BufferedImage image) {
        return image.getColorModel().hasAlpha() ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB;
    }

    private static BufferedImage plain(BufferedImage image) {
        return scaled(image, image.getWidth(), image.getHeight(), kindOf(image));
    }

    private static BufferedImage scaled(BufferedImage image, int width, int height, int kind) {
        BufferedImage other = new BufferedImage(width, height, kind);
        Graphics2D pen = other.createGraphics();
        pen.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        pen.drawImage(image, 0, 0, width, height, null);
        pen.dispose();
        return other;
    }

    private static byte[] thumbnail(BufferedImage image, boolean asJpeg) throws IOException {
        BufferedImage small = image;
        // Halving step by step keeps fine lines, which one large step would drop.
        while (Math.max(small.getWidth(), small.getHeight()) > THUMBNAIL) {
            double by = Math.max(0.5, (double) THUMBNAIL / Math.max(small.getWidth(), small.getHeight()));
            int width = Math.max(1, (int) Math.round(small.getWidth() * by));
            int height = Math.max(1, (int) Math.round(small.getHeight() * by));
            small = scaled(small, width, height, kindOf(image));
        }
        return asJpeg ? jpeg(small) : png(small);
    }

    private static byte[] png(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static byte[] jpeg(BufferedImage image) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ImageWriteParam how = writer.getDefaultWriteParam();
        how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
        how.setCompressionQuality(QUALITY);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ImageOutputStream stream = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(stream);
            BufferedImage opaque = scaled(image, image.getWidth(), image.getHeight(), BufferedImage.TYPE_INT_RGB);
            writer.write(null, new IIOImage(opaque, null, null), how);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }
}
