package org.polyclave.server.secondopinion;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.MemberService;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.secondopinion.persistence.AssignmentMapper;
import org.polyclave.server.secondopinion.persistence.AssignmentMapper.AssignmentRow;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.notation.NotationPrinter;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * Cells that a further scorer scores blind: from the day they are given until the scorer hands them in, the scorer sees
 * taxa, characters and own scores only.
 */
@Service
public class AssignmentService {
    private final AssignmentMapper assignments;
    private final AccountService accounts;
    private final MemberService members;
    private final StudyStore store;
    private final OpinionService opinions;
    private final JsonMapper json;

    AssignmentService(
            AssignmentMapper assignments,
            AccountService accounts,
            MemberService members,
            StudyStore store,
            OpinionService opinions,
            JsonMapper json) {
        this.assignments = assignments;
        this.accounts = accounts;
        this.members = members;
        this.store = store;
        this.opinions = opinions;
        this.json = json;
    }

    /**
     * @param rows ids; empty: all
     * @param characters ids; empty: all
     * @param scored cells that the scorer has scored
     * @param finished day on which it was handed in, or null
     */
    public record Assignment(
            long id,
            String scorer,
            String scorerName,
            List<String> rows,
            List<String> characters,
            String note,
            String given,
            @Nullable String finished,
            int cells,
            int scored,
            boolean mine) {}

    /** The scorer's own score of a cell. */
    public record OwnScore(String row, String character, String text, boolean doubtful, String note, long revision) {}

    /** What a scorer works through. */
    public record Sheet(Assignment assignment, List<OwnScore> scores) {}

    public List<Assignment> list(OpenStudy open) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        boolean all = open.role().reaches(Role.EDITOR) && !open.blind();
        return assignments.all(open.id()).stream()
                .filter(a -> all || a.scorerId() == open.account())
                .map(a -> describe(a, snapshot.study(), open))
                .toList();
    }

    private Assignment describe(AssignmentRow row, Study study, OpenStudy open) {
        List<String> rows = ids(row.rows());
        List<String> characters = ids(row.characters());
        int cells = (rows.isEmpty() ? study.rows().size() : rows.size())
                * (characters.isEmpty() ? study.characters().size() : characters.size());
        int scored = (int) study.opinions().stream()
                .filter(o -> o.isOf(row.scorer()) && covers(rows, characters, o.row(), o.character()))
                .count();
        return new Assignment(
                row.id(),
                row.scorer(),
                row.scorerName(),
                rows,
                characters,
                row.note(),
                row.givenAt(),
                row.finishedAt(),
                cells,
                scored,
                row.scorerId() == open.account());
    }

    private List<String> ids(String array) {
        return List.of(json.readValue(array, String[].class));
    }

    private static boolean covers(List<String> rows, List<String> characters, String row, String character) {
        return (rows.isEmpty() || rows.contains(row)) && (characters.isEmpty() || characters.contains(character));
    }

    /** Gives cells to a member of the study who scores, but not to its owner, who has to see everything. */
    @Transactional
    public void give(OpenStudy open, String scorer, List<String> rows, List<String> characters, String note) {
        Account account = accounts.find(scorer)
                .orElseThrow(() -> Problems.badRequest(
                        ProblemCode.NO_SUCH_ACCOUNT, "The account '" + scorer + "' does not exist."));
        Role role = members.roleOf(open, scorer).orElse(Role.VIEWER);
        if (!role.reaches(Role.SCORER) || role == Role.OWNER) {
            throw Problems.unprocessable(
                    ProblemCode.NOT_A_SCORER,
                    account.displayName() + " cannot score blind here. Choose a member with the role scorer or editor.",
                    Map.of());
        }
        if (assignments.hasOpen(open.id(), account.id())) {
            throw Problems.conflict(
                    ProblemCode.ASSIGNED,
                    account.displayName() + " has cells to score blind already. Wait until they are handed in.",
                    Map.of());
        }
        Study study = store.load(open.id()).study();
        boolean known = study.rows().stream().map(StudyRow::id).toList().containsAll(rows)
                && study.characters().stream().map(StudyCharacter::id).toList().containsAll(characters);
        if (!known) {
            throw Problems.badRequest(
                    ProblemCode.NO_SUCH_CELL, "Some of these taxa or characters are gone. Choose again.");
        }
        assignments.insert(
                open.id(),
                account.id(),
                json.writeValueAsString(rows),
                json.writeValueAsString(characters),
                note.strip(),
                open.account());
    }

    /** What the scorer has scored so far; nothing of what others hold. */
    public Sheet sheet(OpenStudy open, long id) {
        AssignmentRow row = own(open, id);
        StudyStore.Snapshot snapshot = store.load(open.id());
        Study study = snapshot.study();
        Assignment assignment = describe(row, study, open);
        List<OwnScore> scores = study.opinions().stream()
                .filter(o -> o.isOf(row.scorer())
                        && covers(assignment.rows(), assignment.characters(), o.row(), o.character()))
                .flatMap(o -> study.character(o.character()).stream().map(c -> score(o, c, snapshot)))
                .toList();
        return new Sheet(assignment, scores);
    }

    private static OwnScore score(Opinion opinion, StudyCharacter character, StudyStore.Snapshot snapshot) {
        return new OwnScore(
                opinion.row(),
                opinion.character(),
                NotationPrinter.print(opinion.value(), character),
                opinion.doubtful(),
                opinion.note(),
                snapshot.revision(OpinionService.object(opinion.id())));
    }

    @Transactional
    public StudyWriter.Written score(OpenStudy open, long id, OpinionService.Draft draft) {
        AssignmentRow row = own(open, id);
        boolean here = covers(ids(row.rows()), ids(row.characters()), draft.row(), draft.character());
        if (!here || row.finishedAt() != null) {
            throw Problems.unprocessable(
                    ProblemCode.NOT_ASSIGNED,
                    here
                            ? "These scores were handed in. Ask the author to give you the cells again."
                            : "This cell is not among those that you were asked to score.",
                    Map.of());
        }
        return opinions.put(open, row.scorer(), row.scorerName(), draft);
    }

    /** Hands the scores in: from now on the scorer sees the others' again. Authors may end it too. */
    @Transactional
    public void finish(OpenStudy open, long id) {
        AssignmentRow row = assignments.find(open.id(), id).orElseThrow(Problems::notFound);
        if (row.scorerId() != open.account() && (open.blind() || !open.role().reaches(Role.EDITOR))) {
            throw Problems.notFound();
        }
        assignments.finish(open.id(), id);
    }

    private AssignmentRow own(OpenStudy open, long id) {
        return assignments
                .find(open.id(), id)
                .filter(a -> a.scorerId() == open.account())
                .orElseThrow(Problems::notFound);
    }
}
