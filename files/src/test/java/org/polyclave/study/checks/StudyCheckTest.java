package org.polyclave.study.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.finding.FindingWording;

/** The checks of a study: a clean one is not bothered, and each slip planted into it is found where it is. */
class StudyCheckTest {
    private static final String CLEAN = """
            taxon,#rank,#parent,#hazard,leaf margin,leaf width,stem hairs,hair colour,flower colour,#covers
            #type,,,,states,length,states,states,states,
            #states,,,,toothed|entire|lobed,,present|absent,red|white,blue|yellow,
            #applies,,,,,,,stem hairs = present,,
            #question,,,,How is the edge?,How wide?,Are there hairs?,Which colour?,Which colour?,
            Aa,species,,none known,"toothed, entire",5–19,present,red,blue,all
            Aa minor,subspecies,Aa,none known,toothed,5–8,,,,
            Aa major,subspecies,Aa,none known,entire,10–19,,,,
            Bb,species,,none known,entire,4–7,absent,n/a,yellow,
            Cc,species,,none known,lobed,8.5–12,present,white,yellow,
            """;

    private static Study clean() {
        Study read = TableReader.read(CLEAN.getBytes(StandardCharsets.UTF_8), "clean.csv")
                .study();
        List<StudyCharacter> defined = read.characters().stream()
                .map(c -> c.withStates(c.states().stream()
                        .map(s -> new StudyCharacter.StudyState(s.id(), s.label(), "", "As drawn").withPicture("drawn"))
                        .toList()))
                .toList();
        Picture drawn = new Picture("drawn", "0".repeat(64), "image/png", 4, 3, "a state", "", "", "", "", "");
        return read.withCharacters(defined).withPictures(List.of(drawn));
    }

    @Test
    void ofARowOfWhichNothingIsKnownThatIsSaidOnce() {
        Study study = TableReader.read(
                        (CLEAN + "Dd,species,,none known,,,,,,\n").getBytes(StandardCharsets.UTF_8), "clean.csv")
                .study();
        assertThat(StudyCheck.of(StudyCompiler.compile(study)).findings())
                .filteredOn(f -> f.row().equals("dd"))
                .extracting(f -> f.kind().code())
                .contains("not-scored")
                .doesNotContain("unknown-row");
    }

    private static Specimen determined(String code, String row, String... by) {
        Specimen.Determination earlier = new Specimen.Determination(
                "cc", "cf.", Specimen.Kind.DETERMINED, "A. Scorer", "2031", "", List.of("leaf-width"));
        Specimen.Determination now = new Specimen.Determination(
                row, "", Specimen.Kind.CONFIRMED, "B. Scorer", "2031-05-04", "lens", List.of(by));
        return new Specimen(code, code.toUpperCase(Locale.ROOT), List.of(earlier, now), "");
    }

    /** The clean study with the width of Aa's leaves measured on these. */
    private static Study measuredOn(Specimen... specimens) {
        StudyScore.Sample sample = StudyScore.Sample.of(
                null, 9, null, Stream.of(specimens).map(Specimen::id).toList());
        return clean().withSpecimens(List.of(specimens))
                .withScores(clean().scores().stream()
                        .map(s -> s.row().equals("aa") && s.character().equals("leaf-width") ? s.withSample(sample) : s)
                        .toList());
    }

    @Test
    void specimensAreNoEvidenceForWhatNamedThemNorForWhatTheyAreNot() {
        // An earlier name that the width gave does not matter: the present one rests on other features.
        Study sound = measuredOn(determined("v1", "aa", "hair-colour"), determined("v2", "aa-minor"));
        assertThat(StudyRules.check(sound)).isEmpty();
        assertThat(check(sound)).isEmpty();
        Study slips = measuredOn(
                determined("v1", "aa", "hair-colour", "leaf-width"),
                determined("v2", "aa-minor"),
                determined("v3", "bb"),
                new Specimen("v4", "V4", List.of(), ""));
        assertThat(check(slips))
                .extracting(f -> f.kind().code(), StudyFinding::row, StudyFinding::character)
                .containsExactlyInAnyOrder(
                        tuple("circular-evidence", "aa", "leaf-width"),
                        tuple("evidence-elsewhere", "aa", "leaf-width"));
        assertThat(check(slips).stream().filter(f -> f.kind().code().equals("evidence-elsewhere")))
                .singleElement()
                .extracting(FindingWording::reason)
                .asString()
                .contains("'V3' (Bb); 'V4' (not identified)");
    }

    private static List<StudyFinding> check(Study study) {
        return StudyCheck.of(StudyCompiler.compile(study)).findings();
    }

    private static Study table(String from, String to) {
        assertThat(CLEAN).contains(from);
        Study changed = TableReader.read(CLEAN.replace(from, to).getBytes(StandardCharsets.UTF_8), "changed.csv")
                .study();
        return clean().withRows(changed.rows()).withScores(changed.scores());
    }

    private static Study row(String id, UnaryOperator<StudyRow> change) {
        return clean().withRows(clean().rows().stream()
                .map(r -> r.id().equals(id) ? change.apply(r) : r)
                .toList());
    }

    private static StudyRow described(StudyRow row, String text) {
        return row.withDescription(text);
    }

    @Test
    void aCleanStudyIsNotBothered() {
        assertThat(check(clean())).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "Bb,species,,none known,entire; Bb,species,,,entire; hazard-not-assessed; bb; ''",
                "Cc,species,,none known,lobed; Cc,species,,none known,entire; unused-state; ''; leaf-margin",
                "Cc,species,,none known,lobed,8.5–12; Cc,species,,none known,lobed,8–12; ranges-touch; aa-minor; leaf-width",
                "4–7,absent,n/a; 4–7,absent,red; scored-but-not-applicable; bb; hair-colour",
                "8.5–12,present,white; 8.5–12,present,n/a; not-applicable-but-applies; cc; hair-colour",
                "Aa minor,subspecies,Aa,none known,toothed; Aa minor,subspecies,Aa,none known,lobed; child-outside-parent; aa-minor; leaf-margin",
                "toothed,5–8,,,; toothed,3–8,,,; child-outside-parent; aa-minor; leaf-width",
                "lobed,8.5–12,present,white,yellow; ?,?,?,white,yellow; unknown-row; cc; ''"
            })
    void eachPlantedSlipIsFoundAtItsPlace(String from, String to, String kind, String row, String character) {
        assertThat(check(table(from.strip(), to.strip())))
                .extracting(f -> f.kind().code(), StudyFinding::row, StudyFinding::character)
                .contains(tuple(kind.strip(), row.strip(), character.strip()));
    }

    @Test
    void rowsThatOnlyATextOrTheirParentSpeaksForAreTold() {
        Study described = row("bb", r -> described(r, "A plant of ditches."));
        Study unscored = described.withScores(described.scores().stream()
                .filter(s -> !s.row().equals("bb") && !s.row().equals("aa-minor"))
                .toList());
        assertThat(check(unscored))
                .extracting(f -> f.kind().code(), StudyFinding::row)
                .contains(tuple("only-described", "bb"), tuple("only-inherited", "aa-minor"));
        assertThat(check(described)).extracting(f -> f.kind().code()).doesNotContain("only-described");
    }

    @Test
    void aRangeOfFourIndividualsIsToldAndOneOfFiveIsNot() {
        for (int individuals : new int[] {1, 4, 5}) {
            StudyScore.Sample sample = StudyScore.Sample.of(null, individuals, null, List.of());
            Study measured = clean().withScores(clean().scores().stream()
                    .map(s -> s.row().equals("cc") && s.character().equals("leaf-width") ? s.withSample(sample) : s)
                    .toList());
            assertThat(check(measured).stream().anyMatch(f -> f.kind().code().equals("few-individuals")))
                    .isEqualTo(individuals < 5);
        }
    }

    @Test
    void statesWithoutAPictureAreToldWhereOthersHaveOneElseOnce() {
        Study none = clean().withCharacters(clean().characters().stream()
                .map(c -> c.withStates(
                        c.states().stream().map(s -> s.withPicture("")).toList()))
                .toList());
        assertThat(check(none))
                .extracting(f -> f.kind().code(), StudyFinding::character)
                .containsExactly(tuple("no-picture", ""));
        StudyCharacter bare = none.characters().get(0);
        Study some = clean().withCharacters(clean().characters().stream()
                .map(c -> c.id().equals(bare.id()) ? bare : c)
                .toList());
        assertThat(check(some))
                .extracting(f -> f.kind().code(), StudyFinding::character)
                .containsExactly(tuple("no-picture", "leaf-margin"));
    }

    @Test
    void aMistakenStateOfAChildDoesNotContradictItsParent() {
        assertThat(check(table("Aa,none known,toothed,", "Aa,none known,\"toothed, mistaken lobed\",")))
                .extracting(f -> f.kind().code())
                .doesNotContain("child-outside-parent");
    }

    @Test
    void dangerNeedsAKindAndACaution() {
        StudyRow.HazardRecord sap = new StudyRow.HazardRecord("irritant sap", Hazard.SERIOUS, List.of("skin"), "", "");
        Study unsaid = row("bb", r -> r.withHazard(Hazard.SERIOUS));
        Study uncautioned = row(
                "bb",
                r -> new StudyRow(
                        r.id(),
                        r.label(),
                        r.plain(),
                        r.rank(),
                        r.parent(),
                        r.stage(),
                        Hazard.SERIOUS,
                        List.of(sap),
                        r.status(),
                        r.weight(),
                        r.stopsHere(),
                        r.hybridOf(),
                        r.description()));
        // Nobody stood for the cells of the table, so that the danger cannot be ruled out either.
        for (Study told : List.of(unsaid, uncautioned)) {
            assertThat(check(told))
                    .extracting(StudyFinding::key)
                    .containsExactly("danger-not-ruled-out/bb//", "no-caution/bb//");
        }
    }

    @ParameterizedTest
    @CsvSource({
        "Leaf margin toothed; stem tall., true",
        "With toothed leaf margins., true",
        "The leaf margin is lobed., true",
        "Leaf margin entire., false",
        "Bracts toothed., false",
        "A toothed cap; leaf margin entire., false"
    })
    void aTextIsHeldAgainstTheScoreOfTheSamePartOnly(String text, boolean denied) {
        assertThat(check(row("bb", r -> described(r, text))).stream()
                        .map(StudyFinding::key)
                        .toList())
                .isEqualTo(
                        denied
                                ? List.of("text-against-score/bb/leaf-margin/"
                                        + (text.contains("lobed") ? "lobed" : "toothed"))
                                : List.of());
    }

    @Test
    void copiedDescriptionsAreTold() {
        String text = "Grows in dense stands on wet ground along the ford.";
        List<StudyRow> rows = new ArrayList<>(clean().rows());
        rows.replaceAll(r -> described(r, r.id().equals("bb") || r.id().equals("cc") ? text : "On wet ground."));
        assertThat(check(clean().withRows(rows))).extracting(StudyFinding::key).containsExactly("same-text/cc//");
    }

    @Test
    void scoresSayWhereTheyComeFrom() {
        List<StudyScore> scores = new ArrayList<>(clean().scores());
        scores.replaceAll(s -> {
            boolean reference = s.row().equals("bb") && s.character().equals("leaf-margin");
            return reference
                    ? new StudyScore(
                            s.row(), s.character(), s.value(), s.typed(), StudyScore.Basis.REFERENCE, "", false, "")
                    : s;
        });
        assertThat(check(clean().withScores(scores)))
                .extracting(StudyFinding::key)
                .containsExactly("no-source/bb/leaf-margin/");
    }

    @Test
    void readersNeedQuestionsAndScorersDefinitions() {
        Study bare = TableReader.read(CLEAN.replaceFirst("#question.*\n", "").getBytes(StandardCharsets.UTF_8), "b.csv")
                .study();
        assertThat(check(bare))
                .extracting(f -> f.kind().code())
                .containsOnly("no-question", "no-definition", "no-picture");
        assertThat(check(bare).stream().filter(f -> f.kind().code().equals("no-definition")))
                .as("present and absent define themselves")
                .extracting(StudyFinding::character)
                .containsExactly("leaf-margin", "hair-colour", "flower-colour");
    }

    private static Study apparatus(List<GlossaryTerm> terms, Claim... claims) {
        return clean().withGlossary(terms).withClaims(List.of(claims));
    }

    private static Claim claim(String row, Claim.Kind kind, String... states) {
        return new Claim("k", row, kind, "leaf-margin", List.of(states), "as they say");
    }

    @Test
    void claimsAreTestedAgainstTheMatrix() {
        assertThat(check(apparatus(List.of(), claim("cc", Claim.Kind.ONLY, "lobed"))))
                .isEmpty();
        assertThat(check(apparatus(List.of(), claim("aa", Claim.Kind.ALWAYS, "toothed", "entire"))))
                .isEmpty();
        assertThat(check(apparatus(List.of(), claim("aa", Claim.Kind.NEVER, "lobed"))))
                .isEmpty();
        assertThat(check(apparatus(List.of(), claim("bb", Claim.Kind.ONLY, "entire"))))
                .singleElement()
                .satisfies(f -> {
                    assertThat(f.kind().code()).isEqualTo("claim-fails");
                    assertThat(FindingWording.reason(f)).contains("as they say").contains("'Aa major'");
                });
        assertThat(check(apparatus(List.of(), claim("aa", Claim.Kind.ALWAYS, "toothed"))))
                .extracting(f -> f.kind().code())
                .containsExactly("claim-fails");
        Study unknown = apparatus(List.of(), claim("cc", Claim.Kind.ONLY, "lobed"))
                .withScore("bb", "leaf-margin", java.util.Optional.empty());
        assertThat(check(unknown)).extracting(f -> f.kind().code()).contains("claim-untestable");
    }

    @Test
    void wordsThatMissATermByALetterAreToldAndTermsThemselvesAreNot() {
        GlossaryTerm crenate =
                new GlossaryTerm("c", "crenulate", "finely scalloped", "", List.of(), List.of("krenulated"));
        assertThat(check(described(apparatus(List.of(crenate)), "Leaves crenulate, entire, not crenulates.")))
                .isEmpty();
        assertThat(check(described(apparatus(List.of(crenate)), "Leaves crenulete.")))
                .extracting(f -> f.kind().code(), StudyFinding::other)
                .containsExactly(tuple("near-term", "crenulete"));
        assertThat(check(described(apparatus(List.of(crenate)), "Leaves krenulated, krenulated.")))
                .singleElement()
                .satisfies(f -> assertThat(FindingWording.reason(f)).contains("common misspelling of 'crenulate'"));
    }

    @Test
    void aListedMisspellingIsCorrectedInOneGoAndNothingElseIs() {
        GlossaryTerm term =
                new GlossaryTerm("c", "crenulate", "finely scalloped", "", List.of(), List.of("krenulated"));
        Study study = described(
                apparatus(List.of(term)), "Krenulated leaves; krenulateds, krenulated-edged, unkrenulated, crenulete.");
        List<StudyFinding> found = check(study);
        assertThat(found)
                .extracting(StudyFinding::other, FindingWording::correction)
                .containsExactly(
                        tuple("Krenulated", "Write 'Crenulate'"),
                        tuple("krenulateds", "Write 'crenulates'"),
                        tuple("krenulated", "Write 'crenulate'"),
                        tuple("crenulete", ""));
        Study corrected = study;
        for (StudyFinding finding : found) {
            corrected = Correction.of(corrected, finding);
        }
        String row = found.get(0).row();
        assertThat(corrected.row(row).orElseThrow().description())
                .isEqualTo("Crenulate leaves; crenulates, crenulate-edged, unkrenulated, crenulete.");

        StudyCharacter margin = study.characters().get(0);
        StudyCharacter wrong = margin.withStates(List.of(StudyCharacter.StudyState.of("krenulated")));
        Study other = apparatus(List.of(term)).withCharacters(List.of(wrong)).withScores(List.of());
        StudyFinding finding = check(other).stream()
                .filter(f -> f.kind().code().equals("near-term"))
                .findFirst()
                .orElseThrow();
        Study written = Correction.of(other, finding);
        assertThat(written.characters().get(0).states().get(0).label()).isEqualTo("crenulate");
        assertThat(written.characters().get(0).states().get(0).id()).isEqualTo("krenulated");
    }

    private static Study described(Study study, String text) {
        return study.withRows(study.rows().stream()
                .map(r -> r.id().equals("cc") ? described(r, text) : r)
                .toList());
    }

    @Test
    void namesThatServeTwoTaxaMonthsOutOfSeasonAndImpossibleRatiosAreTold() {
        StudyRow.Names names = new StudyRow.Names("", List.of(), List.of(new StudyRow.Vernacular("Marsh lace", "en")));
        Study shared = clean().withRows(clean().rows().stream()
                .map(r -> r.id().startsWith("aa-") ? r : r.withNames(names))
                .toList());
        assertThat(check(shared))
                .extracting(f -> f.kind().code())
                .containsOnly("shared-name")
                .hasSize(2);

        Study seasonal = row("cc", r -> r.withOccurrence(new StudyRow.Occurrence(List.of(5, 6, 7), "", List.of())))
                .withScores(clean().scores().stream()
                        .map(s -> s.row().equals("cc") && s.character().equals("leaf-margin")
                                ? s.withMonths(List.of(6, 9))
                                : s)
                        .toList());
        assertThat(check(seasonal))
                .singleElement()
                .satisfies(f -> assertThat(FindingWording.reason(f))
                        .contains("scored for Sep")
                        .contains("(present: May–Jul)"));

        Study measured =
                TableReader.read("""
                        taxon,length,width,slenderness
                        #type,length,length,ratio
                        #question,How long?,How wide?,How slender?
                        #organ,leaf,leaf,leaf
                        Aa,10–20,5–10,1.5
                        Bb,30–40,2–4,1.2
                        """.getBytes(StandardCharsets.UTF_8), "r.csv").study();
        Study ratio = measured.withCharacters(measured.characters().stream()
                .map(c -> c.id().equals("slenderness") ? c.withRatioOf(List.of("length", "width")) : c)
                .toList());
        assertThat(check(ratio))
                .filteredOn(f -> f.kind().code().equals("ratio-out-of-line"))
                .singleElement()
                .satisfies(f ->
                        assertThat(FindingWording.reason(f)).contains("'Bb'").contains("between 7.5 and 20"));
    }
}
