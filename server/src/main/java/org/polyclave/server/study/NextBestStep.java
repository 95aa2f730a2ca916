package org.polyclave.server.study;

import java.util.List;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.separation.SafetyGate;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.formats.study.CompiledStudy;

/**
 * What would help a study most now, computed: first what makes a key impossible, then what makes it dangerous, then what
 * it cannot part, then what is thin.
 */
final class NextBestStep {
    private static final double WELL_SCORED = 0.97;
    private static final int ALL_MONTHS = 0xFFF;

    private final CompiledStudy compiled;
    private final StudyView.Gauges gauges;

    NextBestStep(CompiledStudy compiled, StudyView.Gauges gauges) {
        this.compiled = compiled;
        this.gauges = gauges;
    }

    StudyView.NextStep find() {
        Matrix matrix = compiled.matrix();
        if (matrix.rowCount() < 2 || matrix.characterCount() == 0) {
            return new StudyView.NextStep("import", "scope", "", 0);
        }
        if (gauges.notAssessed() > 0) {
            String first = compiled.rows().stream()
                    .filter(r -> r.hazard() == org.polyclave.core.matrix.Hazard.NOT_ASSESSED)
                    .findFirst()
                    .map(r -> r.name())
                    .orElse("");
            return new StudyView.NextStep("assess-hazards", "scope", first, gauges.notAssessed());
        }
        StudyView.NextStep unparted = unparted(matrix);
        if (unparted.count() > 0) {
            return unparted;
        }
        List<SafetyGate.UnmetPair> unmet = SafetyGate.unmet(matrix, ALL_MONTHS);
        if (!unmet.isEmpty()) {
            String danger = compiled.rows().get(unmet.get(0).danger()).name();
            return new StudyView.NextStep("part-danger", "score", danger, unmet.size());
        }
        if (gauges.scored() < WELL_SCORED * gauges.cells()) {
            return thinnest(matrix);
        }
        return gauges.editions() == 0
                ? new StudyView.NextStep("publish", "publish", "", 0)
                : new StudyView.NextStep("review", "key", "", 0);
    }

    private StudyView.NextStep unparted(Matrix matrix) {
        StrictSeparation separation = new StrictSeparation(matrix);
        int pairs = 0;
        String first = "";
        for (int a = 0; a < matrix.rowCount(); a++) {
            for (int b = a + 1; b < matrix.rowCount(); b++) {
                boolean apart = matrix.row(a).target() == matrix.row(b).target() || separation.separates(a, b);
                if (!apart && pairs++ == 0) {
                    first = compiled.rows().get(a).name() + " / "
                            + compiled.rows().get(b).name();
                }
            }
        }
        return new StudyView.NextStep("part-pairs", "score", first, pairs);
    }

    private StudyView.NextStep thinnest(Matrix matrix) {
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
        return new StudyView.NextStep(
                "score-character", "score", compiled.characters().get(worst).label(), most);
    }
}
