package org.polyclave.server.secondopinion;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.history.Positions;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.agreement.ScorerAgreement;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** What further scorers hold of cells, how well they agree with the accepted scores, and how a cell is settled. */
@Service
public class OpinionService {
    private final StudyWriter writer;
    private final StudyStore store;
    private final JsonMapper json;
    private final Clock clock;

    OpinionService(StudyWriter writer, StudyStore store, JsonMapper json, Clock clock) {
        this.writer = writer;
        this.store = store;
        this.json = json;
        this.clock = clock;
    }

    /**
     * @param text in cell notation; blank: no opinion any more
     * @param baseRevision revision at which the scorer saw the own score change last; 0 if never
     */
    public record Draft(String row, String character, String text, boolean doubtful, String note, long baseRevision) {}

    public static StudyObject object(String id) {
        return StudyObject.entry(StudyObject.Kind.OPINION, id);
    }

    /** Agreement by character, and what is to be settled. */
    public List<ScorerAgreement.CharacterAgreement> agreement(OpenStudy open) {
        return ScorerAgreement.of(store.load(open.id()).study());
    }

    /** A cell to settle: what every scorer holds, and the revision of the accepted score. */
    public record Dispute(List<ScorerAgreement.HeldScore> held, long revision) {}

    public Dispute dispute(OpenStudy open, String row, String character) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        return new Dispute(
                ScorerAgreement.cell(snapshot.study(), row, character),
                snapshot.revision(StudyObject.cell(row, character)));
    }

    /**
     * @param account name of the scorer's account
     * @param scorer name of the scorer
     */
    @Transactional
    public StudyWriter.Written put(OpenStudy open, String account, String scorer, Draft draft) {
        Study study = writer.lock(open).study();
        String id = Opinion.idOf(draft.row(), draft.character(), account);
        if (draft.text().isBlank()) {
            return writer.write(open, id, List.of(new ChangeLog.Edit(object(id), null, draft.baseRevision())));
        }
        Opinion opinion = new Opinion(
                id,
                draft.row(),
                draft.character(),
                scorer,
                value(study, draft.row(), draft.character(), draft.text()),
                draft.text().strip(),
                draft.doubtful(),
                draft.note().strip(),
                LocalDate.now(clock).toString(),
                false);
        return writer.write(open, id, List.of(edit(open, opinion, draft.baseRevision())));
    }

    private ChangeLog.Edit edit(OpenStudy open, Opinion opinion, long baseRevision) {
        Positions places = writer.entries(open);
        String key = object(opinion.id()).key();
        double position = places.has(key) ? places.of(key) : places.last(key);
        return writer.edit(object(opinion.id()), opinion, position, baseRevision);
    }

    private static ScoreValue value(Study study, String row, String character, String text) {
        StudyCharacter known = study.character(character)
                .filter(c -> study.row(row).isPresent())
                .orElseThrow(() ->
                        Problems.badRequest(ProblemCode.NO_SUCH_CELL, "The study has no such cell. Load it again."));
        if (CellNotation.parse(text, known) instanceof CellNotation.Parsed parsed) {
            return parsed.value();
        }
        CellNotation.Rejected rejected = (CellNotation.Rejected) CellNotation.parse(text, known);
        throw Problems.unprocessable(ProblemCode.NOTATION, rejected.reason(), Map.of("nearest", rejected.nearest()));
    }

    /**
     * Settles a cell: the chosen score is accepted, and what each scorer held is kept beside it, in one change.
     *
     * @param note why, or empty
     */
    @Transactional
    public StudyWriter.Written settle(
            OpenStudy open, String row, String character, String text, String note, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        Study study = locked.study();
        List<Opinion> held = study.opinions().stream()
                .filter(o -> o.row().equals(row) && o.character().equals(character))
                .toList();
        if (held.isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.NOTHING_TO_SETTLE,
                    "Nobody else has scored this cell. Type its score in the grid.",
                    Map.of());
        }
        StudyScore old = locked.snapshot().scores().getOrDefault(row, Map.of()).get(character);
        StudyScore accepted = accepted(study, old, row, character, text, note);
        List<ChangeLog.Edit> edits = new ArrayList<>();
        edits.add(
                new ChangeLog.Edit(StudyObject.cell(row, character), json.writeValueAsString(accepted), baseRevision));
        boolean firstTime = held.stream().noneMatch(Opinion::settled);
        if (old != null && firstTime) {
            Opinion first = opinion(old);
            edits.add(edit(open, first, locked.snapshot().revision(object(first.id()))));
        }
        for (Opinion opinion : held) {
            edits.add(edit(open, opinion.settle(), locked.snapshot().revision(object(opinion.id()))));
        }
        return writer.write(open, row, edits);
    }

    private StudyScore accepted(
            Study study, @Nullable StudyScore old, String row, String character, String text, String note) {
        ScoreValue value = value(study, row, character, text);
        StudyScore.Basis basis = old == null ? StudyScore.Basis.JUDGEMENT : old.basis();
        return new StudyScore(
                row,
                character,
                value,
                text.strip(),
                basis,
                old == null ? "" : old.source(),
                false,
                note.strip(),
                old == null ? List.of() : old.months(),
                old == null ? "" : old.scorer(),
                LocalDate.now(clock).toString(),
                old == null ? "" : old.concept(),
                old == null ? null : old.sample());
    }

    private static Opinion opinion(StudyScore score) {
        String scorer = score.scorer().isEmpty() ? ScorerAgreement.AUTHOR : score.scorer();
        return new Opinion(
                // Not an account: whoever accepted the score may be a second scorer of this cell too.
                Opinion.idOf(score.row(), score.character(), "+accepted"),
                score.row(),
                score.character(),
                scorer,
                score.value(),
                score.typed(),
                score.doubtful(),
                score.note(),
                score.date(),
                true);
    }
}
