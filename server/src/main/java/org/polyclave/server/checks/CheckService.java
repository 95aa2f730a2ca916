package org.polyclave.server.checks;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.checks.persistence.AcceptedFindingMapper;
import org.polyclave.server.checks.persistence.AcceptedFindingMapper.AcceptedRow;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.checks.Correction;
import org.polyclave.study.checks.FindingKind;
import org.polyclave.study.checks.StudyCheck;
import org.polyclave.study.checks.StudyFinding;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.wording.finding.FindingWording;
import org.springframework.stereotype.Service;

/** Findings of the checks, and those that are meant. */
@Service
public class CheckService {
    /** Studies whose last check is kept, to be brought up to date when it is asked for again. */
    private static final int KEPT = 3;

    private final StudyStore store;
    private final StudyWriter writer;
    private final AcceptedFindingMapper accepted;

    private final Cache<Long, StudyCheck> last =
            Caffeine.newBuilder().maximumSize(KEPT).build();

    CheckService(StudyStore store, StudyWriter writer, AcceptedFindingMapper accepted) {
        this.store = store;
        this.writer = writer;
        this.accepted = accepted;
    }

    /** Why a finding is meant, and who says so. */
    public record Acceptance(String reason, String who) {}

    /**
     * @param other another row, character, state or claim that it is about, or the word in question; may be empty
     * @param correction what one click would do, in words; empty where nothing is certain
     * @param acceptable whether it may be accepted at all
     * @param acceptance null for a finding that is open
     */
    public record FindingView(
            String key,
            FindingKind kind,
            String row,
            String character,
            String other,
            String reason,
            String correction,
            boolean acceptable,
            @Schema(nullable = true) @Nullable Acceptance acceptance) {}

    public List<FindingView> findings(OpenStudy open) {
        Map<String, AcceptedRow> meant =
                accepted.all(open.id()).stream().collect(Collectors.toMap(AcceptedRow::finding, Function.identity()));
        return check(open.id()).findings().stream()
                .map(f -> view(f, meant.get(f.key())))
                .toList();
    }

    private StudyCheck check(long study) {
        StudyCheck before = last.getIfPresent(study);
        CompiledStudy now = store.load(study).compiled();
        StudyCheck check = before == null ? StudyCheck.of(now) : before.after(now);
        last.put(study, check);
        return check;
    }

    private static FindingView view(StudyFinding finding, @Nullable AcceptedRow meant) {
        return new FindingView(
                finding.key(),
                finding.kind(),
                finding.row(),
                finding.character(),
                finding.other(),
                FindingWording.reason(finding),
                FindingWording.correction(finding),
                finding.kind().isAcceptable(),
                meant == null ? null : new Acceptance(meant.reason(), meant.who()));
    }

    /** Accepts a finding that stands now; its reason is for whoever wonders later. */
    public void accept(OpenStudy open, String key, String reason) {
        if (reason.isBlank()) {
            throw Problems.badRequest(ProblemCode.REASON, "Write why this is intended, for whoever wonders later.");
        }
        FindingView finding = findings(open).stream()
                .filter(f -> f.key().equals(key))
                .findFirst()
                .orElseThrow(() -> Problems.conflict(
                        ProblemCode.NO_SUCH_FINDING,
                        "This finding is gone: somebody has corrected it meanwhile.",
                        Map.of()));
        if (!finding.acceptable()) {
            throw Problems.unprocessable(
                    ProblemCode.NEVER_MEANT,
                    "A hazard that is not known cannot be accepted as intended. Assess it, or write the caution.",
                    Map.of());
        }
        accepted.accept(open.id(), key, reason.strip(), open.account());
    }

    /** Corrects a finding of which it is certain how, as one undoable change. */
    public StudyWriter.Written correct(OpenStudy open, String key) {
        long baseRevision = store.load(open.id()).revision();
        StudyFinding finding = check(open.id()).findings().stream()
                .filter(f -> f.key().equals(key) && !f.correction().isEmpty())
                .findFirst()
                .orElseThrow(() -> Problems.conflict(
                        ProblemCode.NO_SUCH_FINDING,
                        "This finding is gone: somebody has corrected it meanwhile.",
                        Map.of()));
        return writer.replace(open, baseRevision, study -> Correction.of(study, finding));
    }

    public void reopen(OpenStudy open, String key) {
        accepted.reopen(open.id(), key);
    }
}
