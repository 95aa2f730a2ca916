package org.polyclave.study.advice;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.separation.PairVerdicts;
import org.polyclave.core.separation.ScoringGains;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Verdict;
import org.polyclave.study.advice.NextStep.Kind;
import org.polyclave.study.comparison.Totals;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.danger.DangerReport;
import org.polyclave.study.model.StudyRow;

/**
 * What would help a study most now, computed: first what makes a key impossible, then what makes it dangerous, then what
 * it cannot separate, then what is thin.
 */
public final class NextBestStep {
    private static final double WELL_SCORED = 0.97;
    private static final int YEAR = 12;
    /** Cells that are nearly as good as the best: one of them that can be seen now goes first. */
    private static final int NEARLY = 20;

    private final CompiledStudy compiled;
    private final StudyProgress progress;
    private final int now;

    /** @param now month, 1 to 12 */
    public NextBestStep(CompiledStudy compiled, StudyProgress progress, int now) {
        this.compiled = compiled;
        this.progress = progress;
        this.now = now;
    }

    public NextStep find() {
        Matrix matrix = compiled.matrix();
        if (matrix.rowCount() < 2 || matrix.characterCount() == 0) {
            return new NextStep(Kind.IMPORT, "", List.of(), 0, 0, 0, 0, 0);
        }
        PairVerdicts verdicts = PairVerdicts.of(matrix, SeparationContext.EVERYTHING);
        Totals totals = Totals.of(
                matrix,
                verdicts::verdict,
                IntStream.range(0, matrix.rowCount()).boxed().toList(),
                false);
        Step step = step(matrix, verdicts, totals);
        return new NextStep(
                step.kind(),
                step.subject(),
                step.rows(),
                step.count(),
                step.month(),
                totals.open(),
                totals.thin(),
                (int) DangerReport.of(compiled).stream()
                        .filter(DangerReport.Danger::isBlocked)
                        .count());
    }

    private record Step(Kind kind, String subject, List<String> rows, int count, int month) {
        Step(Kind kind, String subject, int count) {
            this(kind, subject, List.of(), count, 0);
        }
    }

    private Step step(Matrix matrix, PairVerdicts verdicts, Totals totals) {
        if (progress.notAssessed() > 0) {
            String first = compiled.rows().stream()
                    .filter(r -> r.hazard() == Hazard.NOT_ASSESSED)
                    .findFirst()
                    .map(StudyRow::name)
                    .orElse("");
            return new Step(Kind.ASSESS_HAZARDS, first, progress.notAssessed());
        }
        if (totals.open() > 0) {
            return open(matrix, verdicts, totals);
        }
        Optional<Step> danger = danger();
        if (danger.isPresent()) {
            return danger.get();
        }
        List<ScoringGains.Gain> gains = new ScoringGains(matrix, SeparationContext.EVERYTHING, verdicts).best(NEARLY);
        if (!gains.isEmpty()) {
            return cell(matrix, gains, totals);
        }
        Optional<Step> season = season(matrix);
        if (season.isPresent()) {
            return season.get();
        }
        if (progress.scored() < WELL_SCORED * progress.cells()) {
            return thinnest(matrix);
        }
        return progress.editions() == 0 ? new Step(Kind.PUBLISH, "", 0) : new Step(Kind.REVIEW, "", 0);
    }

    /** A danger that readers could not rule out: by cells that somebody has to vouch for, or by more characters. */
    private Optional<Step> danger() {
        for (DangerReport.Danger danger : DangerReport.of(compiled)) {
            if (danger.isBlocked()) {
                String row = danger.row();
                List<String> others = danger.failing().get(0).others();
                return Optional.of(
                        switch (danger.remedy()) {
                            case NAME_PARTS -> new Step(Kind.NAME_PARTS, danger.name(), List.of(row), 0, 0);
                            case SCORE ->
                                others.isEmpty()
                                        ? new Step(Kind.CONFIRM_DANGER, danger.name(), List.of(row), 0, 0)
                                        : new Step(
                                                Kind.SEPARATE_DANGER,
                                                danger.name(),
                                                List.of(row, others.get(0)),
                                                others.size(),
                                                0);
                            case CONFIRM, NONE ->
                                new Step(
                                        Kind.CONFIRM_DANGER,
                                        danger.name(),
                                        List.of(row),
                                        danger.cells().size(),
                                        0);
                        });
            }
        }
        return Optional.empty();
    }

    /** The best cell, or one nearly as good that can be seen now but not all year. */
    private Step cell(Matrix matrix, List<ScoringGains.Gain> gains, Totals totals) {
        ScoringGains.Gain best = gains.get(0);
        Optional<ScoringGains.Gain> fleeting = gains.stream()
                .filter(g -> g.perMinute() >= best.perMinute() / 2)
                .filter(g -> isFleeting(matrix.months(g.row(), g.character())))
                .findFirst();
        ScoringGains.Gain gain = fleeting.orElse(best);
        String cell = compiled.rows().get(gain.row()).name() + ": "
                + compiled.characters().get(gain.character()).label();
        return fleeting.isPresent()
                ? new Step(Kind.SCORE_CELL_NOW, cell, List.of(), totals.thin(), now)
                : new Step(Kind.SCORE_CELL, cell, totals.thin());
    }

    private boolean isFleeting(int months) {
        return months != MatrixCharacter.ALL_MONTHS && (months & (1 << (now - 1))) != 0;
    }

    /** The month in which the most pairs are open, though each is told in another; empty if there is none. */
    private Optional<Step> season(Matrix matrix) {
        List<Integer> rows = IntStream.range(0, matrix.rowCount()).boxed().toList();
        int worst = 0;
        int most = 0;
        for (int month = 1; month <= YEAR; month++) {
            SeparationContext then = SeparationContext.EVERYTHING.in(1 << (month - 1));
            int open = Totals.of(matrix, PairVerdicts.of(matrix, then)::verdict, rows, false)
                    .open();
            if (open > most) {
                most = open;
                worst = month;
            }
        }
        return most == 0 ? Optional.empty() : Optional.of(new Step(Kind.SEPARATE_IN_MONTH, "", List.of(), most, worst));
    }

    /** The first pair that nothing separates. */
    private Step open(Matrix matrix, PairVerdicts verdicts, Totals totals) {
        for (int a = 0; a < matrix.rowCount(); a++) {
            for (int b = a + 1; b < matrix.rowCount(); b++) {
                boolean counts = matrix.row(a).name() != matrix.row(b).name();
                if (counts && verdicts.verdict(a, b).compareTo(Verdict.THIN) < 0) {
                    String names = compiled.rows().get(a).name() + " / "
                            + compiled.rows().get(b).name();
                    List<String> pair = List.of(
                            compiled.rows().get(a).id(), compiled.rows().get(b).id());
                    return new Step(Kind.SEPARATE_PAIR, names, pair, totals.open(), 0);
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
        return new Step(Kind.SCORE_CHARACTER, compiled.characters().get(worst).label(), most);
    }
}
