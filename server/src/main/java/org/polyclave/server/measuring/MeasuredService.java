package org.polyclave.server.measuring;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.measuring.Evidence;
import org.polyclave.study.measuring.Proposals;
import org.polyclave.study.measuring.Proposals.Proposal;
import org.polyclave.study.measuring.RowAllometry;
import org.polyclave.study.measuring.Thresholds;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** What the readings of a study come to, beside what its cells say; and cells made of them. */
@Service
public class MeasuredService {
    private final StudyStore store;
    private final StudyWriter writer;
    private final AccountService accounts;
    private final JsonMapper json;
    private final Clock clock;

    MeasuredService(StudyStore store, StudyWriter writer, AccountService accounts, JsonMapper json, Clock clock) {
        this.store = store;
        this.writer = writer;
        this.accounts = accounts;
        this.json = json;
        this.clock = clock;
    }

    /** A cell to be made of its readings, with the notation that was shown. */
    public record Accepted(String row, String character, String notation) {}

    /** The readings of a study beside what its cells show, inherited or of their own. */
    static final class Measured {
        private final Evidence evidence;
        private final Inheritance cells;

        Measured(StudyStore.Snapshot snapshot) {
            evidence = new Evidence(snapshot.study());
            cells = new Inheritance(snapshot.study().rows(), snapshot.scores());
        }

        @Nullable
        StudyScore score(String row, StudyCharacter character) {
            return cells.effective(row, character.id())
                    .map(Inheritance.Effective::score)
                    .orElse(null);
        }

        /** By row, in the study's order; specimens without a name last, under an empty one. */
        Map<String, Proposal> of(StudyCharacter character) {
            Map<String, Proposal> rows = new LinkedHashMap<>();
            evidence.of(character)
                    .forEach(r -> rows.put(r.row(), Proposals.of(r, character, score(r.row(), character))));
            return rows;
        }
    }

    /** What the readings of a character come to, row by row. */
    public MeasuredView ofCharacter(OpenStudy open, String id) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        StudyCharacter character = snapshot.study().character(id).orElseThrow(Problems::notFound);
        return MeasuredView.of(snapshot, character, new Measured(snapshot));
    }

    /** Where to cut between two rows; empty if one of them was not measured. */
    public Optional<MeasuredView.ThresholdView> threshold(OpenStudy open, String id, String first, String second) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        StudyCharacter character =
                snapshot.study().character(id).filter(c -> c.type().isNumeric()).orElseThrow(Problems::notFound);
        Map<String, Proposal> rows = new Measured(snapshot).of(character);
        Proposal one = rows.get(first);
        Proposal other = rows.get(second);
        return one == null || other == null
                ? Optional.empty()
                : Thresholds.between(one, other).map(c -> MeasuredView.ThresholdView.of(first, second, c, character));
    }

    /** How a size goes with another, row by row. */
    public MeasuredView.BesideView beside(OpenStudy open, String id, String other) {
        Study study = store.load(open.id()).study();
        StudyCharacter y = sized(study, id);
        StudyCharacter x = sized(study, other);
        return MeasuredView.beside(RowAllometry.of(new Evidence(study), x, y), x, y);
    }

    private static StudyCharacter sized(Study study, String id) {
        return study.character(id).filter(c -> c.type().isNumeric()).orElseThrow(Problems::notFound);
    }

    /** Every cell for which something was read, in the order of characters, then rows. */
    public List<MeasuredView.MeasuredCell> cells(OpenStudy open) {
        Measured measured = new Measured(store.load(open.id()));
        List<MeasuredView.MeasuredCell> cells = new ArrayList<>();
        for (StudyCharacter character : measured.evidence.read()) {
            measured.of(character).forEach((row, proposal) -> {
                if (!row.isEmpty()) {
                    cells.add(MeasuredView.MeasuredCell.of(proposal, character, measured.score(row, character)));
                }
            });
        }
        return cells;
    }

    /** Makes cells of their readings as one change; refused where the readings came to something else meanwhile. */
    @Transactional
    public StudyWriter.Written accept(OpenStudy open, List<Accepted> wanted) {
        StudyStore.Snapshot snapshot = writer.lock(open).snapshot();
        Study study = snapshot.study();
        Measured measured = new Measured(snapshot);
        Map<String, Map<String, Proposal>> proposals = new HashMap<>();
        List<ChangeLog.Edit> edits = new ArrayList<>();
        for (Accepted cell : wanted) {
            StudyCharacter character = study.character(cell.character()).orElseThrow(Problems::notFound);
            Proposal proposal = proposals
                    .computeIfAbsent(character.id(), c -> measured.of(character))
                    .get(cell.row());
            if (proposal == null || !proposal.notation().equals(cell.notation())) {
                throw Problems.conflict(
                        ProblemCode.CHANGED_MEANWHILE,
                        "The readings of '" + cell.row() + "' in '" + character.label()
                                + "' came to something else meanwhile. Check what they come to now.",
                        Map.of());
            }
            StudyObject object = StudyObject.cell(cell.row(), cell.character());
            StudyScore old =
                    snapshot.scores().getOrDefault(cell.row(), Map.of()).get(cell.character());
            StudyScore score = score(open, proposal, old);
            edits.add(new ChangeLog.Edit(object, json.writeValueAsString(score), snapshot.revision(object)));
        }
        return edits.isEmpty()
                ? new StudyWriter.Written("", snapshot.revision())
                : writer.write(open, wanted.get(0).row(), edits);
    }

    private StudyScore score(OpenStudy open, Proposal proposal, @Nullable StudyScore old) {
        if (!proposal.flags().isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.READINGS,
                    "A reading of '" + proposal.row()
                            + "' lies far from the others. Correct it, keep it or exclude it first.",
                    Map.of());
        }
        return proposal.score(
                        old,
                        accounts.displayName(open.account()),
                        LocalDate.now(clock).toString())
                .orElseThrow(
                        () -> Problems.badRequest(ProblemCode.READINGS, "Too few individuals were read for a cell."));
    }
}
