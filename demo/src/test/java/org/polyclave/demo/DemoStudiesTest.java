package org.polyclave.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.Base64;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.assertj.core.groups.Tuple;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.convert.MatrixFiles.Format;
import org.polyclave.files.picture.PictureFile;
import org.polyclave.files.study.StudyJson;
import org.polyclave.files.table.TableWriter.Layout;
import org.polyclave.study.agreement.ScorerAgreement;
import org.polyclave.study.checks.StudyCheck;
import org.polyclave.study.checks.StudyFinding;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Study;

final class DemoStudiesTest {
    static List<Study> studies() {
        return DemoStudies.all();
    }

    private static List<StudyFinding> check(Study study) {
        return StudyCheck.of(StudyCompiler.compile(study)).findings();
    }

    private static Tuple at(String kind, String row, String character) {
        return tuple(kind, row, character);
    }

    /** All that a study holds, drawings included, comes back from each kind of file that takes it along. */
    @ParameterizedTest
    @MethodSource("studies")
    void everyFileThatTakesAllAlongHoldsAll(Study study) {
        for (MatrixFiles.Format format : List.of(Format.CSV, Format.XLSX, Format.NEXUS)) {
            byte[] file = MatrixFiles.writeWhole(study, format, Layout.WIDE);
            Study read = MatrixFiles.read(file, "x." + format.ending()).study();
            assertThat(read.withScores(List.of())).isEqualTo(study.withScores(List.of()));
            assertThat(read.scores()).containsExactlyInAnyOrderElementsOf(study.scores());
        }
    }

    /** Every kind of slip or gap that a study can be checked for was planted into the mushrooms, once where it matters. */
    @Test
    void eachPlantedSlipIsFoundAtItsPlace() {
        assertThat(check(DemoStudies.browncaps()))
                .extracting(f -> f.kind().code(), StudyFinding::row, StudyFinding::character)
                .contains(
                        at("hazard-not-assessed", "ochrastipa-nana", ""),
                        at("no-caution", "tacivolva-mortis-washed-by-rain", ""),
                        at("unused-state", "", "gill-edge"),
                        at("never-varies", "", "gill-edge"),
                        at("separates-nothing", "", "cap-shape"),
                        at("same-rows", "sallowina-gemella", ""),
                        at("implied", "", "spore-surface"),
                        at("nearly-implied", "ochrastipa-cerina", "gill-colour"),
                        at("ranges-touch", "umbrovela-minor", "stem-width"),
                        at("not-applicable-but-applies", "umbrovela-collaris", "ring-place"),
                        at("scored-but-not-applicable", "sallowina-pallidipes", "ring-place"),
                        at("unknown-row", "umbrovela-incerta", ""),
                        at("unknown-character", "", "iron-salt"),
                        at("child-outside-parent", "sallowina-brunnea-var-parva", "cap-width"),
                        at("no-source", "umbrovela-squamosa", "iron-salt"),
                        at("single-value", "ochrastipa-nana", "cap-width"),
                        at("same-text", "sallowina-geminata", ""),
                        at("text-against-score", "umbrovela-ferruginea", "spore-print"),
                        at("no-question", "", "growth"),
                        at("no-definition", "", "stem-flesh"),
                        at("claim-fails", "tacivolva-mortis", "stem-base"),
                        at("claim-untestable", "ochrastipa-radix", "iron-salt"),
                        at("near-term", "", "ring"),
                        at("shared-name", "ochrastipa-cerina", ""),
                        at("out-of-season", "sallowina-lenta", "season"),
                        at("ratio-out-of-line", "umbrovela-minor", "spore-quotient"),
                        at("only-described", "sallowina-brunnea-var-pallens", ""),
                        at("only-inherited", "sallowina-brunnea-var-brunnea", ""),
                        at("few-individuals", "sallowina-rimata", "spore-length"),
                        at("no-picture", "", "odour"),
                        at("circular-evidence", "umbrovela-fugax", "flesh-change"),
                        at("evidence-elsewhere", "sallowina-lenta", "stem-surface"));
    }

    @ParameterizedTest
    @MethodSource("studies")
    void everyStudyIsWholeWithItsDrawings(Study study) throws Exception {
        Set<String> shown = new HashSet<>();
        for (Picture picture : study.pictures()) {
            assertThat(PictureFile.of(Base64.getDecoder().decode(picture.data()))
                            .width())
                    .as(picture.id())
                    .isPositive();
            shown.add(picture.id());
        }
        long drawn = study.characters().stream()
                .flatMap(c -> c.states().stream())
                .filter(s -> shown.contains(s.picture()) || !s.swatch().isEmpty())
                .count();
        long states =
                study.characters().stream().mapToLong(c -> c.states().size()).sum();
        assertThat((double) drawn / states)
                .as("states with a picture or a colour")
                .isGreaterThan(0.6);
        assertThat(study.scope().bodyPlan().plan()).isNotEmpty();
        assertThat(StudyJson.read(StudyJson.write(study).getBytes(java.nio.charset.StandardCharsets.UTF_8))
                        .study())
                .isEqualTo(study);
    }

    @Test
    void theSecondScorerDisagreesWhereItWasPlanted() {
        assertThat(ScorerAgreement.of(DemoStudies.crabs()))
                .extracting(ScorerAgreement.CharacterAgreement::character, ScorerAgreement.CharacterAgreement::toSettle)
                .contains(
                        tuple("side-teeth", List.of("estuarion-hirtum", "marrowina-limosa", "palpidora-mitis")),
                        tuple("abdomen", List.of("estuarion-vulgare-juvenile")));
        assertThat(ScorerAgreement.of(DemoStudies.browncaps()))
                .flatExtracting(ScorerAgreement.CharacterAgreement::toSettle)
                .contains("umbrovela-minor", "tacivolva-candens", "umbrovela-fugax");
    }

    /** What nobody can separate is named together, not separated by a guess. */
    @Test
    void femalesAndTwinsStayTogether() {
        assertThat(together(DemoStudies.crabs()))
                .contains(Set.of("estuarion-vulgare-female", "estuarion-advena-female"));
        assertThat(together(DemoStudies.browncaps()).stream().filter(t -> t.contains("sallowina-gemella")))
                .allMatch(t -> t.contains("sallowina-geminata"));
    }

    private static Set<Set<String>> together(Study study) {
        CompiledStudy compiled = StudyCompiler.compile(study);
        KeyOutcome outcome = new KeyGenerator()
                .generate(compiled.matrix(), KeyOptions.DEFAULT.withNodeBudget(400), CancelSignal.NEVER);
        Set<Set<String>> found = new HashSet<>();
        for (Key.Couplet couplet :
                ((KeyOutcome.Generated) outcome).result().key().couplets()) {
            for (Key.Lead lead : couplet.leads()) {
                if (lead.to() instanceof Key.ToRows end) {
                    found.add(Set.copyOf(end.rows().stream()
                            .map(i -> compiled.rows().get(i).id())
                            .toList()));
                }
            }
        }
        return found;
    }
}
