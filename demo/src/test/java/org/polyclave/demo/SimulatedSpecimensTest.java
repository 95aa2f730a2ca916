package org.polyclave.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.measuring.Slips;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.demo.specimen.SpecimenPicture;
import org.polyclave.files.picture.PictureFile;
import org.polyclave.print.key.KeyRenderer;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.measuring.Evidence;
import org.polyclave.study.measuring.Proposals;
import org.polyclave.study.model.Mark.Point;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.key.KeyWording;

final class SimulatedSpecimensTest {
    @Test
    void theDemoHasSpecimensWithPicturesReadingsAndPlantedSlips() {
        List<Study> studies = DemoStudies.withSpecimens();
        assertThat(studies.stream().mapToInt(s -> s.specimens().size()).sum()).isGreaterThanOrEqualTo(200);
        List<Slips.Cause> causes = new ArrayList<>();
        for (Study study : studies) {
            assertThat(StudyRules.check(study)).isEmpty();
            assertThat(study.pictures().stream().filter(p -> !p.specimen().isEmpty()))
                    .hasSizeGreaterThan(50)
                    .allSatisfy(p -> assertThat(p.scale()).isNotNull());
            Evidence evidence = new Evidence(study);
            for (StudyCharacter character : evidence.read()) {
                for (Evidence.RowReadings row : evidence.of(character)) {
                    Proposals.of(row, character, null).flags().forEach(f -> causes.add(f.cause()));
                }
            }
        }
        assertThat(causes).contains(Slips.Cause.INCHES, Slips.Cause.TENFOLD);
        // Specimens are as the matrix says; hardly any is flagged but for the slips, which are in ratios too.
        assertThat(causes).hasSizeLessThan(10);
    }

    @Test
    void theKeySaysWhereAMeasuredLimitShouldNotDecide() {
        CompiledStudy tussocks =
                StudyCompiler.compile(DemoStudies.withSpecimens().get(0));
        KeyResult key = ((KeyOutcome.Generated) new KeyGenerator()
                        .generate(
                                tussocks.matrix(),
                                KeyOptions.DEFAULT.withNodeBudget(100).withObjective(KeyObjective.CAUTIOUS),
                                CancelSignal.NEVER))
                .result();
        assertThat(key.proof().proven()).isTrue();
        assertThat(KeyRenderer.text(KeyWording.word(tussocks, key), tussocks.study()))
                .containsPattern(
                        "ruit\\s+[\\d.]+–[\\d.]+\\s+mm\\s+long\\s+\\([^)]*[\\d.]+–[\\d.]+\\s+mm:\\s+do\\s+not");
    }

    @Test
    void aPictureShowsWhatItSaysAndIsTheSameEveryTime() throws PictureFile.Refused {
        SpecimenPicture.Rendered one = SpecimenPicture.fruit(3.2, 0.16, 720, 540, 0.8, 5);
        assertThat(SpecimenPicture.fruit(3.2, 0.16, 720, 540, 0.8, 5).jpeg()).isEqualTo(one.jpeg());
        double perPixel = 2.0 / length(one.bar());
        assertThat(one.barText()).isEqualTo("2 mm");
        assertThat(length(one.endsOf("fruit-length")) * perPixel)
                .isCloseTo(3.2, org.assertj.core.api.Assertions.within(1e-9));
        PictureFile cleaned = PictureFile.of(one.jpeg());
        assertThat(Map.of(cleaned.width(), cleaned.height())).isEqualTo(Map.of(720, 540));
    }

    private static double length(List<Point> ends) {
        return Math.hypot(
                ends.get(1).x() - ends.get(0).x(), ends.get(1).y() - ends.get(0).y());
    }
}
