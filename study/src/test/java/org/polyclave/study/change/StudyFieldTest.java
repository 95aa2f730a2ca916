package org.polyclave.study.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.testkit.RandomScores;

final class StudyFieldTest {
    private static final List<Class<?>> OBJECTS = List.of(
            StudyScope.class,
            StudyRow.class,
            StudyCharacter.class,
            GlossaryTerm.class,
            Reference.class,
            Claim.class,
            Picture.class,
            Opinion.class,
            Specimen.class,
            Reading.class,
            StudyScore.class);

    /** A field that is added to the model needs its name here, and with it its words in the interface. */
    @Test
    void everyFieldOfTheModelHasItsName() {
        Map<String, StudyField> named = new HashMap<>();
        List<Class<?>> left = new ArrayList<>(OBJECTS);
        while (!left.isEmpty()) {
            for (RecordComponent component : left.remove(0).getRecordComponents()) {
                boolean inside = component.getType().isRecord();
                if (inside && component.getType().getEnclosingClass() != null) {
                    left.add(component.getType());
                } else {
                    named.put(component.getName(), StudyField.of(component.getName()));
                }
            }
        }
        assertThat(named).hasSizeGreaterThan(100);
    }

    /** Whatever differs is told, in words: no braces, no names of code. */
    @Test
    void whatDiffersIsToldInWords() {
        for (long seed = 1; seed <= 40; seed++) {
            Study before = RandomScores.study(seed);
            Study after = RandomScores.study(seed + 1000);
            for (StudyDifference.Change change : StudyDifference.between(before, after)) {
                assertThat(change.how() != StudyDifference.How.CHANGED
                                || !change.fields().isEmpty())
                        .as(change.toString())
                        .isTrue();
                for (StudyDifference.Field field : change.fields()) {
                    assertThat(field.before()).as(field.toString()).isNotEqualTo(field.after());
                    assertThat(field.after())
                            .as(field.toString())
                            .doesNotContain("{", "[", "_")
                            .doesNotContainPattern("[a-zA-Z]=");
                }
            }
        }
    }
}
