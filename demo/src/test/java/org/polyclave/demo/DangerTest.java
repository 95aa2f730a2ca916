package org.polyclave.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.gate.SafetyGate;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.testkit.SafetySimulation;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCompiler;

/** The gate and the margin must agree: what passes one can be ruled out by the other, in front of a specimen. */
class DangerTest {
    private static final int WHOLE_YEAR = 0xFFF;
    private static final int SESSIONS = 8;
    private static final double STATED_ERROR = 0.03;

    static List<Study> studies() {
        return DemoStudies.all();
    }

    @ParameterizedTest
    @MethodSource("studies")
    void aReaderOfAnotherTaxonLosesEveryDangerThatPassesTheGate(Study study) {
        Matrix matrix = StudyCompiler.compile(study).scoredOnly().matrix();
        Set<List<Integer>> unmet = new HashSet<>();
        SafetyGate.unmet(matrix, WHOLE_YEAR).forEach(u -> unmet.add(List.of(u.danger(), u.other())));
        for (int danger = 0; danger < matrix.rowCount(); danger++) {
            for (int other = 0; matrix.row(danger).hazard().isDangerous() && other < matrix.rowCount(); other++) {
                if (!matrix.row(other).hazard().isDangerous() && !unmet.contains(List.of(danger, other))) {
                    assertThat(new SafetySimulation(matrix, Observer.TRAINED, 1, STATED_ERROR, 0)
                                    .run(other, danger, SESSIONS, 5)
                                    .ruledOut())
                            .as("%s rules out %s", matrix.row(other), matrix.row(danger))
                            .isGreaterThanOrEqualTo(SESSIONS * 3 / 4);
                }
            }
        }
    }
}
