package org.polyclave.server.store;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.picture.PictureFile;
import org.polyclave.server.job.Retention;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.persistence.PictureMapper;
import org.polyclave.study.model.Picture;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.ErrorResponseException;

/** Keeps what is in pictures, by content. Nothing gets in that was not decoded and encoded again. */
@Component
public class PictureStore implements Retention {
    /** Pictures decoded at once: a large one takes some hundred megabytes meanwhile. */
    private static final Semaphore DECODING = new Semaphore(2);

    private final PictureMapper pictures;

    PictureStore(PictureMapper pictures) {
        this.pictures = pictures;
    }

    /** What is in a picture, ready to be sent. */
    public record Content(String mediaType, byte[] bytes) {}

    /** A cleaned file with the hash under which it is kept. */
    public record Cleaned(String content, PictureFile file) {}

    /** Decodes a file and encodes it again; nothing is kept yet. */
    public static Cleaned clean(byte[] bytes) {
        DECODING.acquireUninterruptibly();
        try {
            PictureFile file = PictureFile.of(bytes);
            return new Cleaned(hash(file.bytes()), file);
        } catch (PictureFile.Refused refused) {
            throw refusal(refused.sentence());
        } finally {
            DECODING.release();
        }
    }

    @Transactional
    public void keep(long study, Cleaned cleaned) {
        PictureFile file = cleaned.file();
        pictures.keep(cleaned.content(), file.mediaType(), file.bytes(), file.thumbnail());
        pictures.allow(study, cleaned.content());
    }

    /** A study may show whatever another one may. */
    @Transactional
    public void shareAll(long from, long to) {
        pictures.allowAll(from, to);
    }

    /**
     * Pictures that came in a study file, held to the same rules as uploads; they are kept, and come back without their
     * bytes. Those without bytes have to be known to the study.
     */
    @Transactional
    public List<Picture> keepAll(long study, List<Picture> all) {
        List<Picture> kept = new ArrayList<>();
        for (Picture picture : all) {
            kept.add(picture.data().isEmpty() ? known(study, picture) : taken(study, picture));
        }
        return kept;
    }

    /**
     * Why pictures of a study file cannot be kept, one sentence each; nothing is kept.
     *
     * @param study that they are to join; null: they come with a new one
     */
    public List<String> problems(@Nullable Long study, List<Picture> all) {
        List<String> found = new ArrayList<>();
        for (Picture picture : all) {
            try {
                if (!picture.data().isEmpty()) {
                    clean(bytes(picture));
                } else if (study == null || !pictures.isKnown(study, picture.content())) {
                    found.add(missing(picture));
                }
            } catch (ErrorResponseException refused) {
                found.add("The picture '" + picture.shows() + "': "
                        + refused.getBody().getDetail());
            }
        }
        return found;
    }

    private static String missing(Picture picture) {
        return "The file names the picture '" + picture.shows() + "' but does not hold it. Export the study again.";
    }

    private static ErrorResponseException refusal(String sentence) {
        return Problems.unprocessable(ProblemCode.PICTURE, sentence, Map.of());
    }

    private Picture known(long study, Picture picture) {
        if (!pictures.isKnown(study, picture.content())) {
            throw refusal(missing(picture));
        }
        return picture;
    }

    private Picture taken(long study, Picture picture) {
        Cleaned cleaned = clean(bytes(picture));
        keep(study, cleaned);
        PictureFile file = cleaned.file();
        return picture.cleaned(cleaned.content(), file.mediaType(), file.width(), file.height());
    }

    private static byte[] bytes(Picture picture) {
        try {
            return Base64.getDecoder().decode(picture.data());
        } catch (IllegalArgumentException broken) {
            throw refusal("The picture '" + picture.shows() + "' in the file is not Base64. Export the study again.");
        }
    }

    /** Pictures with their bytes, as a study file holds them. */
    public List<Picture> withData(long study, List<Picture> all) {
        return all.stream()
                .map(p -> pictures.find(study, p.content())
                        .map(c -> p.withData(Base64.getEncoder().encodeToString(c.bytes())))
                        .orElse(p))
                .toList();
    }

    public Optional<Content> find(long study, String content, boolean small) {
        Optional<PictureMapper.ContentRow> row =
                small ? pictures.findSmall(study, content) : pictures.find(study, content);
        return row.map(r -> new Content(r.mediaType(), r.bytes()));
    }

    private static String hash(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("Every Java has SHA-256", impossible);
        }
    }

    /** Forgets what no study may show any more. */
    @Override
    @Transactional
    public void forget() {
        pictures.removeUnreferenced();
    }
}
