package org.polyclave.server.edition;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.zip.Deflater;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.polyclave.files.study.StudyFormat;
import org.polyclave.files.study.StudyUpgrades;
import org.polyclave.print.cover.CoverPage;
import org.polyclave.server.edition.persistence.EditionMapper;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.PictureStore;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.wording.cover.Cover;
import org.polyclave.wording.key.KeyView;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** What readers read. An edition never changes, so that whatever was made of one is kept by its hash. */
@Service
public class EditionShelf {
    private static final int KEPT = 16;
    private static final int KEPT_COVERS = 200;
    private static final Pattern CONTENT = Pattern.compile("[0-9a-f]{64}");

    private final EditionMapper editions;
    private final PictureStore pictures;
    private final JsonMapper json;

    private final Cache<String, ReadableEdition> readable =
            Caffeine.newBuilder().maximumSize(KEPT).build();
    private final Cache<String, Set<String>> shown =
            Caffeine.newBuilder().maximumSize(KEPT_COVERS).build();
    private final Cache<CoverKey, String> covers =
            Caffeine.newBuilder().maximumSize(KEPT_COVERS).build();

    EditionShelf(EditionMapper editions, PictureStore pictures, JsonMapper json) {
        this.editions = editions;
        this.pictures = pictures;
        this.json = json;
    }

    public record EditionLine(int number, String status, String reason, String publishedAt, String who) {}

    /** @param keys that of all taxa, and the further ones */
    public record ReadableEdition(CompiledStudy study, List<KeyView> keys) {
        private static ReadableEdition of(EditionDocument edition) {
            List<KeyView> keys = new ArrayList<>(List.of(edition.key()));
            edition.keys().forEach(k -> keys.add(k.key()));
            return new ReadableEdition(StudyCompiler.compile(edition.study()), keys);
        }
    }

    /** What a cover says depends on the edition and on what became of it. */
    private record CoverKey(String hash, Cover.Standing standing, String reason) {}

    public int newest(String slug) {
        return editions.newest(slug).orElseThrow(Problems::notFound);
    }

    public List<EditionLine> list(String slug) {
        return editions.list(slug).stream()
                .map(l -> new EditionLine(l.number(), l.status(), l.reason(), l.publishedAt(), l.who()))
                .toList();
    }

    /** Names an edition by what is in it. */
    public String hash(String slug, int number) {
        return row(slug, number).hash();
    }

    private EditionMapper.EditionRow row(String slug, int number) {
        return editions.find(slug, number).orElseThrow(Problems::notFound);
    }

    /** The document byte for byte as it was published. */
    public byte[] asPublished(String slug, int number) {
        return document(slug, number).getBytes(StandardCharsets.UTF_8);
    }

    private String document(String slug, int number) {
        return editions.document(slug, number).orElseThrow(Problems::notFound);
    }

    /**
     * The document as {@link StudyFormat#VERSION} has it, with gzip: it says the same, whatever its JSON looked like when it
     * was published.
     */
    public byte[] packed(String slug, int number) {
        return editions.packed(slug, number, StudyFormat.VERSION).orElseGet(() -> pack(slug, number));
    }

    /** Compresses an edition for all readers to come. */
    byte[] pack(String slug, int number) {
        byte[] packed = gzip(inPresentFormat(document(slug, number)));
        editions.insertPacked(slug, number, StudyFormat.VERSION, packed);
        return packed;
    }

    private static byte[] gzip(String text) {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(packed) {
            {
                // It is done once and sent often.
                def.setLevel(Deflater.BEST_COMPRESSION);
            }
        }) {
            out.write(text.getBytes(StandardCharsets.UTF_8));
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return packed.toByteArray();
    }

    /** For a reader's program that cannot unpack. */
    public static byte[] unpacked(byte[] packed) {
        try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(packed))) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private String inPresentFormat(String document) {
        // The format is the first thing that is written; a large document is not parsed to find it out.
        if (document.startsWith("{\"format\":" + StudyFormat.VERSION + ",")) {
            return document;
        }
        ObjectNode whole = (ObjectNode) json.readTree(document);
        // The first documents name no format.
        int format = Math.max(1, whole.path("format").asInt(1));
        whole.set("study", StudyUpgrades.ALL.study(format, (ObjectNode) whole.path("study")));
        return whole.put("format", StudyFormat.VERSION).toString();
    }

    private EditionDocument read(String slug, int number) {
        return json.readValue(unpacked(packed(slug, number)), EditionDocument.class);
    }

    /** What answers are made from. */
    public ReadableEdition readable(String slug, int number) {
        return readable.get(hash(slug, number), h -> ReadableEdition.of(read(slug, number)));
    }

    /** The study of an edition, compiled. */
    public CompiledStudy compiled(String slug, int number) {
        return readable(slug, number).study();
    }

    /** What is in a picture of an edition; pictures that are not in it do not exist. */
    public Optional<PictureStore.Content> picture(String slug, int number, String content, boolean small) {
        EditionMapper.EditionRow row = row(slug, number);
        Set<String> contents = shown.get(
                row.hash(),
                h -> CONTENT.matcher(document(slug, number))
                        .results()
                        .map(MatchResult::group)
                        .collect(Collectors.toCollection(HashSet::new)));
        return contents.contains(content) ? pictures.find(row.studyId(), content, small) : Optional.empty();
    }

    /** The cover of an edition, as HTML that needs no script. */
    public String cover(String slug, int number) {
        EditionLine line = list(slug).stream()
                .filter(l -> l.number() == number)
                .findFirst()
                .orElseThrow(Problems::notFound);
        CoverKey key = new CoverKey(hash(slug, number), Cover.Standing.valueOf(line.status()), line.reason());
        return covers.get(key, k -> CoverPage.html(cover(read(slug, number), k.standing(), k.reason()), slug));
    }

    private static Cover cover(EditionDocument edition, Cover.Standing standing, String reason) {
        return Cover.of(
                        edition.study(),
                        edition.number(),
                        edition.date(),
                        edition.authors(),
                        edition.cautions(),
                        declared(edition.study(), edition.declarations()),
                        edition.kit(),
                        standing,
                        reason)
                .holding(edition.keys().stream()
                        .map(EditionDocument.PublishedKey::name)
                        .toList());
    }

    /** The cover of an edition that is not there yet. */
    static String cover(
            String slug,
            int number,
            String date,
            List<String> authors,
            Study study,
            List<String> cautions,
            List<EditionDocument.Declaration> declarations,
            List<String> kit,
            List<String> keys) {
        List<Cover.Declared> declared = declared(study, declarations);
        return CoverPage.html(
                Cover.of(study, number, date, authors, cautions, declared, kit, Cover.Standing.CURRENT, "")
                        .holding(keys),
                slug);
    }

    private static List<Cover.Declared> declared(Study study, List<EditionDocument.Declaration> declarations) {
        return declarations.stream()
                .map(d -> new Cover.Declared(
                        d.name().isEmpty() ? name(study, d.danger()) : d.name(),
                        d.others().stream().map(o -> name(study, o)).toList(),
                        d.months(),
                        d.text()))
                .toList();
    }

    private static String name(Study study, String row) {
        return study.row(row).map(StudyRow::name).orElse(row);
    }
}
