package org.polyclave.server.taxa;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.history.LoweredHazards;
import org.polyclave.server.history.Positions;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.StudyRules;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Taxa, and their sexes and stages. Each change is one undoable change set, with the scores that follow it; one after which a
 * rule of {@link StudyRules} is broken that held before is refused with its sentence.
 */
@Service
public class TaxonService {
    private final StudyWriter writer;
    private final AccountService accounts;

    TaxonService(StudyWriter writer, AccountService accounts) {
        this.writer = writer;
        this.accounts = accounts;
    }

    /** Adds a taxon, or a sex or stage, behind the others of its parent; its identifier is made of its name. */
    @Transactional
    public StudyWriter.Written addRow(OpenStudy open, StudyRow draft) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow row = settled(draft.withId(writer.mint(open, "row/", Slug.of(draft.name()), "taxon")));
        StudyWriter.refuseBroken(
                locked.study(), locked.study().withRows(with(locked.study().rows(), row)));
        double position = writer.rows(open).last(row.id());
        return writer.write(open, row.id(), List.of(writer.edit(StudyObject.row(row.id()), row, position, 0)));
    }

    /** Replaces a taxon; it keeps its position. Its sexes and stages go by its name. */
    @Transactional
    public StudyWriter.Written putRow(OpenStudy open, StudyRow draft, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow old = locked.study().row(draft.id()).orElseThrow(Problems::notFound);
        StudyRow row = withReason(old, settled(draft));
        List<StudyRow> rows = mapped(locked.study().rows(), r -> {
            boolean stage = row.id().equals(r.parent()) && r.isSemaphoront();
            return r.equals(old) ? row : stage ? r.withLabel(row.label()) : r;
        });
        StudyWriter.refuseBroken(locked.study(), locked.study().withRows(rows));
        Positions places = writer.rows(open);
        List<ChangeLog.Edit> edits = new ArrayList<>();
        edits.add(writer.edit(StudyObject.row(row.id()), row, places.of(row.id()), baseRevision));
        for (StudyRow other : rows) {
            StudyObject object = StudyObject.row(other.id());
            if (!other.equals(row) && !locked.study().rows().contains(other)) {
                edits.add(writer.edit(
                        object, other, places.of(other.id()), locked.snapshot().revision(object)));
            }
        }
        return writer.write(open, row.id(), edits);
    }

    /**
     * Moves a taxon, with all that belongs to it, under a parent.
     *
     * @param parent null: to the top
     * @param before the row it comes before; null: behind all others
     */
    @Transactional
    public StudyWriter.Written moveRow(
            OpenStudy open, String id, @Nullable String parent, @Nullable String before, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow moved = locked.study().row(id).orElseThrow(Problems::notFound).withParent(parent);
        StudyWriter.refuseBroken(
                locked.study(), locked.study().withRows(replaced(locked.study().rows(), moved)));
        double position = writer.rows(open).before(before, id);
        return writer.write(open, id, List.of(writer.edit(StudyObject.row(id), moved, position, baseRevision)));
    }

    /** Takes a row out with its sexes and stages and all their scores; its subtaxa move up to its parent. */
    @Transactional
    public StudyWriter.Written removeRow(OpenStudy open, String id, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow row = locked.study().row(id).orElseThrow(Problems::notFound);
        Set<String> gone = new HashSet<>(Set.of(id));
        List<ChangeLog.Edit> edits = new ArrayList<>();
        Positions places = writer.rows(open);
        List<StudyRow> stay = new ArrayList<>();
        for (StudyRow other : locked.study().rows()) {
            boolean child = id.equals(other.parent());
            if (child && other.isSemaphoront()) {
                gone.add(other.id());
                edits.add(StudyWriter.removal(locked, StudyObject.row(other.id())));
            } else if (child) {
                StudyRow raised = other.withParent(row.parent());
                StudyObject object = StudyObject.row(other.id());
                edits.add(writer.edit(
                        object, raised, places.of(other.id()), locked.snapshot().revision(object)));
                stay.add(raised);
            } else if (!other.id().equals(id)) {
                stay.add(other);
            }
        }
        StudyWriter.refuseBroken(locked.study(), locked.study().withRows(stay));
        edits.add(new ChangeLog.Edit(StudyObject.row(id), null, baseRevision));
        for (StudyScore score : locked.study().scores()) {
            if (gone.contains(score.row())) {
                edits.add(StudyWriter.removal(locked, StudyObject.cell(score.row(), score.character())));
            }
        }
        return writer.write(open, id, edits);
    }

    /** Recorded hazards say how severe the worst is; none makes a taxon less severe than its own assessment. */
    private static StudyRow settled(StudyRow row) {
        return row.hazards().stream()
                .map(StudyRow.HazardRecord::severity)
                .filter(worst -> worst.compareTo(row.hazard()) > 0)
                .max(Hazard::compareTo)
                .map(row::withHazard)
                .orElse(row);
    }

    /** Who lowers a severity at their desk says why and by what; it stands until somebody else confirms. */
    private static StudyRow withReason(StudyRow old, StudyRow row) {
        boolean lowered = LoweredHazards.standing(row).compareTo(LoweredHazards.standing(old)) < 0
                || row.hazard().compareTo(old.hazard()) < 0;
        StudyRow.Lowering told = row.assessment().lowering();
        boolean said =
                told != null && !told.reason().isBlank() && !told.source().isBlank();
        if (lowered && old.hazard().compareTo(Hazard.CAUTION) >= 0 && !said) {
            throw Problems.unprocessable(
                    ProblemCode.HAZARD_LOWERED,
                    "'" + old.name()
                            + "' was recorded as more dangerous. Say why it is less so and by what source; until"
                            + " a second person confirms, the higher severity stands.",
                    Map.of());
        }
        // Nobody takes away by this way what somebody else has to confirm.
        StudyRow.Lowering pending = old.assessment().lowering();
        return !lowered && told == null && pending != null && row.hazard().compareTo(pending.hazard()) < 0
                ? row.withAssessment(new StudyRow.Assessment(row.assessment().source(), pending))
                : row;
    }

    /** A second person agrees that a taxon is less dangerous than was recorded. */
    @Transactional
    public StudyWriter.Written confirmHazard(OpenStudy open, String id, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow row = locked.study().row(id).orElseThrow(Problems::notFound);
        StudyRow.Lowering lowering = row.assessment().lowering();
        if (lowering == null) {
            throw Problems.badRequest(
                    ProblemCode.NOTHING_LOWERED, "No change of this taxon's hazard waits for confirmation.");
        }
        if (lowering.by().equals(accounts.displayName(open.account()))) {
            throw Problems.unprocessable(
                    ProblemCode.SECOND_PERSON,
                    "You lowered this severity yourself. Somebody else must confirm it.",
                    Map.of());
        }
        StudyRow confirmed = row.withAssessment(new StudyRow.Assessment(lowering.source(), null));
        double position = writer.rows(open).of(id);
        return writer.write(open, id, List.of(writer.edit(StudyObject.row(id), confirmed, position, baseRevision)));
    }

    private static <T> List<T> with(List<T> all, T added) {
        List<T> more = new ArrayList<>(all);
        more.add(added);
        return more;
    }

    private static List<StudyRow> replaced(List<StudyRow> rows, StudyRow row) {
        return mapped(rows, r -> r.id().equals(row.id()) ? row : r);
    }

    private static <T> List<T> mapped(List<T> all, UnaryOperator<T> change) {
        return all.stream().map(change).toList();
    }
}
