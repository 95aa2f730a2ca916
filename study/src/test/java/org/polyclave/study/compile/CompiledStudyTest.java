package org.polyclave.study.compile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;

/** Parts of a study, and groups at which keys stop. */
class CompiledStudyTest {
    private static final StudyCharacter TIP =
            StudyCharacter.of("tip", CharacterType.STATES, List.of(StudyState.of("blunt"), StudyState.of("sharp")));

    private static StudyRow row(String label, String rank, String parent, Hazard hazard) {
        StudyRow row = StudyRow.of(label).with().rank(rank).hazard(hazard).build();
        return parent.isEmpty() ? row : row.withParent(parent);
    }

    private static CompiledStudy compiled() {
        List<StudyRow> rows = new ArrayList<>(List.of(
                row("Tribe", "tribe", "", Hazard.NOT_ASSESSED),
                row("Mild", "genus", "tribe", Hazard.NONE_KNOWN),
                row("Mild one", "species", "mild", Hazard.NONE_KNOWN),
                row("Mild two", "species", "mild", Hazard.NONE_KNOWN),
                row("Mixed", "genus", "tribe", Hazard.NOT_ASSESSED),
                row("Mixed one", "species", "mixed", Hazard.SERIOUS),
                row("Mixed two", "species", "mixed", Hazard.NONE_KNOWN),
                row("Bane", "genus", "", Hazard.SERIOUS),
                row("Bane one", "species", "bane", Hazard.NOT_ASSESSED),
                row("Bane two", "species", "bane", Hazard.NOT_ASSESSED)));
        rows.add(row("Mild two", "species", "mild-two", Hazard.NONE_KNOWN)
                .with()
                .id("mild-two-male")
                .stage("Male")
                .build());
        rows.add(row("Mild two", "species", "mild-two", Hazard.NONE_KNOWN)
                .with()
                .id("mild-two-young")
                .stage("young")
                .build());
        List<StudyScore> scores = new ArrayList<>();
        for (StudyRow row : rows) {
            if (!row.rank().equals("genus") && !row.rank().equals("tribe")) {
                String state = row.isSemaphoront() ? "sharp" : "blunt";
                scores.add(new StudyScore(
                        row.id(),
                        "tip",
                        ((CellNotation.Parsed) CellNotation.parse(state, TIP)).value(),
                        state,
                        StudyScore.Basis.JUDGEMENT,
                        "",
                        false,
                        ""));
            }
        }
        return StudyCompiler.compile(new Study("s", "S", StudyScope.EMPTY, rows, List.of(), List.of(TIP), scores));
    }

    private static Map<String, String> names(CompiledStudy study) {
        Map<String, String> names = new LinkedHashMap<>();
        for (int i = 0; i < study.rows().size(); i++) {
            names.put(study.rows().get(i).id(), study.nameOf(i).id());
        }
        return names;
    }

    @Test
    void keysStopAtTheOutermostGroupUnlessOnlyPartOfItIsDangerous() {
        CompiledStudy whole = compiled();
        CompiledStudy stopping = whole.stoppingAt(Set.of("tribe", "mild", "mild-two", "mixed", "bane"));
        assertThat(names(stopping))
                .containsEntry("mild-one", "mild")
                .containsEntry("mild-two", "mild")
                .containsEntry("mild-two-male", "mild")
                .containsEntry("mixed-one", "mixed-one")
                .containsEntry("mixed-two", "mixed-two")
                .containsEntry("bane-one", "bane")
                .containsEntry("bane-two", "bane");
        assertThat(stopping.nameOf(stopping.rowIndex("mild-one")).stopsHere()).isTrue();
        assertThat(names(whole.stoppingAt(Set.of()))).isEqualTo(names(whole)).containsEntry("mild-one", "mild-one");
    }

    @Test
    void ofSomeStagesTheOthersAreLeftOutAndWhatIsOfNoStageStays() {
        CompiledStudy whole = compiled();
        assertThat(names(whole.ofStages(Set.of("male"))).keySet())
                .contains("mild-one", "mild-two", "mild-two-male")
                .doesNotContain("mild-two-young");
        assertThat(whole.ofStages(Set.of())).isSameAs(whole);
    }

    @Test
    void whatNeedsMoreMagnificationThanThereIsIsNotAtHand() {
        StudyCharacter spore = TIP.withWhere(new StudyCharacter.Where("", "", "", "", "", "", "oil, 1000x", ""));
        KeyContext few = KeyContext.parse("magnification=400");
        assertThat(few.lacks(spore)).contains(KeyContext.Lack.METHOD);
        assertThat(few.lacks(TIP)).isEmpty();
        assertThat(KeyContext.parse("magnification=1000").lacks(spore)).isEmpty();
        assertThat(KeyContext.EVERYTHING.lacks(spore)).isEmpty();
        assertThatThrownBy(() -> KeyContext.parse("magnification=much")).hasMessageContaining("Write a number");
    }

    /** A female is grown and may be of any colour; what is young may be of either sex. */
    @ParameterizedTest
    @CsvSource({
        "female, female spotted|spotted|plain",
        "male, spotted|plain",
        "juvenile, young|spotted|plain",
        "juvenile+female, young|female spotted|spotted|plain",
        "spotted, young|female spotted|spotted",
        "female+spotted, female spotted|spotted",
        "juvenile male, young|spotted|plain"
    })
    void whatTellsNothingElseMayBeIt(String chosen, String expected) {
        List<StudyRow> rows = Stream.of("young", "female spotted", "spotted", "plain")
                .map(stage -> StudyRow.of("Crab " + stage).with().stage(stage).build())
                .toList();
        Facets facets = new Facets(rows);
        assertThat(rows.stream()
                        .filter(r -> facets.mayBe(r, List.of(chosen.split("\\+"))))
                        .map(StudyRow::stage))
                .containsExactly(expected.split("\\|"));
    }
}
