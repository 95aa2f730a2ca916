package org.polyclave.server.study;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.matrix.ScoreService;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.advice.StudyProgress;
import org.polyclave.study.compile.HazardTree;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.compile.Shares;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.notation.NotationPrinter;

/** Makes the view of a study from a snapshot. */
final class StudyViewer {
    private final StudyStore.Snapshot snapshot;
    private final Study study;
    private final Inheritance inheritance;

    StudyViewer(StudyStore.Snapshot snapshot) {
        this.snapshot = snapshot;
        study = snapshot.study();
        inheritance = new Inheritance(study.rows(), snapshot.scores());
    }

    StudyView view(OpenStudy open, int editions) {
        return new StudyView(
                study.slug(),
                study.title(),
                snapshot.revision(),
                open.role(),
                open.blind(),
                study.scope(),
                study.rows(),
                standing(),
                study.nearButOutside(),
                snapshot.compiled().outside(),
                study.characters(),
                study.glossary(),
                study.references(),
                // A claim says what somebody holds of a taxon.
                open.blind() ? List.of() : study.claims(),
                study.pictures(),
                // So does the name of a specimen.
                open.blind() ? List.of() : study.specimens(),
                revisions(),
                progress(open, editions),
                counts(open));
    }

    /** Who scores blind is not told how far others are. */
    StudyProgress progress(OpenStudy open, int editions) {
        StudyProgress progress = StudyProgress.of(snapshot.compiled(), editions);
        return open.blind() ? progress.withoutScores() : progress;
    }

    /** What a list shows of a seedling is as bad as its parent. */
    private List<StudyRow> standing() {
        HazardTree hazards = new HazardTree(study.rows());
        return study.rows().stream()
                .filter(r -> !r.equals(hazards.applied(r)))
                .map(hazards::applied)
                .toList();
    }

    /** Revisions of all that was ever changed, but for scores: cells carry their own, opinions are their scorers'. */
    private Map<String, Long> revisions() {
        Map<String, Long> revisions = new TreeMap<>();
        snapshot.revisions().forEach((key, revision) -> {
            if (!StudyObject.of(key).isData()) {
                revisions.put(key, revision);
            }
        });
        return revisions;
    }

    /** Who scores blind is told neither how much others scored nor what specimens are used for. */
    StudyView.Counts counts(OpenStudy open) {
        if (open.blind()) {
            return new StudyView.Counts(
                    new int[study.rows().size()], new int[study.characters().size()], Map.of());
        }
        Map<String, Integer> places = new HashMap<>();
        study.characters().forEach(c -> places.put(c.id(), places.size()));
        int[] ofRows = new int[study.rows().size()];
        int[] ofCharacters = new int[study.characters().size()];
        for (int i = 0; i < ofRows.length; i++) {
            Map<String, StudyScore> own =
                    snapshot.scores().getOrDefault(study.rows().get(i).id(), Map.of());
            ofRows[i] = own.size();
            own.forEach((c, score) -> ofCharacters[places.getOrDefault(c, 0)]++);
        }
        return new StudyView.Counts(ofRows, ofCharacters, evidence());
    }

    private Map<String, Integer> evidence() {
        Map<String, Integer> scores = new TreeMap<>();
        if (!study.specimens().isEmpty()) {
            for (StudyScore score : study.scores()) {
                List<String> on =
                        score.sample() == null ? List.of() : score.sample().specimens();
                on.forEach(s -> scores.merge(s, 1, Integer::sum));
            }
        }
        return scores;
    }

    /** A column for those who may not see it. */
    StudyView.ColumnView hidden(StudyCharacter character) {
        int[] none = new int[study.rows().size()];
        java.util.Arrays.fill(none, -1);
        return new StudyView.ColumnView(character.id(), List.of(), none, none, new long[none.length]);
    }

    /** What every row shows for a character. */
    StudyView.ColumnView column(StudyCharacter character) {
        int n = study.rows().size();
        Map<String, Integer> places = new HashMap<>();
        study.rows().forEach(r -> places.put(r.id(), places.size()));
        Map<StudyScore, Integer> known = new LinkedHashMap<>();
        List<StudyView.FaceView> faces = new ArrayList<>();
        StudyView.ColumnView column =
                new StudyView.ColumnView(character.id(), faces, new int[n], new int[n], new long[n]);
        for (int i = 0; i < n; i++) {
            String row = study.rows().get(i).id();
            Optional<Inheritance.Effective> effective = inheritance.effective(row, character.id());
            column.revision()[i] = snapshot.revision(StudyObject.cell(row, character.id()));
            column.face()[i] = -1;
            column.from()[i] = -1;
            if (effective.isPresent()) {
                StudyScore score = effective.get().score();
                column.face()[i] = known.computeIfAbsent(score.withRow(""), s -> {
                    faces.add(face(s, character));
                    return faces.size() - 1;
                });
                column.from()[i] = effective.get().inherited() ? places.getOrDefault(score.row(), -1) : -1;
            }
        }
        return column;
    }

    private static StudyView.FaceView face(StudyScore score, StudyCharacter character) {
        return new StudyView.FaceView(
                NotationPrinter.print(score.value(), character),
                kind(score.value()),
                parts(score.value(), character),
                range(score.value()),
                score.doubtful(),
                score.basis().name(),
                score.source(),
                score.note(),
                score.months(),
                score.scorer(),
                score.date(),
                score.concept(),
                ScoreService.SampleView.of(score.sample(), character));
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
}
