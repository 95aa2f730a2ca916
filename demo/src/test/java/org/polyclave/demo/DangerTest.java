package org.polyclave.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.gate.SafetyGate;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.testkit.ReaderHabits;
import org.polyclave.core.testkit.SafetySimulation;
import org.polyclave.files.table.TableReader;
import org.polyclave.files.table.TableWriter;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.danger.DangerReport;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScore;

/** The gate and the margin must agree: what passes one can be ruled out by the other, in front of a specimen. */
class DangerTest {
    private static final int WHOLE_YEAR = 0xFFF;
    private static final int SESSIONS = 8;
    private static final int ROUNDS = 6;
    private static final double STATED_ERROR = 0.03;

    static List<Study> studies() {
        return DemoStudies.all();
    }

    @ParameterizedTest
    @MethodSource("studies")
    void aReaderOfAnotherTaxonLosesEveryDangerThatPassesTheGate(Study study) {
        assertThat(losesEveryDanger(study)).isPositive();
    }

    @ParameterizedTest
    @MethodSource("studies")
    void anImportedStudyDoesSoOnceItsCellsAreVouchedFor(Study study) {
        Study imported = imported(study);
        assertThat(losesEveryDanger(imported))
                .as("nobody vouches for an import")
                .isZero();
        assertThat(losesEveryDanger(vouchedFor(imported))).isPositive();
    }

    /** What comes back of a study that was sent away as a table. */
    private static Study imported(Study study) {
        Study read = TableReader.read(
                        TableWriter.write(study, TableWriter.Layout.WIDE, (char) 44, "")
                                .getBytes(StandardCharsets.UTF_8),
                        "away.csv")
                .study();
        assertThat(read.scores()).hasSameSizeAs(study.scores());
        return read;
    }

    /** As an author does on the page of dangers: list by list, until none is left. */
    private static Study vouchedFor(Study study) {
        Study now = study;
        for (int round = 0; round < ROUNDS; round++) {
            Set<List<String>> cells = new HashSet<>();
            DangerReport.of(StudyCompiler.compile(now))
                    .forEach(d -> d.cells().forEach(c -> cells.add(List.of(c.row(), c.character()))));
            if (cells.isEmpty()) {
                return now;
            }
            now = confirmed(now, cells);
        }
        throw new AssertionError("cells that are vouched for stay on the list");
    }

    /** A cell that was inherited becomes the row's own. */
    private static Study confirmed(Study study, Set<List<String>> cells) {
        Inheritance inheritance =
                new Inheritance(study.rows(), StudyCompiler.compile(study).scores());
        StudyScore.Confirmation here =
                new StudyScore.Confirmation("A. Keeper", "2031-05-04", "Specimens of the valley");
        List<StudyScore> scores = new ArrayList<>(study.scores());
        scores.removeIf(s -> cells.contains(List.of(s.row(), s.character())));
        cells.forEach(cell -> scores.add(inheritance
                .effective(cell.get(0), cell.get(1))
                .orElseThrow()
                .score()
                .withRow(cell.get(0))
                .withConfirmed(List.of(here))));
        return study.withScores(scores);
    }

    /** @return pairs of a danger and another row that pass the gate */
    private static int losesEveryDanger(Study study) {
        int pairs = 0;
        Matrix matrix = StudyCompiler.compile(study).scoredOnly().matrix();
        Set<List<Integer>> unmet = new HashSet<>();
        SafetyGate.unmet(matrix, WHOLE_YEAR).forEach(u -> unmet.add(List.of(u.danger(), u.other())));
        for (int danger = 0; danger < matrix.rowCount(); danger++) {
            for (int other = 0; matrix.row(danger).hazard().isDangerous() && other < matrix.rowCount(); other++) {
                if (!matrix.row(other).hazard().isDangerous() && !unmet.contains(List.of(danger, other))) {
                    assertThat(new SafetySimulation(matrix, new ReaderHabits(Observer.TRAINED, 1, STATED_ERROR, 0))
                                    .run(other, danger, SESSIONS, 5)
                                    .ruledOut())
                            .as("%s rules out %s", matrix.row(other), matrix.row(danger))
                            .isGreaterThanOrEqualTo(SESSIONS * 3 / 4);
                    pairs++;
                }
            }
        }
        return pairs;
    }
}
