package org.polyclave.server.study;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.OutsideTaxon;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyCompiler;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyScope;
import org.polyclave.formats.study.StudyScore;
import org.polyclave.server.study.persistence.ChangeMapper;
import org.polyclave.server.study.persistence.StudyMapper;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Reads and writes whole studies; keeps the most recently used ones compiled, by study and revision. */
@Component
public class StudyStore {
    private static final int KEPT = 16;
    /** Scores that are written by one statement. */
    private static final int AT_ONCE = 10_000;

    private final StudyMapper studies;
    private final ChangeMapper changes;
    private final JsonMapper json;
    private final Map<String, Snapshot> cache = new LinkedHashMap<>(KEPT, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Snapshot> eldest) {
            return size() > KEPT;
        }
    };

    StudyStore(StudyMapper studies, ChangeMapper changes, JsonMapper json) {
        this.studies = studies;
        this.changes = changes;
        this.json = json;
    }

    /** A study at a revision. */
    public record Snapshot(CompiledStudy compiled, long revision, Map<String, Long> revisions) {
        public Study study() {
            return compiled.study();
        }

        /** Revision of the content that an object has; 0 for what was never changed. */
        public long revision(StudyObject object) {
            return revisions.getOrDefault(object.key(), 0L);
        }
    }

    @Transactional(readOnly = true, isolation = org.springframework.transaction.annotation.Isolation.REPEATABLE_READ)
    public Snapshot load(long id) {
        StudyMapper.StudyTexts texts = studies.texts(id);
        String key = id + ":" + texts.revision();
        synchronized (cache) {
            Snapshot kept = cache.get(key);
            if (kept != null) {
                return kept;
            }
        }
        List<StudyRow> rows = studies.rows(id).stream()
                .map(b -> json.readValue(b, StudyRow.class))
                .toList();
        List<StudyCharacter> characters = studies.characters(id).stream()
                .map(b -> json.readValue(b, StudyCharacter.class))
                .toList();
        List<StudyScore> scores = new ArrayList<>();
        for (String score : studies.scores(id)) {
            scores.add(json.readValue(score, StudyScore.class));
        }
        Map<String, Long> revisions = changes.allRevisions(id).stream()
                .collect(Collectors.toMap(ChangeMapper.Revision::object, ChangeMapper.Revision::revision));
        Study study = new Study(
                texts.slug(),
                texts.title(),
                json.readValue(texts.scope(), StudyScope.class),
                rows,
                List.of(json.readValue(texts.nearButOutside(), OutsideTaxon[].class)),
                characters,
                ordered(scores, rows, characters));
        Snapshot snapshot = new Snapshot(StudyCompiler.compile(study), texts.revision(), revisions);
        synchronized (cache) {
            cache.put(key, snapshot);
        }
        return snapshot;
    }

    /** Scores in the order of rows and characters, so that files of one study are alike whatever was scored first. */
    private static List<StudyScore> ordered(
            List<StudyScore> scores, List<StudyRow> rows, List<StudyCharacter> characters) {
        Map<String, Integer> position = new LinkedHashMap<>();
        rows.forEach(r -> position.put("row " + r.id(), position.size()));
        characters.forEach(c -> position.put("character " + c.id(), position.size()));
        List<StudyScore> sorted = new ArrayList<>(scores);
        sorted.sort(java.util.Comparator.<StudyScore, Integer>comparing(s -> position.getOrDefault("row " + s.row(), 0))
                .thenComparing(s -> position.getOrDefault("character " + s.character(), 0)));
        return sorted;
    }

    /** Writes a new study, whole or not at all; the slug gets a number if it is taken. */
    @Transactional
    public String create(Study study, long owner) {
        String slug = study.slug();
        for (int n = 2; studies.slugTaken(slug); n++) {
            slug = study.slug() + "-" + n;
        }
        studies.insertStudy(
                slug,
                study.title(),
                json.writeValueAsString(study.scope()),
                json.writeValueAsString(study.nearButOutside()));
        long id = studies.idOf(slug);
        studies.putMember(id, owner, Role.OWNER.name());
        for (int i = 0; i < study.rows().size(); i++) {
            StudyRow row = study.rows().get(i);
            studies.insertRow(id, row.id(), i, json.writeValueAsString(row));
        }
        for (int c = 0; c < study.characters().size(); c++) {
            StudyCharacter character = study.characters().get(c);
            studies.insertCharacter(id, character.id(), c, json.writeValueAsString(character));
        }
        for (int from = 0; from < study.scores().size(); from += AT_ONCE) {
            List<StudyScore> some = study.scores()
                    .subList(from, Math.min(from + AT_ONCE, study.scores().size()));
            studies.insertScores(id, json.writeValueAsString(some), owner);
        }
        return slug;
    }
}
