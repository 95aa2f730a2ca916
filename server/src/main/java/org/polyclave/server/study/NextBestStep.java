package org.polyclave.server.study;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.separation.PairVerdicts;
import org.polyclave.core.separation.SafetyGate;
import org.polyclave.core.separation.ScoringGains;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Verdict;
import org.polyclave.formats.apart.Totals;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.StudyRow;

/**
 * What would help a study most now, computed: first what makes a key impossible, then what makes it dangerous, then what
 * it cannot part, then what is thin.
 */
final class NextBestStep {
    private static final double WELL_SCORED = 0.97;

    private final CompiledStudy compiled;
    private final StudyView.Gauges gauges;

    NextBestStep(CompiledStudy compiled, StudyView.Gauges gauges) {
        this.compiled = compiled;
        this.gauges = gauges;
    }

    StudyView.NextStep find() {
        Matrix matrix = compiled.matrix();
        if (matrix.rowCount() < 2 || matrix.characterCount() == 0) {
            return new StudyView.NextStep("import", "scope", "", 0, 0, 0);
        }
        PairVerdicts verdicts = PairVerdicts.of(matrix, SeparationContext.EVERYTHING);
        Totals totals = Totals.of(
                matrix, verdicts, IntStream.range(0, matrix.rowCount()).boxed().toList(), false);
        Step step = step(matrix, verdicts, totals);
        return new StudyView.NextStep(
                step.code(), step.at(), step.subject(), step.count(), totals.open(), totals.thin());
    }

    private record Step(String code, String at, String subject, int count) {}

    private Step step(Matrix matrix, PairVerdicts verdicts, Totals totals) {
        if (gauges.notAssessed() > 0) {
            String first = compiled.rows().stream()
                    .filter(r -> r.hazard() == Hazard.NOT_ASSESSED)
                    .findFirst()
                    .map(StudyRow::name)
                    .orElse("");
            return new Step("assess-hazards", "scope", first, gauges.notAssessed());
        }
        if (totals.open() > 0) {
            return open(matrix, verdicts, totals);
        }
        List<SafetyGate.UnmetPair> unmet = SafetyGate.unmet(matrix, MatrixCharacter.ALL_MONTHS);
        if (!unmet.isEmpty()) {
            int danger = unmet.get(0).danger();
            return new Step(
                    "part-danger",
                    card(danger, unmet.get(0).other()) + "&safely=true",
                    compiled.rows().get(danger).name(),
                    unmet.size());
        }
        Optional<ScoringGains.Gain> best = new ScoringGains(matrix, SeparationContext.EVERYTHING, verdicts)
                .best(1).stream().findFirst();
        if (best.isPresent()) {
            String cell = compiled.rows().get(best.get().row()).name() + ": "
                    + compiled.characters().get(best.get().character()).label();
            return new Step("score-cell", "apart?view=next", cell, totals.thin());
        }
        if (gauges.scored() < WELL_SCORED * gauges.cells()) {
            return thinnest(matrix);
        }
        return gauges.editions() == 0 ? new Step("publish", "publish", "", 0) : new Step("review", "key", "", 0);
    }

    private String card(int a, int b) {
        return "apart?rows=" + compiled.rows().get(a).id() + ","
                + compiled.rows().get(b).id();
    }

    /** The first pair that nothing tells apart. */
    private Step open(Matrix matrix, PairVerdicts verdicts, Totals totals) {
        for (int a = 0; a < matrix.rowCount(); a++) {
            for (int b = a + 1; b < matrix.rowCount(); b++) {
                boolean counts = matrix.row(a).target() != matrix.row(b).target();
                if (counts && verdicts.verdict(a, b).compareTo(Verdict.THIN) < 0) {
                    String names = compiled.rows().get(a).name() + " / "
                            + compiled.rows().get(b).name();
                    return new Step("part-pairs", card(a, b), names, totals.open());
                }
            }
        }
        throw new IllegalStateException("No pair is open");
    }

    private Step thinnest(Matrix matrix) {
        int worst = 0;
        int most = -1;
        for (int c = 0; c < matrix.characterCount(); c++) {
            int unknown = 0;
            for (int i = 0; i < matrix.rowCount(); i++) {
                unknown += matrix.cell(i, c) instanceof Cell.Unknown ? 1 : 0;
            }
            if (unknown > most) {
                most = unknown;
                worst = c;
            }
        }
        return new Step(
                "score-character", "score", compiled.characters().get(worst).label(), most);
    }
}
