package org.polyclave.study.danger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.checks.StudyCheck;
import org.polyclave.study.checks.StudyFinding;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.danger.DangerReport.CellToConfirm;
import org.polyclave.study.danger.DangerReport.Danger;
import org.polyclave.study.danger.DangerReport.Kind;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScore;
import org.polyclave.wording.finding.FindingWording;

/** What an author is told of dangers: that an imported table rules nothing out, which cells to vouch for, what is in no key. */
class DangerReportTest {
    private static final String TABLE = """
            taxon,#rank,#parent,#hazard,leaf margin,leaf width,pod colour,stem hairs
            #type,,,,states,length,states,states
            #organ,,,,leaf,leaf,pod,stem
            #states,,,,toothed|entire,,red|blue,present|absent
            Bane,species,,life-threatening,toothed,10–12,red,absent
            Lamb,species,,none known,entire,4–7,blue,present
            Meek,species,,none known,entire,10–12,blue,present
            """;

    private static Study table(String text) {
        return TableReader.read(text.getBytes(StandardCharsets.UTF_8), "dangers.csv")
                .study();
    }

    private static Study confirmed(Study study, List<CellToConfirm> cells) {
        return study.withScores(study.scores().stream()
                .map(s -> cells.stream()
                                .anyMatch(c ->
                                        c.row().equals(s.row()) && c.character().equals(s.character()))
                        ? s.withConfirmed(List.of(new StudyScore.Confirmation("A. Keeper", "2031-05-04", "Own plants")))
                        : s)
                .toList());
    }

    private static List<Danger> dangers(Study study) {
        return DangerReport.of(StudyCompiler.compile(study));
    }

    private static List<StudyFinding> findings(Study study) {
        return StudyCheck.of(StudyCompiler.compile(study)).findings();
    }

    @Test
    void whatIsImportedRulesNothingOutUntilItsCellsAreVouchedFor() {
        Study study = table(TABLE);
        Danger bane = dangers(study).get(0);
        assertThat(dangers(study)).hasSize(1);
        assertThat(bane.isBlocked()).isTrue();
        assertThat(bane.failing()).singleElement().satisfies(f -> {
            assertThat(f.kind()).isEqualTo(Kind.TOO_FEW);
            assertThat(f.otherNames()).containsExactly("Lamb", "Meek");
            assertThat(f.months())
                    .isEqualTo(IntStream.rangeClosed(1, 12).boxed().toList());
            assertThat(f.features()).isZero();
        });
        // Hairs that Bane lacks are there in the others: a sign of theirs. The widths separate one of the two only.
        assertThat(bane.remedy()).isEqualTo(DangerReport.Remedy.CONFIRM);
        assertThat(bane.cells())
                .allMatch(c -> c.why() == DangerReport.Why.IMPORTED)
                .extracting(CellToConfirm::rowName, CellToConfirm::character)
                .containsExactlyInAnyOrder(
                        tuple("Bane", "leaf-margin"),
                        tuple("Bane", "pod-colour"),
                        tuple("Bane", "stem-hairs"),
                        tuple("Lamb", "leaf-margin"),
                        tuple("Lamb", "pod-colour"),
                        tuple("Lamb", "stem-hairs"),
                        tuple("Meek", "leaf-margin"),
                        tuple("Meek", "pod-colour"),
                        tuple("Meek", "stem-hairs"));
        StudyFinding first = findings(study).get(0);
        assertThat(first.key()).isEqualTo("danger-not-ruled-out/bane//");
        assertThat(FindingWording.reason(first))
                .contains("'Bane'")
                .contains("'Lamb', 'Meek'. ")
                .contains("Confirm 9 cells on the Dangers page");

        Study stood = confirmed(study, bane.cells());
        assertThat(dangers(stood).get(0).isBlocked()).isFalse();
        assertThat(dangers(stood).get(0).cells()).isEmpty();
        assertThat(findings(stood)).extracting(f -> f.kind().code()).doesNotContain("danger-not-ruled-out");
    }

    @Test
    void monthsAreToldEachWithTheNamesThatFailInIt() {
        Study study = table(TABLE.replace("#states", "#months,,,,May–Sep,,Aug–Oct,May–Sep\n#states"));
        Study stood = confirmed(study, dangers(study).get(0).cells());
        assertThat(dangers(stood).get(0).failing())
                .filteredOn(DangerReport.Failing::blocking)
                .extracting(DangerReport.Failing::otherNames, DangerReport.Failing::months)
                .as("In October Lamb's pods and narrow leaves are there, and their cells were among those to confirm")
                .containsExactly(
                        tuple(List.of("Meek"), List.of(1, 2, 3, 4, 10, 11, 12)),
                        tuple(List.of("Lamb"), List.of(1, 2, 3, 4, 11, 12)));
        assertThat(FindingWording.reason(findings(stood).get(0))).contains("'Meek' in Oct–Apr; 'Lamb' in Nov–Apr");
    }

    @Test
    void cellsAreListedOnlyWhereTheyWouldDo() {
        Danger partless = dangers(table(TABLE.replace("#organ,,,,leaf,leaf,pod,stem\n", "")))
                .get(0);
        assertThat(partless.cells()).isEmpty();
        assertThat(partless.remedy()).isEqualTo(DangerReport.Remedy.NAME_PARTS);
        Danger alike =
                dangers(table(TABLE.replace("red,absent", "blue,present"))).get(0);
        assertThat(alike.cells()).isEmpty();
        assertThat(alike.remedy()).isEqualTo(DangerReport.Remedy.SCORE);
        // Meek has one part only that differs, Lamb has two: the list is of what helps against Lamb.
        Danger half = dangers(table(TABLE.replace("entire,10–12,blue,present", "entire,10–12,red,absent")))
                .get(0);
        assertThat(half.cells())
                .extracting(CellToConfirm::rowName)
                .contains("Bane", "Lamb")
                .doesNotContain("Meek");
    }

    @Test
    void aDangerKnownByASeedlingOnlyIsInNoKey() {
        Study study = table(TABLE.replace("Bane,species,,life-threatening,toothed,10–12,red,absent\n", "")
                + "Bane,species,,life-threatening,,,,\n\"Bane, seedling\",,Bane,,toothed,10–12,red,absent\n");
        assertThat(dangers(study))
                .filteredOn(d -> d.failing().stream().anyMatch(f -> f.kind() == Kind.NOT_IN_KEY))
                .extracting(Danger::row)
                .containsExactly("bane");
        assertThat(findings(study)).extracting(StudyFinding::key).contains("danger-in-no-key/bane//");
    }
}
