package org.polyclave.server.measuring;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.files.table.ReadingTable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.account.RulesOfThumb;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.measuring.Evidence;
import org.polyclave.study.measuring.MarkedReading;
import org.polyclave.study.measuring.ReadingImport;
import org.polyclave.study.measuring.ReadingOutcome;
import org.polyclave.study.measuring.TypedReading;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.rules.Problem;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Takes readings of specimens, and corrects them. */
@Service
public class ReadingService {
    /** Readings taken at once. */
    static final int MOST = 50_000;

    private static final int MOST_TOLD = 50;

    private final RulesOfThumb rules;
    private final StudyStore store;
    private final StudyWriter writer;
    private final AccountService accounts;
    private final Clock clock;

    ReadingService(StudyStore store, StudyWriter writer, AccountService accounts, RulesOfThumb rules, Clock clock) {
        this.rules = rules;
        this.store = store;
        this.writer = writer;
        this.accounts = accounts;
        this.clock = clock;
    }

    /**
     * A reading as somebody takes it; what it comes to is worked out here.
     *
     * @param typed what was typed; not looked at where there is a mark
     * @param mark where on a picture; null if it was typed
     */
    public record Draft(
            String specimen,
            String character,
            String item,
            String typed,
            @Nullable Mark mark,
            String instrument,
            Reading.Standing standing,
            String note) {}

    /** A draft that is not a reading: its place among the drafts, and why. */
    public record Rejection(int index, String reason) {}

    /** A reading with the revision at which it got what it says. */
    public record RevisedReading(Reading reading, long revision) {}

    /** @param row for which the specimen speaks; empty if it has no name */
    public record SpecimenReadings(String specimen, String row, List<RevisedReading> readings) {}

    /** What a draft would come to; nothing is written. */
    public ReadingOutcome read(OpenStudy open, Draft draft) {
        return taken(store.load(open.id()).study(), draft, rules.sizes(open.account()));
    }

    private static ReadingOutcome taken(Study study, Draft draft, Function<RuleOfThumb, RuleOfThumb.Size> sizes) {
        Optional<StudyCharacter> character = study.character(draft.character());
        if (character.isEmpty()) {
            return new ReadingOutcome.Refused("A reading needs a character of the study. Choose one.");
        }
        if (study.specimens().stream().noneMatch(s -> s.id().equals(draft.specimen()))) {
            return new ReadingOutcome.Refused("A reading needs its specimen. Choose one, or add it in Gather first.");
        }
        Mark mark = draft.mark();
        return mark == null
                ? TypedReading.of(draft.typed(), character.get(), sizes)
                : MarkedReading.of(study, mark, character.get());
    }

    /** Takes readings as one change: all of them, or none with the reasons. */
    @Transactional
    public StudyWriter.Written add(OpenStudy open, List<Draft> drafts) {
        if (drafts.isEmpty() || drafts.size() > MOST) {
            throw Problems.badRequest(ProblemCode.READINGS, "Between 1 and " + MOST + " readings are taken at once.");
        }
        Study study = writer.lock(open).study();
        String by = accounts.displayName(open.account());
        String today = LocalDate.now(clock).toString();
        Function<RuleOfThumb, RuleOfThumb.Size> sizes = rules.sizes(open.account());
        List<Rejection> rejections = new ArrayList<>();
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < drafts.size(); i++) {
            Draft draft = drafts.get(i);
            ReadingOutcome taken = taken(study, draft, sizes);
            if (taken instanceof ReadingOutcome.Refused refused) {
                rejections.add(new Rejection(i, refused.reason()));
            } else {
                readings.add(reading(UUID.randomUUID().toString(), draft, (ReadingOutcome.Value) taken, by, today));
            }
        }
        if (!rejections.isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.READINGS, rejections.get(0).reason(), Map.of("rejections", rejections));
        }
        return write(open, study, readings);
    }

    private StudyWriter.Written write(OpenStudy open, Study study, List<Reading> readings) {
        List<Reading> all = new ArrayList<>(study.readings());
        all.addAll(readings);
        StudyWriter.refuseBroken(study, study.withReadings(all));
        double next = writer.entries(open).last("");
        List<ChangeLog.Edit> edits = new ArrayList<>();
        for (Reading reading : readings) {
            edits.add(writer.edit(object(reading.id()), reading, next + edits.size(), 0));
        }
        return writer.write(open, readings.get(0).id(), edits);
    }

    /**
     * What a table of readings would add.
     *
     * @param readings how many; of {@code specimens} and {@code characters} so many
     */
    public record TablePreview(
            int readings,
            int specimens,
            int characters,
            List<Problem> problems,
            List<String> unknownSpecimens,
            List<String> unknownCharacters) {}

    /** Reads a table of readings, and changes nothing. */
    public TablePreview previewTable(OpenStudy open, byte[] bytes, String fileName) {
        ReadingImport.ImportedReadings found = found(store.load(open.id()).study(), open, bytes, fileName);
        return new TablePreview(
                found.readings().size(),
                (int) found.readings().stream()
                        .map(Reading::specimen)
                        .distinct()
                        .count(),
                (int) found.readings().stream()
                        .map(Reading::character)
                        .distinct()
                        .count(),
                found.problems().subList(0, Math.min(MOST_TOLD, found.problems().size())),
                found.unknownSpecimens(),
                found.unknownCharacters());
    }

    private ReadingImport.ImportedReadings found(Study study, OpenStudy open, byte[] bytes, String fileName) {
        return ReadingImport.of(
                study,
                ReadingTable.read(bytes, fileName),
                accounts.displayName(open.account()),
                LocalDate.now(clock).toString());
    }

    /** Takes the readings of a table as one change; refused as long as anything in it is not a reading. */
    @Transactional
    public StudyWriter.Written addTable(OpenStudy open, byte[] bytes, String fileName) {
        Study study = writer.lock(open).study();
        ReadingImport.ImportedReadings found = found(study, open, bytes, fileName);
        Optional<Problem> first =
                found.problems().stream().filter(Problem::blocking).findFirst();
        if (first.isPresent()) {
            throw Problems.unprocessable(
                    ProblemCode.TABLE, first.get().sentence(), Map.of("problems", found.problems()));
        }
        if (found.readings().isEmpty() || found.readings().size() > MOST) {
            throw Problems.unprocessable(
                    ProblemCode.TABLE,
                    found.readings().isEmpty()
                            ? "None of the readings is of a specimen and a character of this study. Add the specimens first."
                            : "A table holds up to " + MOST + " readings. Divide it.",
                    Map.of());
        }
        return write(open, study, found.readings());
    }

    private static Reading reading(String id, Draft draft, ReadingOutcome.Value value, String by, String date) {
        return new Reading(
                id,
                draft.specimen(),
                draft.character(),
                draft.item().strip(),
                value.typed(),
                value.value(),
                value.states(),
                value.uncertainty(),
                draft.instrument().strip(),
                by,
                date,
                draft.mark(),
                draft.standing(),
                draft.note().strip());
    }

    private static StudyObject object(String id) {
        return StudyObject.entry(StudyObject.Kind.READING, id);
    }

    /** Corrects a reading, or says how it stands. Who took it and when stays. */
    @Transactional
    public StudyWriter.Written put(OpenStudy open, String id, Draft draft, long baseRevision) {
        Study study = writer.lock(open).study();
        Reading known = known(study, id);
        ReadingOutcome taken = taken(study, draft, rules.sizes(open.account()));
        if (taken instanceof ReadingOutcome.Refused refused) {
            throw Problems.unprocessable(ProblemCode.READINGS, refused.reason(), Map.of());
        }
        Reading now = reading(id, draft, (ReadingOutcome.Value) taken, known.by(), known.date());
        StudyWriter.refuseBroken(
                study,
                study.withReadings(study.readings().stream()
                        .map(r -> r.id().equals(id) ? now : r)
                        .toList()));
        double place = writer.entries(open).of(object(id).key());
        return writer.write(open, id, List.of(writer.edit(object(id), now, place, baseRevision)));
    }

    @Transactional
    public StudyWriter.Written remove(OpenStudy open, String id, long baseRevision) {
        known(writer.lock(open).study(), id);
        return writer.write(open, id, List.of(new ChangeLog.Edit(object(id), null, baseRevision)));
    }

    private static Reading known(Study study, String id) {
        return study.readings().stream()
                .filter(r -> r.id().equals(id))
                .findFirst()
                .orElseThrow(Problems::notFound);
    }

    /** Readings of a specimen in the order in which they were taken. */
    public SpecimenReadings ofSpecimen(OpenStudy open, String specimen) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        List<RevisedReading> readings = snapshot.study().readings().stream()
                .filter(r -> r.specimen().equals(specimen))
                .map(r -> new RevisedReading(r, snapshot.revision(object(r.id()))))
                .toList();
        return new SpecimenReadings(specimen, new Evidence(snapshot.study()).rowOf(specimen), readings);
    }
}
