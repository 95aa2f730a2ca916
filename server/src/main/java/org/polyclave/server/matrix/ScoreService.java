package org.polyclave.server.matrix;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.study.rules.SpecimenRules;
import org.polyclave.wording.rule.RuleWording;
import org.springframework.stereotype.Service;
import org.springframework.web.ErrorResponseException;
import tools.jackson.databind.json.JsonMapper;

/** Changes of cells, typed in notation. Where somebody else was faster, both versions are returned. */
@Service
public class ScoreService {
    private final AccountService accounts;
    private final StudyStore store;
    private final ChangeLog log;
    private final JsonMapper json;
    private final Clock clock;

    ScoreService(AccountService accounts, StudyStore store, ChangeLog log, JsonMapper json, Clock clock) {
        this.accounts = accounts;
        this.store = store;
        this.log = log;
        this.json = json;
        this.clock = clock;
    }

    /**
     * @param baseRevision revision at which the writer saw the cell change last; 0 if never
     * @param origin where the score comes from; null: the writer's own judgement
     */
    public record CellEdit(
            String row,
            String character,
            String text,
            long baseRevision,
            @Schema(nullable = true) @Nullable Origin origin) {}

    /** Where a score comes from, and what else there is to say of it. */
    public record Origin(
            StudyScore.Basis basis,
            String source,
            boolean doubtful,
            String note,
            List<Integer> months,
            String concept,
            @Schema(nullable = true) @Nullable SampleView sample) {}

    /**
     * What was seen or measured for a score.
     *
     * @param items things measured on the individuals; null if not said
     * @param individuals null if not said
     * @param collections places and dates at which they were gathered; null if not said
     * @param specimens ids of the specimens of the study among them
     * @param mean in the character's unit; null if not said
     * @param sd standard deviation in the character's unit; null if not said
     * @param provisional whether more individuals are likely to widen the range
     */
    public record SampleView(
            @Schema(nullable = true) @Nullable Integer items,
            @Schema(nullable = true) @Nullable Integer individuals,
            @Schema(nullable = true) @Nullable Integer collections,
            List<String> specimens,
            @Schema(nullable = true) @Nullable Double mean,
            @Schema(nullable = true) @Nullable Double sd,
            boolean provisional) {
        public SampleView {
            specimens = specimens == null ? List.of() : List.copyOf(specimens);
        }

        private static final SampleView NOT_SAID = new SampleView(null, null, null, List.of(), null, null, false);

        /** What a sample says, in the unit of its character. */
        public static SampleView of(StudyScore.@Nullable Sample sample, StudyCharacter character) {
            return sample == null
                    ? NOT_SAID
                    : new SampleView(
                            sample.items(),
                            sample.individuals(),
                            sample.collections(),
                            sample.specimens(),
                            scaled(sample.mean(), 1 / factor(character)),
                            scaled(sample.sd(), 1 / factor(character)),
                            sample.provisional() != null);
        }

        /** The sample itself; null if it says nothing. */
        StudyScore.@Nullable Sample of(StudyCharacter character) {
            Stream.of(items, individuals, collections)
                    .filter(n -> n != null && n < 1)
                    .findFirst()
                    .ifPresent(n -> {
                        throw Problems.badRequest(
                                ProblemCode.INDIVIDUALS,
                                "At least one was measured. Correct the number, or leave it empty.");
                    });
            return equals(NOT_SAID)
                    ? null
                    : new StudyScore.Sample(
                            items,
                            individuals,
                            collections,
                            specimens,
                            scaled(mean, factor(character)),
                            scaled(sd, factor(character)),
                            provisional);
        }

        private static double factor(StudyCharacter character) {
            return Units.factor(character.type(), character.unit()).orElse(1.0);
        }

        private static @Nullable Double scaled(@Nullable Double number, double factor) {
            return number == null ? null : (Double) Units.scaled(number, factor);
        }
    }

    /** A cell that somebody else changed meanwhile. */
    public record Conflict(String row, String character, String yours, String theirs, String who, long revision) {}

    /** A text that is not a score. */
    public record Rejection(String row, String character, String text, String reason, List<String> nearest) {}

    /** @return the new revision of the study */
    public long edit(OpenStudy open, List<CellEdit> edits) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        Map<String, StudyCharacter> characters = new HashMap<>();
        snapshot.study().characters().forEach(c -> characters.put(c.id(), c));
        Set<String> rows = new HashSet<>();
        snapshot.study().rows().forEach(r -> rows.add(r.id()));
        String scorer = accounts.displayName(open.account());
        List<Rejection> rejections = new ArrayList<>();
        Map<StudyObject, ChangeLog.Edit> changes = new LinkedHashMap<>();
        for (CellEdit edit : edits) {
            StudyObject cell = StudyObject.cell(edit.row(), edit.character());
            refuseUnknown(edit, snapshot.study());
            StudyScore old =
                    snapshot.scores().getOrDefault(edit.row(), Map.of()).get(edit.character());
            String after = read(edit, rows, characters, rejections)
                    .map(value -> score(edit, value, old, scorer, characters.get(edit.character())))
                    .map(json::writeValueAsString)
                    .orElse(null);
            changes.put(cell, new ChangeLog.Edit(cell, after, edit.baseRevision()));
        }
        if (!rejections.isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.NOTATION, rejections.get(0).reason(), Map.of("rejections", rejections));
        }
        try {
            return log.write(open, List.copyOf(changes.values()));
        } catch (ChangeLog.Conflicts conflicts) {
            throw asConflictProblem(conflicts, edits, characters);
        }
    }

    private static void refuseUnknown(CellEdit edit, Study study) {
        SampleView sample = edit.origin() == null ? null : edit.origin().sample();
        for (String specimen : sample == null ? List.<String>of() : sample.specimens()) {
            if (study.specimens().stream().noneMatch(s -> s.id().equals(specimen))) {
                throw Problems.badRequest(
                        ProblemCode.NO_SUCH_SPECIMEN, "The study has no specimen '" + specimen + "'. Load it again.");
            }
        }
    }

    /** A new score says by itself what it rests on; the months in which the row shows the character stay. */
    private StudyScore score(
            CellEdit edit,
            ScoreValue value,
            @Nullable StudyScore old,
            String scorer,
            @Nullable StudyCharacter character) {
        Origin origin = edit.origin();
        if (origin == null) {
            List<Integer> months = old == null ? List.of() : old.months();
            origin = new Origin(StudyScore.Basis.JUDGEMENT, "", false, "", months, "", null);
        }
        if (origin.months().stream().anyMatch(m -> m < 1 || m > 12)) {
            throw Problems.badRequest(ProblemCode.MONTHS, "Months of a score are numbers from 1 to 12.");
        }
        StudyScore score = new StudyScore(
                edit.row(),
                edit.character(),
                value,
                edit.text().strip(),
                origin.basis(),
                origin.source().strip(),
                origin.doubtful(),
                origin.note().strip(),
                origin.months().stream().distinct().sorted().toList(),
                scorer,
                LocalDate.now(clock).toString(),
                origin.concept().strip(),
                origin.sample() == null || character == null
                        ? null
                        : madeOfTheSame(origin.sample().of(character), value, old));
        SpecimenRules.sampleProblem(score).ifPresent(broken -> {
            throw Problems.unprocessable(ProblemCode.SAMPLE, RuleWording.sentence(broken), Map.of());
        });
        return score;
    }

    /** Whoever changes what a score says, and not only what is noted of it, takes it off the readings that it was made of. */
    private static StudyScore.@Nullable Sample madeOfTheSame(
            StudyScore.@Nullable Sample sample, ScoreValue value, @Nullable StudyScore old) {
        StudyScore.Sample before = old == null || !old.value().equals(value) ? null : old.sample();
        return sample == null || before == null ? sample : sample.madeOf(before.readings());
    }

    private Optional<ScoreValue> read(
            CellEdit edit, Set<String> rows, Map<String, StudyCharacter> characters, List<Rejection> rejections) {
        StudyCharacter character = characters.get(edit.character());
        if (character == null || !rows.contains(edit.row())) {
            throw Problems.badRequest(
                    ProblemCode.NO_SUCH_CELL,
                    "The study has no cell '" + edit.row() + "' × '" + edit.character() + "'. Load it again.");
        }
        if (edit.text().isBlank()) {
            return Optional.empty();
        }
        CellNotation.ParseResult reading = CellNotation.parse(edit.text(), character);
        if (reading instanceof CellNotation.Rejected rejected) {
            rejections.add(
                    new Rejection(edit.row(), edit.character(), edit.text(), rejected.reason(), rejected.nearest()));
            return Optional.empty();
        }
        return Optional.of(((CellNotation.Parsed) reading).value());
    }

    private ErrorResponseException asConflictProblem(
            ChangeLog.Conflicts conflicts, List<CellEdit> edits, Map<String, StudyCharacter> characters) {
        List<Conflict> told = new ArrayList<>();
        for (ChangeLog.Conflict conflict : conflicts.found()) {
            StudyObject cell = conflict.object();
            String yours = edits.stream()
                    .filter(e -> e.row().equals(cell.id()) && e.character().equals(cell.character()))
                    .map(CellEdit::text)
                    .reduce("", (first, last) -> last);
            told.add(new Conflict(
                    cell.id(),
                    cell.character(),
                    yours,
                    print(conflict.now(), characters.get(cell.character())),
                    conflict.who(),
                    conflict.revision()));
        }
        return Problems.conflict(
                ProblemCode.CELL_CHANGED,
                told.get(0).who() + " changed this cell meanwhile. Choose which version stays.",
                Map.of("conflicts", told));
    }

    private String print(@Nullable String content, @Nullable StudyCharacter character) {
        if (content == null || character == null) {
            return "";
        }
        return NotationPrinter.print(json.readValue(content, StudyScore.class).value(), character);
    }
}
