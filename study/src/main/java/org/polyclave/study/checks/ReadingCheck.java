package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Features;
import org.polyclave.study.measuring.Evidence;
import org.polyclave.study.measuring.GoingTogether;
import org.polyclave.study.measuring.Proposals;
import org.polyclave.study.measuring.RowAllometry;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;

/** Tests cells against the readings that they were made of, and readings against each other. */
final class ReadingCheck {
    private final Study study;
    private final Map<String, Map<String, StudyScore>> scores;
    private final List<StudyFinding> found = new ArrayList<>();
    /** Cells, as row and character, whose readings were looked at. */
    private final Set<List<String>> seen = new HashSet<>();

    private ReadingCheck(CompiledStudy compiled) {
        study = compiled.study();
        scores = compiled.scores();
    }

    static List<StudyFinding> of(CompiledStudy compiled) {
        ReadingCheck check = new ReadingCheck(compiled);
        check.run();
        return check.found;
    }

    private void run() {
        Evidence evidence = new Evidence(study);
        for (StudyCharacter character : study.readings().isEmpty() ? List.<StudyCharacter>of() : evidence.read()) {
            for (Evidence.RowReadings row : evidence.of(character)) {
                study.row(row.row()).ifPresent(r -> check(r, character, row));
            }
        }
        for (StudyCharacter ratio : study.readings().isEmpty() ? List.<StudyCharacter>of() : study.characters()) {
            if (ratio.ratioOf().size() == 2) {
                proportions(evidence, ratio);
            }
        }
        if (!study.readings().isEmpty()) {
            together(evidence);
        }
        // Of some cells every reading is gone.
        for (StudyRow row : study.rows()) {
            scores.getOrDefault(row.id(), Map.of()).forEach((id, score) -> {
                if (score.sample() != null
                        && !score.sample().readings().isEmpty()
                        && !seen.contains(List.of(row.id(), id))) {
                    study.character(id).ifPresent(c -> outOfDate(row, c));
                }
            });
        }
    }

    private void check(StudyRow row, StudyCharacter character, Evidence.RowReadings evidence) {
        seen.add(List.of(row.id(), character.id()));
        StudyScore score = scores.getOrDefault(row.id(), Map.of()).get(character.id());
        Proposals.Proposal proposal = Proposals.of(evidence, character, score);
        if (proposal.standing() == Proposals.Standing.OUT_OF_DATE) {
            outOfDate(row, character);
        }
        if (!proposal.flags().isEmpty() && character.ratioOf().isEmpty()) {
            found.add(finding(FindingKind.READING_TO_SETTLE, row, character)
                    .with("readings", proposal.flags().size()));
        }
    }

    private void proportions(Evidence evidence, StudyCharacter ratio) {
        Optional<StudyCharacter> part = study.character(ratio.ratioOf().get(0));
        Optional<StudyCharacter> whole = study.character(ratio.ratioOf().get(1));
        if (part.isEmpty() || whole.isEmpty()) {
            return;
        }
        for (RowAllometry growth : RowAllometry.of(evidence, whole.get(), part.get())) {
            List<String> odd = growth.unforeseen();
            if (!odd.isEmpty()) {
                study.row(growth.row())
                        .ifPresent(row -> found.add(finding(FindingKind.OUT_OF_PROPORTION, row, part.get())
                                .with("whole", whole.get().label())
                                .with("specimens", codes(odd))));
            }
        }
    }

    /** Features whose measures go together, each pair of them by the measures that do so most closely. */
    private void together(Evidence evidence) {
        Features features = new Features(study.characters());
        List<StudyCharacter> measures = evidence.read().stream()
                .filter(c -> c.type().isNumeric() && c.ratioOf().isEmpty())
                .toList();
        Set<Set<String>> told = new HashSet<>();
        for (GoingTogether pair : GoingTogether.of(evidence, measures)) {
            StudyCharacter first = pair.first();
            StudyCharacter second = pair.second();
            Set<String> both = new HashSet<>(List.of(features.of(first), features.of(second)));
            if (both.size() == 2 && told.add(both)) {
                found.add(StudyFinding.of(FindingKind.GO_TOGETHER, "", first.id(), second.id())
                        .with("character", first.label())
                        .with("other", second.label())
                        .with("individuals", pair.individuals())
                        .with("r", Math.rint(100 * pair.r()) / 100)
                        .with("together", String.valueOf(pair.r() > 0))
                        .with("right", first.label() + " and " + second.label()));
            }
        }
    }

    private List<String> codes(List<String> specimens) {
        return study.specimens().stream()
                .filter(s -> specimens.contains(s.id()))
                .map(Specimen::code)
                .toList();
    }

    private void outOfDate(StudyRow row, StudyCharacter character) {
        found.add(finding(FindingKind.OUT_OF_DATE, row, character));
    }

    private static StudyFinding finding(FindingKind kind, StudyRow row, StudyCharacter character) {
        return StudyFinding.of(kind, row.id(), character.id())
                .with("row", row.name())
                .with("character", character.label());
    }
}
