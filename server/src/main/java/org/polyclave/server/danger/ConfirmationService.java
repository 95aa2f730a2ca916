package org.polyclave.server.danger;

import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Somebody stands for cells that were imported, or that a sex, stage or part only inherits. */
@Service
public class ConfirmationService {
    private final StudyWriter writer;
    private final AccountService accounts;
    private final JsonMapper json;
    private final Clock clock;

    ConfirmationService(StudyWriter writer, AccountService accounts, JsonMapper json, Clock clock) {
        this.writer = writer;
        this.accounts = accounts;
        this.json = json;
        this.clock = clock;
    }

    /** @param text what the cell said when it was confirmed: another text is not confirmed */
    public record Confirmed(
            @NotNull String row,
            @NotNull String character,
            @NotNull String text) {}

    /** Confirms cells as one undoable change. What is inherited becomes a score of the row's own. */
    @Transactional
    public long confirm(OpenStudy open, List<Confirmed> cells, String source) {
        if (source.isBlank()) {
            throw Problems.badRequest(
                    ProblemCode.SOURCE, "Say by what you checked these cells: a specimen, a book, your own eyes.");
        }
        if (cells.isEmpty()) {
            throw Problems.badRequest(ProblemCode.CELLS, "Choose at least one cell to confirm.");
        }
        StudyWriter.Locked locked = writer.lock(open);
        Inheritance inheritance =
                new Inheritance(locked.study().rows(), locked.snapshot().scores());
        StudyScore.Confirmation confirmation = new StudyScore.Confirmation(
                accounts.displayName(open.account()), LocalDate.now(clock).toString(), source.strip());
        Map<StudyObject, ChangeLog.Edit> edits = new LinkedHashMap<>();
        for (Confirmed cell : cells) {
            StudyObject object = StudyObject.cell(cell.row(), cell.character());
            StudyScore score = confirmed(locked, inheritance, cell, confirmation);
            edits.put(
                    object,
                    new ChangeLog.Edit(
                            object,
                            json.writeValueAsString(score),
                            locked.snapshot().revision(object)));
        }
        return writer.write(open, "", new ArrayList<>(edits.values())).revision();
    }

    private static StudyScore confirmed(
            StudyWriter.Locked locked, Inheritance inheritance, Confirmed cell, StudyScore.Confirmation by) {
        StudyRow row = locked.study().row(cell.row()).orElseThrow(Problems::notFound);
        StudyCharacter character = locked.study().character(cell.character()).orElseThrow(Problems::notFound);
        StudyScore score = inheritance
                .effective(row.id(), character.id())
                .orElseThrow(Problems::notFound)
                .score();
        String place = "'" + character.label() + "' of '" + row.name() + "'";
        if (!NotationPrinter.print(score.value(), character).equals(cell.text())) {
            throw Problems.conflict(
                    ProblemCode.CELL_CHANGED, place + " changed meanwhile. Look at it again.", Map.of("row", row.id()));
        }
        if (score.doubtful()) {
            throw Problems.unprocessable(
                    ProblemCode.DOUBTFUL,
                    place + " is marked as doubtful. Remove the doubt first, or score it again.",
                    Map.of());
        }
        if (score.confirmed().stream().anyMatch(c -> c.by().equals(by.by()))) {
            throw Problems.unprocessable(
                    ProblemCode.CONFIRMED_ALREADY,
                    "You have confirmed " + place + " already. Somebody else must.",
                    Map.of());
        }
        return score.withRow(row.id())
                .withConfirmed(
                        Stream.concat(score.confirmed().stream(), Stream.of(by)).toList());
    }
}
