package org.polyclave.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Applicability;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;

/**
 * A reader who sees one part of each demo taxon, and sees it rightly. Where a name that contradicts leads, it is because it is
 * far commoner, or the other is a hybrid that shows anything; the ladder says what it contradicts.
 */
class TruthfulAnswersTest {
    @Test
    void aNameThatContradictsHardlyEverLeadsOneThatFitsAll() {
        int sessions = 0;
        List<String> led = new ArrayList<>();
        for (Study study : DemoStudies.all()) {
            Matrix matrix = StudyCompiler.compile(study).scoredOnly().matrix();
            AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix);
            for (int row = 0; row < matrix.rowCount(); row++) {
                TreeMap<Integer, List<Answer>> byPart = new TreeMap<>();
                for (int c = 0; c < matrix.characterCount(); c++) {
                    if (Applicability.of(matrix, row, c) == Applicability.CERTAIN) {
                        answer(
                                matrix,
                                row,
                                c,
                                byPart.computeIfAbsent(matrix.character(c).organ(), o -> new ArrayList<>()));
                    }
                }
                for (List<Answer> answers : byPart.values()) {
                    if (answers.size() > 1) {
                        Identification found = identifier.identify(answers, IdentifyOptions.WEIGH);
                        if (found.standings().get(0).mismatches() > 0) {
                            led.add(study.title() + ", " + matrix.row(row).id());
                        }
                        sessions++;
                    }
                }
            }
        }
        assertThat(sessions).isGreaterThan(400);
        assertThat(led).hasSizeLessThan(sessions / 60);
    }

    private static void answer(Matrix matrix, int row, int c, List<Answer> answers) {
        MatrixCharacter character = matrix.character(c);
        if (matrix.cell(row, c) instanceof Cell.Categorical shown) {
            int most = 0;
            for (int s = 1; s < shown.shares().length; s++) {
                most = shown.shares()[s] > shown.shares()[most] ? s : most;
            }
            answers.add(new Answer(c, new Observation.Seen(1 << most), Certainty.SURE));
        } else if (matrix.cell(row, c) instanceof Cell.Numeric range) {
            double between = (range.low() + range.high()) / 2;
            double middle = character.type() == CharacterType.COUNT ? Math.floor(between) : between;
            answers.add(new Answer(
                    c, new Observation.MeasuredObservation(middle, character.giveOrTake(middle)), Certainty.SURE));
        }
    }
}
