package org.polyclave.server.store;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Function;
import java.util.function.LongConsumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.run.Progress;
import org.polyclave.files.study.StudyFormat;
import org.polyclave.server.store.persistence.StudyMapper;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads and writes whole studies. The newest state of the most recently used ones is kept compiled; where only cells changed
 * since, it is brought up to date by these cells alone.
 */
@Component
public class StudyStore {
    private static final int KEPT = 16;
    /** About a hundred bytes each. */
    private static final int MOST_SCORES_KEPT = 6_000_000;
    /** Scores that are written by one statement. */
    private static final int AT_ONCE = 10_000;
    /** More changed cells than these are read with everything else. */
    private static final int MOST_CHANGED = 20_000;
    /** Studies with fewer scores are read score by score. */
    private static final int WORTH_PACKING = 50_000;

    private final StudyMapper studies;
    private final PictureStore pictures;
    private final JsonMapper json;
    /** All parts of a study as they are at one moment. */
    private final TransactionTemplate consistent;

    private final Map<Long, ReentrantLock> reading = new ConcurrentHashMap<>();
    /** Weighed by their scores. Small ones weigh as if they had some, so that there are not too many; none is too heavy. */
    private final Cache<Long, Snapshot> cache = Caffeine.newBuilder()
            .maximumWeight(MOST_SCORES_KEPT)
            .<Long, Snapshot>weigher((id, snapshot) -> Math.min(
                    MOST_SCORES_KEPT,
                    Math.max(MOST_SCORES_KEPT / KEPT, snapshot.study().scores().size())))
            .build();

    StudyStore(StudyMapper studies, PictureStore pictures, JsonMapper json, PlatformTransactionManager transactions) {
        this.studies = studies;
        this.pictures = pictures;
        consistent = new TransactionTemplate(transactions);
        consistent.setReadOnly(true);
        consistent.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
        this.json = json;
    }

    /**
     * A study at a revision.
     *
     * @param revisions by key, the revision of the content that an object has; what was never changed is not in it
     */
    public record Snapshot(CompiledStudy compiled, long revision, Map<String, Long> revisions) {
        public Study study() {
            return compiled.study();
        }

        /** Scores by row, then by character. */
        public Map<String, Map<String, StudyScore>> scores() {
            return compiled.scores();
        }

        /** Revision of the content that an object has; 0 for what was never changed. */
        public long revision(StudyObject object) {
            return revisions.getOrDefault(object.key(), 0L);
        }
    }

    /**
     * The study as it is now, or newer. Of several who ask for a study that is not kept, one reads it and the others wait,
     * without a connection to the database: a large one takes seconds and hundreds of megabytes.
     */
    public Snapshot load(long id) {
        long revision = studies.revision(id);
        ReentrantLock reader = reading.computeIfAbsent(id, i -> new ReentrantLock());
        Optional<Snapshot> found = cachedSince(id, revision);
        while (found.isEmpty()) {
            // Whoever reads has a connection already, so those who wait for it cannot take it away.
            Optional<LoadedStudy> read = Objects.requireNonNull(consistent.execute(t -> readFirst(id, reader)));
            read.filter(LoadedStudy::slow).ifPresent(r -> pack(id, r.snapshot()));
            found = read.isPresent() ? read.map(LoadedStudy::snapshot) : awaitConcurrentLoad(id, revision, reader);
        }
        return found.get();
    }

    public Snapshot load(String slug) {
        return load(studies.idOf(slug));
    }

    /** @param slow whether a new pack of its scores would make the next reading faster */
    private record LoadedStudy(Snapshot snapshot, boolean slow) {}

    /** Packs the scores of a large study; small ones are read as fast without. */
    private void pack(long id, Snapshot snapshot) {
        if (snapshot.study().scores().size() >= WORTH_PACKING) {
            studies.putPack(id, snapshot.revision(), ScorePack.pack(snapshot.study(), snapshot.scores(), json));
        }
    }

    private Optional<Snapshot> awaitConcurrentLoad(long id, long revision, ReentrantLock reader) {
        reader.lock();
        try {
            return cachedSince(id, revision);
        } finally {
            reader.unlock();
        }
    }

    /** Reads the study, unless somebody else is reading it. */
    private Optional<LoadedStudy> readFirst(long id, ReentrantLock reader) {
        if (!reader.tryLock()) {
            return Optional.empty();
        }
        try {
            return Optional.of(readNewest(id));
        } finally {
            reader.unlock();
        }
    }

    private Optional<Snapshot> cachedSince(long id, long revision) {
        return Optional.ofNullable(cache.getIfPresent(id)).filter(s -> s.revision() >= revision);
    }

    private LoadedStudy readNewest(long id) {
        StudyMapper.StudyTexts texts = studies.texts(id);
        Snapshot kept = cache.getIfPresent(id);
        if (kept != null && kept.revision() >= texts.revision()) {
            return new LoadedStudy(kept, false);
        }
        LoadedStudy newest = kept == null
                ? read(id, texts)
                : updatedFrom(id, texts, kept)
                        .map(s -> new LoadedStudy(s, false))
                        .orElseGet(() -> read(id, texts));
        cache.put(id, newest.snapshot());
        return newest;
    }

    /** The kept state with the scores that changed since; empty if more than scores did. */
    private Optional<Snapshot> updatedFrom(long id, StudyMapper.StudyTexts texts, Snapshot kept) {
        List<StudyObject> all = studies.changedSince(id, kept.revision()).stream()
                .map(StudyObject::of)
                .toList();
        if (!all.stream().allMatch(StudyObject::isData) || all.isEmpty() || all.size() > MOST_CHANGED) {
            return Optional.empty();
        }
        List<StudyObject> changed = cells(all);
        Map<String, Map<String, StudyScore>> scores = withChanged(
                id, kept.scores(), changed, ScoreRow.empty(kept.study().characters()));
        Map<String, Long> revisions = new HashMap<>(kept.revisions());
        String keys = json.writeValueAsString(all.stream().map(StudyObject::key).toList());
        studies.revisions(id, keys).forEach(r -> revisions.put(r.object(), r.revision()));
        Study study = kept.study().withScores(inOrder(kept.study(), scores));
        if (all.stream().anyMatch(o -> o.kind() == StudyObject.Kind.OPINION)) {
            study = study.withOpinions(all(studies.entries(id, "opinion"), Opinion.class));
        }
        List<String> readings = all.stream()
                .filter(o -> o.kind() == StudyObject.Kind.READING)
                .map(StudyObject::id)
                .toList();
        if (!readings.isEmpty()) {
            study = study.withReadings(withChanged(id, study.readings(), readings));
        }
        Set<String> characters = changed.stream().map(StudyObject::character).collect(Collectors.toSet());
        CompiledStudy compiled = StudyCompiler.recompile(kept.compiled(), study, scores, characters);
        return Optional.of(new Snapshot(compiled, texts.revision(), revisions));
    }

    private static List<StudyObject> cells(List<StudyObject> objects) {
        return objects.stream().filter(o -> o.kind() == StudyObject.Kind.CELL).toList();
    }

    /** Readings with some as they are now; new ones come last, as their places are. */
    private List<Reading> withChanged(long id, List<Reading> before, List<String> changed) {
        Map<String, Reading> now = new LinkedHashMap<>();
        studies.someEntries(id, "reading", json.writeValueAsString(changed))
                .forEach(c -> now.put(c.object(), json.readValue(c.body(), Reading.class)));
        Set<String> touched = new HashSet<>(changed);
        List<Reading> after = new ArrayList<>();
        for (Reading reading : before) {
            Reading kept = touched.contains(reading.id()) ? now.remove(reading.id()) : reading;
            if (kept != null) {
                after.add(kept);
            }
        }
        after.addAll(now.values());
        return after;
    }

    /** Scores with those of some cells as they are now. Rows without changed cells are shared. */
    private Map<String, Map<String, StudyScore>> withChanged(
            long id, Map<String, Map<String, StudyScore>> before, List<StudyObject> changed, ScoreRow empty) {
        ArrayNode wanted = json.createArrayNode();
        changed.forEach(
                o -> wanted.add(json.createObjectNode().put("row", o.id()).put("character", o.character())));
        Map<StudyObject, StudyScore> now = new HashMap<>();
        studies.cells(id, wanted.toString())
                .forEach(c -> now.put(StudyObject.of(c.object()), json.readValue(c.body(), StudyScore.class)));
        Map<String, Map<String, StudyScore>> scores = new LinkedHashMap<>(before);
        Map<String, ScoreRow> copied = new HashMap<>();
        for (StudyObject cell : changed) {
            ScoreRow row = copied.computeIfAbsent(
                    cell.id(), r -> (before.get(r) instanceof ScoreRow own ? own : empty).copy());
            scores.put(cell.id(), row);
            StudyScore score = now.get(cell);
            if (score == null) {
                row.remove(cell.character());
            } else {
                row.put(cell.character(), score);
            }
        }
        return scores;
    }

    /** Scores, and whether reading them took its time. */
    private record Scores(Map<String, Map<String, StudyScore>> byRow, boolean slow) {}

    private Scores scores(long id, ScoreRow empty) {
        return studies.pack(id).flatMap(pack -> unpacked(id, pack, empty)).orElseGet(() -> {
            Map<String, Map<String, StudyScore>> byRow = new LinkedHashMap<>();
            for (StudyScore score : all(studies.scores(id), StudyScore.class)) {
                byRow.computeIfAbsent(score.row(), r -> empty.copy()).put(score.character(), score);
            }
            return new Scores(byRow, true);
        });
    }

    /** What was packed, with the cells that changed since; empty if these are too many, or the pack is of another version. */
    private Optional<Scores> unpacked(long id, StudyMapper.Pack pack, ScoreRow empty) {
        List<StudyObject> changed = cells(studies.changedSince(id, pack.revision()).stream()
                .map(StudyObject::of)
                .toList());
        return changed.size() > MOST_CHANGED
                ? Optional.empty()
                : ScorePack.unpack(pack.body(), empty, json)
                        .map(scores -> new Scores(
                                withChanged(id, scores, changed, empty), changed.size() > MOST_CHANGED / 10));
    }

    private LoadedStudy read(long id, StudyMapper.StudyTexts texts) {
        List<StudyRow> rows = all(studies.rows(id), StudyRow.class);
        List<StudyCharacter> characters = all(studies.characters(id), StudyCharacter.class);
        Scores scores = scores(id, ScoreRow.empty(characters));
        Map<String, Long> revisions = studies.allRevisions(id).stream()
                .collect(Collectors.toMap(StudyMapper.ObjectRevision::object, StudyMapper.ObjectRevision::revision));
        Study bare = new Study(
                texts.slug(),
                texts.title(),
                json.readValue(texts.scope(), StudyScope.class),
                rows,
                List.of(json.readValue(texts.nearButOutside(), OutsideTaxon[].class)),
                characters,
                List.of(),
                all(studies.entries(id, "term"), GlossaryTerm.class),
                all(studies.entries(id, "reference"), Reference.class),
                all(studies.entries(id, "claim"), Claim.class),
                all(studies.entries(id, "picture"), Picture.class),
                all(studies.entries(id, "opinion"), Opinion.class),
                all(studies.entries(id, "specimen"), Specimen.class),
                all(studies.entries(id, "reading"), Reading.class));
        Study study = bare.withScores(inOrder(bare, scores.byRow()));
        Snapshot snapshot = new Snapshot(StudyCompiler.compile(study, scores.byRow()), texts.revision(), revisions);
        return new LoadedStudy(snapshot, scores.slow());
    }

    private <T> List<T> all(List<String> bodies, Class<T> type) {
        return bodies.stream().map(b -> json.readValue(b, type)).toList();
    }

    /** In the order of rows, and of characters as every row has them: files of one study are alike whatever came first. */
    private static List<StudyScore> inOrder(Study study, Map<String, Map<String, StudyScore>> scores) {
        List<StudyScore> sorted =
                new ArrayList<>(study.rows().size() * study.characters().size());
        study.rows().forEach(r -> scores.getOrDefault(r.id(), Map.of()).forEach((c, score) -> sorted.add(score)));
        return sorted;
    }

    /** A study with the bytes of its pictures, as a study file holds it. */
    public Study withPictures(long id, Study study) {
        return study.withPictures(pictures.withData(id, study.pictures()));
    }

    /** A study whose new pictures are kept, and without their bytes. */
    public Study keptPictures(long id, Study before, Study after) {
        if (after.pictures().equals(before.pictures())) {
            return after;
        }
        List<Picture> kept = new ArrayList<>();
        for (Picture picture : after.pictures()) {
            kept.addAll(
                    before.pictures().contains(picture) ? List.of(picture) : pictures.keepAll(id, List.of(picture)));
        }
        return after.withPictures(kept);
    }

    /** Writes a new study, whole or not at all; the slug gets a number if it is taken. */
    @Transactional
    public String create(Study study, long owner) {
        return create(study, owner, id -> {}, Progress.UNSEEN);
    }

    /** @param progress told between parts of the scores; what it throws takes everything back */
    @Transactional
    public String create(Study study, long owner, Progress progress) {
        return create(study, owner, id -> {}, progress);
    }

    /** A new study like another one, whose pictures it may show, too. */
    @Transactional
    public String copy(Study study, long from, long owner) {
        return create(study, owner, id -> pictures.shareAll(from, id), Progress.UNSEEN);
    }

    private String create(Study study, long owner, LongConsumer before, Progress progress) {
        String slug = Slug.unused(study.slug(), studies::slugTaken);
        studies.insertStudy(
                slug,
                study.title(),
                json.writeValueAsString(study.scope()),
                json.writeValueAsString(study.nearButOutside()),
                StudyFormat.VERSION);
        long id = studies.idOf(slug);
        studies.insertOwner(id, owner);
        before.accept(id);
        for (int i = 0; i < study.rows().size(); i++) {
            StudyRow row = study.rows().get(i);
            studies.insertRow(id, row.id(), i, json.writeValueAsString(row));
        }
        for (int c = 0; c < study.characters().size(); c++) {
            StudyCharacter character = study.characters().get(c);
            studies.insertCharacter(id, character.id(), c, json.writeValueAsString(character));
        }
        insertEntries(id, "term", study.glossary(), GlossaryTerm::id);
        insertEntries(id, "reference", study.references(), Reference::id);
        insertEntries(id, "claim", study.claims(), Claim::id);
        insertEntries(id, "picture", pictures.keepAll(id, study.pictures()), Picture::id);
        insertEntries(id, "opinion", study.opinions(), Opinion::id);
        insertEntries(id, "specimen", study.specimens(), Specimen::id);
        insertEntries(id, "reading", study.readings(), Reading::id);
        insertScores(id, study, owner, progress);
        return slug;
    }

    /** The database is the slower of the two: what it gets next, and the pack, are made while it writes. */
    private void insertScores(long id, Study study, long owner, Progress progress) {
        List<StudyScore> scores = study.scores();
        @Nullable
        CompletableFuture<byte[]> pack = scores.size() < WORTH_PACKING
                ? null
                : CompletableFuture.supplyAsync(() -> ScorePack.pack(study, study.scoresByRow(), json));
        CompletableFuture<String> next = written(scores, 0);
        for (int from = 0; from < scores.size(); from += AT_ONCE) {
            progress.report(from / (double) scores.size());
            String some = next.join();
            next = written(scores, from + AT_ONCE);
            studies.insertScores(id, some, owner);
        }
        if (pack != null) {
            studies.putPack(id, studies.revision(id), pack.join());
            // Until the database has counted again it takes a few cells of so many for a large part of them, and reads
            // all.
            studies.countScores();
        }
    }

    private CompletableFuture<String> written(List<StudyScore> scores, int from) {
        List<StudyScore> some = scores.subList(Math.min(from, scores.size()), Math.min(from + AT_ONCE, scores.size()));
        return CompletableFuture.supplyAsync(() -> json.writeValueAsString(some));
    }

    private <T> void insertEntries(long study, String kind, List<T> entries, Function<T, String> id) {
        ArrayNode all = json.createArrayNode();
        for (int i = 0; i < entries.size(); i++) {
            ObjectNode after =
                    json.createObjectNode().put("position", (double) i).set("body", json.valueToTree(entries.get(i)));
            all.add(json.createObjectNode()
                    .put("kind", kind)
                    .put("id", id.apply(entries.get(i)))
                    .set("after", after));
        }
        if (!all.isEmpty()) {
            studies.insertEntries(study, all.toString());
        }
    }
}
