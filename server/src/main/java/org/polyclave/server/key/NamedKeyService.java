package org.polyclave.server.key;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.polyclave.core.key.Proof;
import org.polyclave.core.key.SupportPropagationProver;
import org.polyclave.files.key.KeyJson;
import org.polyclave.files.study.StudyJson;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.key.persistence.NamedKeyMapper;
import org.polyclave.server.key.persistence.NamedKeyMapper.MadeKey;
import org.polyclave.server.key.persistence.NamedKeyMapper.NamedKeyRow;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.change.KeyChanges;
import org.polyclave.study.change.StudyDifference.Change;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/**
 * Keys of a study that somebody gave a name. Each stays as it was made until somebody updates it, and is held against the
 * study as it is now.
 */
@Service
public class NamedKeyService {
    private static final int MOST = 50;
    private static final int LONGEST_NAME = 80;
    private static final int KEPT = 500;

    private final NamedKeyMapper rows;
    private final KeyService keys;
    private final StudyStore store;
    private final JsonMapper json;

    private final Cache<JudgedKey, Judgement> judged =
            Caffeine.newBuilder().maximumSize(KEPT).build();

    NamedKeyService(NamedKeyMapper rows, KeyService keys, StudyStore store, JsonMapper json) {
        this.rows = rows;
        this.keys = keys;
        this.store = store;
        this.json = json;
    }

    /**
     * How a key stands to the study as it is now.
     *
     * @param current whether nothing changed that it rests on
     * @param changes how much changed
     * @param proven whether it is proven against the study as it is now
     */
    public record Standing(boolean current, int changes, boolean proven) {}

    /**
     * @param published whether editions hold it
     * @param revision of the study that it was made from
     * @param at when it was kept, ISO 8601
     */
    public record NamedKeyLine(
            long id,
            String name,
            KeyService.KeyRequest request,
            boolean published,
            long revision,
            String who,
            String at,
            KeyView.FiguresView figures,
            Standing standing) {}

    /**
     * A key as it was kept.
     *
     * @param changes what changed since
     * @param failures where it is not proven against the study as it is now
     */
    public record NamedKey(NamedKeyLine line, KeyView key, ChangePreview changes, List<String> failures) {}

    /** A key is kept as it was made from a revision; what it was kept from before is another one. */
    private record JudgedKey(long id, String keptAt, long keptRevision, long revision) {}

    private record Judgement(List<Change> changes, boolean sameLeftOut, List<String> failures) {
        Standing standing() {
            return new Standing(changes.isEmpty() && sameLeftOut, changes.size(), failures.isEmpty());
        }
    }

    public List<NamedKeyLine> all(OpenStudy open) {
        StudyStore.Snapshot now = store.load(open.id());
        return rows.all(open.id()).stream()
                .map(r -> line(r, judgement(open, r, now)))
                .toList();
    }

    public NamedKey find(OpenStudy open, long id) {
        NamedKeyRow row = row(open, id);
        StudyStore.Snapshot now = store.load(open.id());
        Judgement judgement = judgement(open, row, now);
        ChangePreview changes = ChangePreview.of(new StudyWriter.Planned(now.revision(), judgement.changes()));
        return new NamedKey(line(row, judgement), answer(open, id).view(), changes, judgement.failures());
    }

    public String file(OpenStudy open, long id, String format, boolean plain) {
        return KeyService.file(answer(open, id), format, plain);
    }

    /**
     * Keeps a key that was made, under a new name.
     *
     * @param job that made it
     */
    public NamedKeyLine keep(OpenStudy open, String name, String job) {
        if (rows.count(open.id()) >= MOST) {
            throw Problems.unprocessable(
                    ProblemCode.TOO_MANY,
                    "A study keeps up to " + MOST + " keys. Remove one that is no longer needed.",
                    Map.of());
        }
        String wanted = named(open, name, 0);
        long id =
                rows.insert(open.id(), wanted, open.account(), made(open, job)).orElseThrow(() -> taken(wanted));
        return find(open, id).line();
    }

    /** Replaces a key by another that was made; its name stays. */
    public NamedKeyLine replace(OpenStudy open, long id, String job) {
        if (rows.replace(open.id(), id, open.account(), made(open, job)) == 0) {
            throw Problems.notFound();
        }
        return find(open, id).line();
    }

    /** Names a key, and says whether editions hold it. */
    public NamedKeyLine update(OpenStudy open, long id, String name, boolean published) {
        row(open, id);
        rows.update(open.id(), id, named(open, name, id), published);
        return find(open, id).line();
    }

    public void remove(OpenStudy open, long id) {
        if (rows.delete(open.id(), id) == 0) {
            throw Problems.notFound();
        }
    }

    /**
     * The keys that editions hold.
     *
     * @throws org.springframework.web.ErrorResponseException if one of them no longer fits the study
     */
    public List<NamedKey> published(OpenStudy open) {
        List<NamedKey> published = rows.all(open.id()).stream()
                .filter(NamedKeyRow::published)
                .map(r -> find(open, r.id()))
                .toList();
        for (NamedKey key : published) {
            NamedKeyLine line = key.line();
            if (!line.standing().current()) {
                throw refused(
                        ProblemCode.KEY_OUT_OF_DATE,
                        line,
                        "is out of date: the study changed since it was kept. Update it, or leave it out of editions.");
            }
            if (!line.standing().proven()) {
                throw refused(
                        ProblemCode.NOT_PROVEN,
                        line,
                        "could not be proven against the matrix, so it is not published. Leave it out of editions.");
            }
        }
        return published;
    }

    private static RuntimeException refused(ProblemCode code, NamedKeyLine line, String why) {
        return Problems.unprocessable(code, "The key '" + line.name() + "' " + why, Map.of("key", line.id()));
    }

    /** Names of the keys that editions hold, in their order. */
    public List<String> publishedNames(OpenStudy open) {
        return rows.all(open.id()).stream()
                .filter(NamedKeyRow::published)
                .map(NamedKeyRow::name)
                .toList();
    }

    private MadeKey made(OpenStudy open, String job) {
        KeyService.FinishedKey finished = keys.finished(open, job);
        StudyStore.Snapshot now = store.load(open.id());
        if (finished.revision() != now.revision()) {
            throw Problems.conflict(
                    ProblemCode.STUDY_CHANGED,
                    "The study changed since this key was made. Wait for the new one, and keep that.",
                    Map.of());
        }
        return new MadeKey(
                finished.request(),
                finished.revision(),
                json.writeValueAsString(finished.key().view().figures()),
                json.writeValueAsString(finished.key()),
                StudyJson.write(now.study()));
    }

    private String named(OpenStudy open, String name, long id) {
        String wanted = name.strip();
        if (wanted.isEmpty() || wanted.length() > LONGEST_NAME) {
            throw Problems.unprocessable(
                    ProblemCode.NAME,
                    wanted.isEmpty()
                            ? "A key that is kept needs a name, such as 'Winter key'."
                            : "The name of a key has up to " + LONGEST_NAME + " characters.",
                    Map.of());
        }
        if (rows.isTaken(open.id(), wanted, id)) {
            throw taken(wanted);
        }
        return wanted;
    }

    private static RuntimeException taken(String name) {
        return Problems.unprocessable(
                ProblemCode.NAME,
                "This study has a key '" + name + "' already. Choose another name, or replace that one.",
                Map.of());
    }

    private NamedKeyRow row(OpenStudy open, long id) {
        return rows.find(open.id(), id).orElseThrow(Problems::notFound);
    }

    private KeyJob.KeyAnswer answer(OpenStudy open, long id) {
        return json.readValue(rows.answer(open.id(), id).orElseThrow(Problems::notFound), KeyJob.KeyAnswer.class);
    }

    private KeyService.KeyRequest request(NamedKeyRow row) {
        return json.readValue(row.request(), KeyService.KeyRequest.class);
    }

    private NamedKeyLine line(NamedKeyRow row, Judgement judgement) {
        return new NamedKeyLine(
                row.id(),
                row.name(),
                request(row),
                row.published(),
                row.revision(),
                row.who(),
                row.at(),
                json.readValue(row.figures(), KeyView.FiguresView.class),
                judgement.standing());
    }

    private Judgement judgement(OpenStudy open, NamedKeyRow row, StudyStore.Snapshot now) {
        return judged.get(
                new JudgedKey(row.id(), row.at(), row.revision(), now.revision()), k -> judge(open, row, now));
    }

    private Judgement judge(OpenStudy open, NamedKeyRow row, StudyStore.Snapshot now) {
        KeyService.KeyRequest request = request(row);
        CompiledStudy compiled = request.applied(now.compiled());
        Study before = StudyJson.readOwn(rows.document(open.id(), row.id()).orElseThrow(Problems::notFound));
        CompiledStudy then = request.applied(StudyCompiler.compile(before));
        List<Change> changes = KeyChanges.between(then, compiled, request.taxa());
        KeyJob.KeyAnswer answer = answer(open, row.id());
        KeyJson.ReadKey read = KeyJson.read(
                Objects.requireNonNull(answer.files().get("json")).getBytes(StandardCharsets.UTF_8), compiled);
        if (!read.problems().isEmpty()) {
            return new Judgement(changes, true, read.problems());
        }
        Proof proof = new SupportPropagationProver().prove(compiled.matrix(), read.key());
        boolean sameLeftOut = KeyWording.leftOut(now.compiled().scoredOnly(), compiled)
                .equals(answer.view().leftOut());
        return new Judgement(changes, sameLeftOut, KeyWording.failures(compiled, proof));
    }
}
