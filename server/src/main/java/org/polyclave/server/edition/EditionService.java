package org.polyclave.server.edition;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.files.study.StudyFormat;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.edition.persistence.EditionMapper;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.job.Job;
import org.polyclave.server.key.KeyService;
import org.polyclave.server.key.NamedKeyService;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.server.study.StudyService;
import org.polyclave.study.change.StudyDifference;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.HazardTree;
import org.polyclave.study.danger.DangerReport;
import org.polyclave.study.kit.Kit;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.wording.key.KeyNotes;
import org.polyclave.wording.key.KeyView;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/** The gate before editions, publishing, and withdrawing; what readers read is on the {@link EditionShelf}. */
@Service
public class EditionService implements StudyService.EditionCounter {
    /** Where the author has yet to warn readers: without words, it would look as if no warning was needed. */
    private static final String UNWRITTEN = "(Your words about it stand here.)";

    private static final String ENGINE = "0.1";
    private static final Duration PATIENCE = Duration.ofSeconds(10);

    private final EditionMapper editions;
    private final StudyStore store;
    private final KeyService keys;
    private final NamedKeyService namedKeys;
    private final EditionShelf shelf;
    private final TransactionTemplate transactions;
    private final JsonMapper json;
    private final Clock clock;

    EditionService(
            EditionMapper editions,
            StudyStore store,
            KeyService keys,
            NamedKeyService namedKeys,
            EditionShelf shelf,
            TransactionTemplate transactions,
            JsonMapper json,
            Clock clock) {
        this.editions = editions;
        this.store = store;
        this.keys = keys;
        this.namedKeys = namedKeys;
        this.shelf = shelf;
        this.transactions = transactions;
        this.json = json;
        this.clock = clock;
    }

    /**
     * A dangerous row that readers could not rule out against some rows.
     *
     * @param kind why
     * @param blocking whether an edition needs words of the author about it
     * @param features usable characters on different parts in the worst case: 0, 1 or 2
     * @param confirmable how many cells could be confirmed so that more counts
     */
    public record GateFinding(
            String danger,
            String dangerName,
            DangerReport.Kind kind,
            boolean blocking,
            List<String> others,
            List<String> otherNames,
            List<Integer> months,
            int features,
            int confirmable) {}

    /** What stands between a study and its next edition. */
    public record Gate(List<GateFinding> findings, List<String> missing, List<EditionShelf.EditionLine> editions) {}

    public Gate gate(OpenStudy open) {
        CompiledStudy study = store.load(open.id()).compiled();
        return new Gate(findings(study), missing(study.study()), shelf.list(open.slug()));
    }

    private static List<String> missing(Study study) {
        List<String> missing = new ArrayList<>();
        if (study.scope().covers().isBlank()) {
            missing.add("covers");
        }
        if (study.scope().leavesOut().isBlank()) {
            missing.add("leavesOut");
        }
        return missing;
    }

    private static List<GateFinding> findings(CompiledStudy study) {
        List<GateFinding> findings = new ArrayList<>();
        for (DangerReport.Danger danger : DangerReport.of(study)) {
            for (DangerReport.Failing failing : danger.failing()) {
                findings.add(new GateFinding(
                        danger.row(),
                        danger.name(),
                        failing.kind(),
                        failing.blocking(),
                        failing.others(),
                        failing.otherNames(),
                        failing.months(),
                        failing.features(),
                        danger.cells().size()));
            }
        }
        return findings;
    }

    /**
     * Publishes the next edition, or refuses with the pairs that are neither told apart nor declared.
     *
     * @param words what readers are told of each dangerous row that cannot surely be told apart, by its id
     */
    public int publish(OpenStudy open, List<String> authors, Map<String, String> words) {
        return publish(open, authors, words, PATIENCE);
    }

    /** The same for whoever can wait longer for the key. */
    public int publish(OpenStudy open, List<String> authors, Map<String, String> words, Duration patience) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        CompiledStudy study = snapshot.compiled();
        List<String> named =
                authors.stream().map(String::strip).filter(a -> !a.isEmpty()).toList();
        if (named.isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.AUTHORS, "An edition names its authors. Add at least one.", Map.of());
        }
        if (!missing(study.study()).isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.SCOPE,
                    "An edition says what it covers and what it leaves out. Write both under Scope.",
                    Map.of("missing", missing(study.study())));
        }
        List<EditionDocument.Declaration> declarations = declarations(findings(study), words);
        List<EditionDocument.PublishedKey> chosen = namedKeys.published(open).stream()
                .map(k -> new EditionDocument.PublishedKey(
                        k.line().name(), k.line().request(), k.key()))
                .toList();
        KeyView key = key(open, snapshot.revision(), patience);
        // The rest is short; two who publish at once are parted by the primary key.
        int number = editions.newest(open.slug()).orElse(0) + 1;
        EditionDocument document = new EditionDocument(
                StudyFormat.VERSION,
                open.slug(),
                number,
                study.study().title(),
                named,
                LocalDate.now(clock).toString(),
                ENGINE,
                published(study),
                key,
                chosen,
                declarations,
                cautions(study),
                Kit.of(study.study()));
        String text = json.writeValueAsString(document);
        transactions.executeWithoutResult(t -> {
            editions.insert(open.slug(), number, open.id(), hash(text), text, open.account());
            editions.insertStatus(open.slug(), number);
            editions.supersede(open.slug(), number);
            shelf.pack(open.slug(), number);
        });
        return number;
    }

    /** What readers would see first, if it were published now. */
    public String cover(OpenStudy open, List<String> authors, Map<String, String> words) {
        CompiledStudy study = store.load(open.id()).compiled();
        List<EditionDocument.Declaration> declared =
                findings(study).stream().map(f -> previewed(f, words)).toList();
        return EditionShelf.cover(
                open.slug(),
                editions.newest(open.slug()).orElse(0) + 1,
                LocalDate.now(clock).toString(),
                authors,
                published(study),
                cautions(study),
                declared,
                Kit.of(study.study()),
                namedKeys.publishedNames(open));
    }

    /** What readers of the next edition get otherwise than those of the newest; empty if there is none yet. */
    public Optional<ChangePreview> changesSinceNewest(OpenStudy open) {
        StudyStore.Snapshot now = store.load(open.id());
        return editions.newest(open.slug())
                .map(number -> StudyDifference.between(
                        shelf.compiled(open.slug(), number).study(), published(now.compiled())))
                .map(changes -> ChangePreview.of(new StudyWriter.Planned(now.revision(), changes)));
    }

    /** What every reader is told, and whether a second person vouches for what is said of deadly taxa. */
    private static List<String> cautions(CompiledStudy study) {
        List<String> cautions = new ArrayList<>(KeyNotes.cautions(study.study()));
        Set<String> alone = new LinkedHashSet<>();
        for (StudyRow row : study.rows()) {
            boolean deadly = row.hazard() == Hazard.LIFE_THREATENING;
            for (StudyScore score :
                    study.scores().getOrDefault(row.id(), Map.of()).values()) {
                if (deadly && score.confirmed().size() == 1) {
                    alone.add(row.name());
                }
            }
        }
        if (!alone.isEmpty()) {
            cautions.add("Only one person has confirmed what is said here of " + String.join("; ", alone) + ".");
        }
        return cautions;
    }

    /** What readers get of a study: the hazards that stand, no opinions that were not accepted, no specimens, no places of pictures. */
    private static Study published(CompiledStudy compiled) {
        Study study = compiled.study();
        HazardTree hazards = new HazardTree(study.rows());
        return study.withRows(study.rows().stream().map(hazards::applied).toList())
                .withoutSpecimens()
                .withScope(study.scope(), compiled.outside())
                .withOpinions(List.of())
                .withPictures(
                        study.pictures().stream().map(Picture::withoutPlace).toList());
    }

    /** The proven key of the study as it is now. */
    private KeyView key(OpenStudy open, long revision, Duration patience) {
        KeyService.Progressing made = keys.begin(open, KeyService.KeyRequest.CAUTIOUS, patience);
        KeyView key = made.key();
        if (made.revision() != revision) {
            throw Problems.conflict(
                    ProblemCode.STUDY_CHANGED,
                    "Somebody changed the study meanwhile. Look at it and publish again.",
                    Map.of());
        }
        // What is there before the job is done is only the best so far.
        if (key == null || made.status() != Job.Status.DONE) {
            throw Problems.conflict(
                    ProblemCode.KEY_IN_PROGRESS,
                    "The key of this study is still being made. Publish again in a moment.",
                    Map.of("progress", made.progress()));
        }
        if (!key.figures().proven()) {
            throw Problems.unprocessable(
                    ProblemCode.NOT_PROVEN,
                    "The key could not be proven against the matrix, so it is not published.",
                    Map.of());
        }
        return key;
    }

    private static List<EditionDocument.Declaration> declarations(
            List<GateFinding> findings, Map<String, String> words) {
        List<GateFinding> undeclared = findings.stream()
                .filter(GateFinding::blocking)
                .filter(f -> words.getOrDefault(f.danger(), "").isBlank())
                .toList();
        if (!undeclared.isEmpty()) {
            GateFinding first = undeclared.get(0);
            throw Problems.unprocessable(
                    ProblemCode.UNDECLARED_DANGER, undeclared(first), Map.of("findings", undeclared));
        }
        return findings.stream().map(f -> declaration(f, words)).toList();
    }

    private static EditionDocument.Declaration previewed(GateFinding finding, Map<String, String> words) {
        boolean unwritten = finding.blocking() && words(finding, words).isEmpty();
        return declaration(finding, unwritten ? Map.of(finding.danger(), UNWRITTEN) : words);
    }

    private static EditionDocument.Declaration declaration(GateFinding finding, Map<String, String> words) {
        return new EditionDocument.Declaration(
                finding.danger(),
                finding.dangerName(),
                finding.others(),
                finding.months(),
                finding.blocking() ? words(finding, words) : "");
    }

    private static String words(GateFinding finding, Map<String, String> words) {
        return words.getOrDefault(finding.danger(), "").strip();
    }

    private static String undeclared(GateFinding finding) {
        String name = "'" + finding.dangerName() + "'";
        String others = "'" + String.join("', '", finding.otherNames()) + "'";
        return switch (finding.kind()) {
            case NOT_IN_KEY ->
                name + " is dangerous and not in any key. Score it, or declare it in words that readers see.";
            case JOINED ->
                "A key stops at a group that holds " + name + " and " + others
                        + ". Let it go further, or declare it in words that readers see.";
            default ->
                name + " cannot be ruled out against " + others
                        + ": that takes two reliable characters on two different parts. Score or confirm more, or declare it"
                        + " in words that readers see.";
        };
    }

    private static String hash(String text) {
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(digest);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("Every Java has SHA-256", impossible);
        }
    }

    @Transactional
    public void withdraw(OpenStudy open, int number, String reason) {
        if (reason.isBlank()) {
            throw Problems.badRequest(
                    ProblemCode.REASON, "Readers must learn why an edition was withdrawn. Write a reason.");
        }
        if (editions.withdraw(open.slug(), number, reason.strip()) == 0) {
            throw Problems.notFound();
        }
    }

    @Override
    public int count(long study) {
        return editions.count(study);
    }
}
