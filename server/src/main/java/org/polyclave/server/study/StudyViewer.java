package org.polyclave.server.study;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.formats.notation.MonthNotation;
import org.polyclave.formats.notation.NotationPrinter;
import org.polyclave.formats.study.Inheritance;
import org.polyclave.formats.study.ScoreValue;
import org.polyclave.formats.study.Shares;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyScore;

/** Makes the view of a study from a snapshot. */
final class StudyViewer {
    private final StudyStore.Snapshot snapshot;
    private final Study study;
    private final Inheritance inheritance;
    private final Map<String, Map<String, StudyScore>> scores;

    StudyViewer(StudyStore.Snapshot snapshot) {
        this.snapshot = snapshot;
        study = snapshot.study();
        scores = study.scoresByRow();
        inheritance = new Inheritance(study.rows(), scores);
    }

    StudyView view(Role role, int editions) {
        List<StudyView.CellView> cells = new ArrayList<>();
        for (StudyRow row : study.rows()) {
            for (StudyCharacter character : study.characters()) {
                cell(row, character).ifPresent(cells::add);
            }
        }
        StudyView.Gauges gauges = gauges(editions);
        return new StudyView(
                study.slug(),
                study.title(),
                snapshot.revision(),
                role,
                study.scope(),
                study.rows(),
                study.nearButOutside(),
                study.characters(),
                cells,
                revisions(),
                gauges,
                new NextBestStep(snapshot.compiled(), gauges).find());
    }

    /** Revisions of all that was ever changed, but for the cells, which carry their own. */
    private Map<String, Long> revisions() {
        Map<String, Long> revisions = new TreeMap<>(snapshot.revisions());
        revisions.keySet().removeIf(key -> key.startsWith("cell/"));
        return revisions;
    }

    /** The cell, if it shows anything or was ever changed. */
    Optional<StudyView.CellView> cell(StudyRow row, StudyCharacter character) {
        StudyView.CellView cell = cellOrEmpty(row, character);
        return cell.kind().equals("empty") && cell.revision() == 0 ? Optional.empty() : Optional.of(cell);
    }

    StudyView.CellView cellOrEmpty(StudyRow row, StudyCharacter character) {
        Optional<Inheritance.Effective> effective = inheritance.effective(row.id(), character.id());
        long revision = snapshot.revision(StudyObject.cell(row.id(), character.id()));
        if (effective.isEmpty()) {
            return new StudyView.CellView(
                    row.id(), character.id(), "", "empty", List.of(), null, null, false, "", "", revision);
        }
        StudyScore score = effective.get().score();
        return new StudyView.CellView(
                row.id(),
                character.id(),
                NotationPrinter.print(score.value(), character),
                kind(score.value()),
                parts(score.value(), character),
                range(score.value()),
                effective.get().inherited() ? score.row() : null,
                score.doubtful(),
                score.basis().name(),
                score.source(),
                revision);
    }

    private static String kind(ScoreValue value) {
        if (value instanceof ScoreValue.Unknown) {
            return "unknown";
        }
        if (value instanceof ScoreValue.NotApplicable) {
            return "not-applicable";
        }
        if (value instanceof ScoreValue.Any) {
            return "any";
        }
        if (value instanceof ScoreValue.Months) {
            return "months";
        }
        return value instanceof ScoreValue.Range ? "range" : "states";
    }

    private static List<StudyView.PartView> parts(ScoreValue value, StudyCharacter character) {
        if (value instanceof ScoreValue.Months months) {
            return List.of(new StudyView.PartView(MonthNotation.print(months.months()), 1, false));
        }
        if (!(value instanceof ScoreValue.States states)) {
            return List.of();
        }
        double[] shares = Shares.of(states, character);
        List<StudyView.PartView> parts = new ArrayList<>();
        for (ScoreValue.Shown shown : states.shown()) {
            int s = character.indexOf(shown.state());
            boolean mistaken = shown.frequency() == ScoreValue.Frequency.MISTAKEN;
            parts.add(new StudyView.PartView(character.states().get(s).label(), shares[s], mistaken));
        }
        return parts;
    }

    private static StudyView.@org.jspecify.annotations.Nullable RangeView range(ScoreValue value) {
        if (!(value instanceof ScoreValue.Range range)) {
            return null;
        }
        double max = range.max() == null ? range.low() * 2 : range.max();
        double high = range.high() == null ? max : range.high();
        return new StudyView.RangeView(range.min(), range.low(), high, max);
    }

    private StudyView.Gauges gauges(int editions) {
        int notAssessed = 0;
        int scored = 0;
        for (StudyRow row : snapshot.compiled().rows()) {
            notAssessed += row.hazard() == Hazard.NOT_ASSESSED ? 1 : 0;
            for (StudyCharacter character : study.characters()) {
                scored += inheritance
                                .effective(row.id(), character.id())
                                .filter(e -> !(e.score().value() instanceof ScoreValue.Unknown))
                                .isPresent()
                        ? 1
                        : 0;
            }
        }
        int withoutQuestion = (int) study.characters().stream()
                .filter(c -> c.question().isBlank() && c.type() != CharacterType.MONTHS)
                .count();
        int leaves = snapshot.compiled().rows().size();
        return new StudyView.Gauges(
                leaves,
                notAssessed,
                study.characters().size(),
                withoutQuestion,
                scored,
                leaves * study.characters().size(),
                leaves,
                editions);
    }
}
