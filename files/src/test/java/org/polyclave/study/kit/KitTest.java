package org.polyclave.study.kit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.Study;

/** What readers are told to bring, and what they may meet that no key names. */
class KitTest {
    private static Study table(String text) {
        return TableReader.read(text.getBytes(StandardCharsets.UTF_8), "kit.csv")
                .study();
    }

    private static List<String> kit(String methods, String hazard) {
        return Kit.of(table("taxon,#rank,#hazard,stem,leaf,edge\n#type,,,states,length,states\n#method,,," + methods
                + "\nReed,species," + hazard + ",stout,5–9,even\nRush,species,none known,thin,10–12,toothed\n"));
    }

    @Test
    void thingsComeFromMethodsAndFromTheWaysInWhichTaxaHarm() {
        assertThat(kit("eye,,Lens", "none known")).containsExactly("lens ×10", "ruler");
        assertThat(kit("eye,caliper,photograph", "none known")).containsExactly("caliper", "camera");
        assertThat(kit("cut across,ruler,dig out", "none known")).containsExactly("ruler", "knife or snips", "trowel");
        assertThat(kit("eye,ruler,turn over", "serious"))
                .as("Nobody said by which way it harms; a method without a thing")
                .containsExactly("ruler", "gloves", "long sleeves", "water and soap");
        assertThat(kit("microscope,ruler,reagent", "none known"))
                .containsExactly("microscope", "ruler", "reagents", "safety glasses");
    }

    @Test
    void ofATaxonScoredInOneStageTheRestIsOutsideAsDangerousAsItIs() {
        Study study = table("""
                taxon,#stage,#rank,#hazard,leaf
                #states,,,,long|short
                Dwale,,species,life-threatening,
                Dwale,seedling,species,life-threatening,long
                Mild,,species,none known,short
                Late,,species,not assessed,
                """);
        assertThat(StudyCompiler.compile(study).outside())
                .extracting(OutsideTaxon::name, o -> o.hazard().name())
                .containsExactly(
                        tuple("Dwale, other than seedling", "LIFE_THREATENING"), tuple("Late", "NOT_ASSESSED"));
    }
}
