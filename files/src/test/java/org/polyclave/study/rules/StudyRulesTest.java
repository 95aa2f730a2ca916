package org.polyclave.study.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.study.StudyJson;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.change.StateMerge;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.ScoreValue.Frequency;
import org.polyclave.study.model.ScoreValue.Shown;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.AppliesWhen;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.wording.rule.RuleWording;

/** The rules of taxa and characters, and the merging of states. */
class StudyRulesTest {
    private static final List<StudyState> STATES =
            List.of(StudyState.of("toothed"), StudyState.of("entire"), StudyState.of("lobed"));
    private static final StudyCharacter MARGIN = StudyCharacter.of("margin", CharacterType.STATES, STATES);

    private static Study study(List<StudyRow> rows, List<StudyCharacter> characters) {
        return new Study("s", "S", StudyScope.EMPTY, rows, List.of(), characters, List.of());
    }

    private static List<String> sentences(Study study) {
        return StudyRules.check(study).stream().map(RuleWording::sentence).toList();
    }

    @Test
    void circlesOfParentsAreFoundInEachRowOnThem() {
        List<StudyRow> rows = List.of(
                StudyRow.of("Aa").withParent("bb"),
                StudyRow.of("Bb").withParent("cc"),
                StudyRow.of("Cc").withParent("bb"));
        assertThat(StudyRules.check(study(rows, List.of())).stream()
                        .filter(v -> RuleWording.sentence(v).contains("own ancestor"))
                        .map(StudyRules.Violation::place))
                .containsExactly("row/bb", "row/cc");
    }

    @Test
    void aStudyFileWithACircleIsRefused() {
        List<StudyRow> rows =
                List.of(StudyRow.of("Aa").withParent("bb"), StudyRow.of("Bb").withParent("aa"));
        StudyJson.ReadStudy read =
                StudyJson.read(StudyJson.write(study(rows, List.of(MARGIN))).getBytes(StandardCharsets.UTF_8));
        assertThat(read.study()).isNull();
        assertThat(read.problems()).anyMatch(p -> p.contains("'Aa' is its own ancestor"));
    }

    @Test
    void aTableIsToldTheCellThatBreaksARule() {
        String table = """
                taxon,#rank,#parent,margin
                Aa,variety,,toothed
                Bb,species,Aa,entire
                Ástá,,,entire
                ASTA,,,entire
                Dd,genus,,
                Ee,,Dd,entire
                """;
        ImportedStudy read = TableReader.read(table.getBytes(StandardCharsets.UTF_8), "t.csv");
        assertThat(read.problems().stream().filter(Problem::blocking))
                .extracting(Problem::row, Problem::column)
                .containsExactly(tuple(3, 2), tuple(5, 1));
    }

    @Test
    void aTableWithoutRanksGetsThoseThatFit() {
        String table = """
                taxon,#parent,#rank,margin
                Genus one,,,
                Aa,Genus one,,toothed
                Aa minor,Aa,subspecies,entire
                """;
        ImportedStudy read = TableReader.read(table.getBytes(StandardCharsets.UTF_8), "t.csv");
        assertThat(read.problems()).noneMatch(Problem::blocking);
        assertThat(read.study().rows()).extracting(StudyRow::rank).containsExactly("", "species", "subspecies");
    }

    @ParameterizedTest
    @CsvSource({"Ásta minor, ASTA  MINOR", "Straße, STRASSE", "ﬁlix, filix", "Ｗide, wide"})
    void namesThatPeopleTakeForOneAnotherAreOne(String first, String second) {
        List<StudyRow> rows = List.of(StudyRow.of(first), StudyRow.of(second).withId("other"));
        boolean same = StudyRules.folded(first).equals(StudyRules.folded(second));
        assertThat(sentences(study(rows, List.of())).isEmpty()).isEqualTo(!same);
        // The sharp s has no fold of its own here: the two spellings stay two names.
        assertThat(same).isEqualTo(!first.contains("ß"));
    }

    @Test
    void lettersOfOtherScriptsAreKeptApart() {
        List<StudyRow> rows =
                List.of(StudyRow.of("שלום"), StudyRow.of("سلام"), StudyRow.of("Ωμέγα"), StudyRow.of("Omega"));
        assertThat(sentences(study(rows, List.of()))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "genus, species, true",
        "species, genus, false",
        "species, species, false",
        "aggregate, species, true",
        "Species, SUBSPECIES, true",
        "subspecies, variety, true",
        "forma, variety, false",
        "cultivar, species, true",
        "nothotaxon, species, true"
    })
    void aChildRanksBelowItsParent(String parent, String child, boolean allowed) {
        assertThat(Ranks.mayContain(parent, child)).isEqualTo(allowed);
    }

    @Test
    void dependenciesLeadSomewhereAndNeverBack() {
        StudyCharacter a = StudyCharacter.of("a", CharacterType.STATES, STATES);
        StudyCharacter b = StudyCharacter.of("b", CharacterType.STATES, STATES);
        StudyCharacter c = StudyCharacter.of("c", CharacterType.STATES, STATES);
        List<String> entire = List.of("entire");
        assertThat(sentences(study(
                        List.of(),
                        List.of(
                                a.withConditions(List.of(new AppliesWhen("b", entire))),
                                b.withConditions(List.of(new AppliesWhen("c", entire))),
                                c))))
                .isEmpty();
        assertThat(sentences(study(
                        List.of(),
                        List.of(
                                a.withConditions(List.of(new AppliesWhen("b", entire))),
                                b.withConditions(List.of(new AppliesWhen("c", entire))),
                                c.withConditions(List.of(new AppliesWhen("b", entire)))))))
                .containsExactly(
                        "These characters depend on one another in a circle: b → c → b. Remove one of the dependencies.");
        assertThat(sentences(study(
                        List.of(),
                        List.of(a.withConditions(List.of(
                                new AppliesWhen("z", entire),
                                new AppliesWhen("a", List.of()),
                                new AppliesWhen("a", List.of("winged"))))))))
                .hasSize(4)
                .anyMatch(s -> s.contains("'z', which is not a character"))
                .anyMatch(s -> s.contains("on none of its states"))
                .anyMatch(s -> s.contains("'winged', which 'a' does not have"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"larger", "Fewer", "much longer", "rather paler", "more"})
    void aBareComparativeIsNoState(String label) {
        assertThat(StudyRules.checkWording(MARGIN.withStates(List.of(StudyState.of(label)))))
                .hasSize(1);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"longer than the middle lobe", "3 or more", "moreish", "large", "up to 6, fewer at the tip"})
    void aComparativeWithItsComparatorIs(String label) {
        assertThat(StudyRules.checkWording(MARGIN.withStates(List.of(StudyState.of(label)))))
                .isEmpty();
    }

    @Test
    void limitsAreSaidByName() {
        List<StudyState> states = new ArrayList<>();
        for (int s = 0; s < 33; s++) {
            states.add(StudyState.of("state " + s));
        }
        assertThat(sentences(study(List.of(), List.of(MARGIN.withStates(states)))))
                .containsExactly("'margin' has more than 32 states. Split it into two characters.");
        List<StudyRow> rows = new ArrayList<>();
        for (int r = 0; r <= 5_000; r++) {
            rows.add(StudyRow.of("taxon " + r));
        }
        assertThat(sentences(study(rows, List.of())))
                .containsExactly("A study has at most 5,000 taxa, sexes and stages.");
    }

    private static StudyScore score(Combination combination, Shown... shown) {
        return new StudyScore(
                "aa",
                "margin",
                new ScoreValue.States(List.of(shown), combination),
                "typed",
                StudyScore.Basis.JUDGEMENT,
                "",
                false,
                "");
    }

    @ParameterizedTest
    @CsvSource({
        // what is shown of the state that goes, and of the one that stays: what is left
        "USUALLY, RARELY, USUALLY",
        "RARELY, USUALLY, USUALLY",
        "MISTAKEN, RARELY, RARELY",
        "RARELY, MISTAKEN, RARELY",
        "PLAIN, ALWAYS, PLAIN",
        "SOMETIMES, PLAIN, PLAIN"
    })
    void ofTwoMergedStatesTheMoreFrequentWordStays(Frequency from, Frequency into, Frequency left) {
        StateMerge merge = new StateMerge("margin", "lobed", "entire");
        StudyScore merged = merge.score(
                        score(Combination.VARY, new Shown("lobed", from), new Shown("entire", into)),
                        merge.merged(MARGIN))
                .orElseThrow();
        assertThat(merged.value())
                .isEqualTo(new ScoreValue.States(List.of(new Shown("entire", left)), Combination.VARY));
    }

    @Test
    void aMergeLeavesOtherScoresAndCombinationsAlone() {
        StateMerge merge = new StateMerge("margin", "lobed", "entire");
        StudyCharacter after = merge.merged(MARGIN);
        assertThat(merge.score(score(Combination.VARY, new Shown("toothed", Frequency.PLAIN)), after))
                .isEmpty();
        StudyScore both = merge.score(
                        score(
                                Combination.BOTH,
                                new Shown("toothed", Frequency.PLAIN),
                                new Shown("lobed", Frequency.PLAIN)),
                        after)
                .orElseThrow();
        assertThat(both.typed()).isEqualTo("toothed + entire");
        StudyScore one = merge.score(
                        score(
                                Combination.EITHER,
                                new Shown("entire", Frequency.PLAIN),
                                new Shown("lobed", Frequency.PLAIN)),
                        after)
                .orElseThrow();
        assertThat(one.typed()).isEqualTo("entire");
        assertThat(merge.dependent(MARGIN)).isEmpty();
        assertThat(merge.dependent(StudyCharacter.of("tip", CharacterType.STATES, STATES)
                                .withConditions(List.of(new AppliesWhen("margin", List.of("lobed", "entire")))))
                        .orElseThrow()
                        .appliesWhen())
                .containsExactly(new AppliesWhen("margin", List.of("entire")));
    }

    private static List<String> broken(Study study) {
        return StudyRules.check(study).stream().map(RuleWording::sentence).toList();
    }

    @Test
    void ratiosNameTwoMeasuredCharactersAndStatesAreMistakenForOthersOfTheirCharacter() {
        StudyCharacter length = StudyCharacter.of("length", CharacterType.LENGTH, List.of());
        StudyCharacter width = StudyCharacter.of("width", CharacterType.LENGTH, List.of());
        StudyCharacter ratio = StudyCharacter.of("ratio", CharacterType.RATIO, List.of());
        assertThat(broken(study(List.of(), List.of(length, width, ratio.withRatioOf(List.of("length", "width"))))))
                .isEmpty();
        for (List<String> parts : List.of(List.of("length", "length"), List.of("length"), List.of("length", "ratio"))) {
            assertThat(broken(study(List.of(), List.of(length, width, ratio.withRatioOf(parts)))))
                    .as("%s", parts)
                    .singleElement()
                    .asString()
                    .contains("two different lengths or counts");
        }
        StudyState red = StudyState.of("red");
        StudyCharacter colour = StudyCharacter.of(
                "colour", CharacterType.STATES, List.of(red.withMistakenFor(List.of("pink")), StudyState.of("blue")));
        assertThat(broken(study(List.of(), List.of(colour))))
                .singleElement()
                .asString()
                .contains("cannot be mistaken for 'pink'");
    }

    @Test
    void termsReferencesAndClaimsHoldTogether() {
        Study bare = study(
                List.of(StudyRow.of("Aa")),
                List.of(StudyCharacter.of("colour", CharacterType.STATES, List.of(StudyState.of("red")))));
        GlossaryTerm awn = new GlossaryTerm("awn", "awn", "", "", List.of("arista"), List.of());
        GlossaryTerm arista = new GlossaryTerm("arista", "Arista", "", "", List.of(), List.of());
        Reference wrong = new Reference("o", "Orrin (2031)", "doi:10.1/x");
        Claim nobody = new Claim("c", "zz", Claim.Kind.ONLY, "colour", List.of("red"), "");
        Claim nothing = new Claim("d", "aa", Claim.Kind.NEVER, "colour", List.of("green"), "");
        assertThat(broken(bare.withGlossary(List.of(awn))
                        .withReferences(List.of(new Reference("o", "Orrin", "10.1234/x")))))
                .isEmpty();
        assertThat(broken(bare.withGlossary(List.of(awn, arista))
                        .withReferences(List.of(wrong))
                        .withClaims(List.of(nobody, nothing))))
                .satisfiesExactly(
                        s -> assertThat(s).contains("'Arista' already means 'awn'"),
                        s -> assertThat(s).contains("is not a DOI"),
                        s -> assertThat(s).contains("'zz', which is not a row"),
                        s -> assertThat(s).contains("states of a character of this study"));
    }

    @Test
    void specimensHaveCodesAndNamesThatTheStudyKnows() {
        Study bare = study(
                List.of(StudyRow.of("Aa")),
                List.of(StudyCharacter.of("colour", CharacterType.STATES, List.of(StudyState.of("red")))));
        Specimen.Determination named =
                new Specimen.Determination("zz", "near", Specimen.Kind.DETERMINED, "", "4 May", "", List.of("size"));
        StudyScore score =
                new StudyScore("aa", "colour", new ScoreValue.Any(), "any", StudyScore.Basis.SPECIMENS, "", false, "");
        assertThat(broken(bare.withSpecimens(List.of(
                                new Specimen("v1", "V 1", List.of(named), ""),
                                new Specimen("v2", "v  1", List.of(), ""),
                                new Specimen("v3", " ", List.of(), ""),
                                new Specimen(
                                        "v4",
                                        "V 4",
                                        List.of(),
                                        new Specimen.Event("2031-02-30", "", "151, -33", 0.0, "", "", ""),
                                        "",
                                        "",
                                        List.of(),
                                        "",
                                        "")))
                        .withScores(List.of(
                                score.withSample(StudyScore.Sample.of(null, null, null, List.of("v1", "v9")))))))
                .satisfiesExactly(
                        s -> assertThat(s).contains("'zz', which is not a row"),
                        s -> assertThat(s).contains("'near' is not a qualifier"),
                        s -> assertThat(s).contains("'4 May' is not a date"),
                        s -> assertThat(s).contains("'size', which is not a character"),
                        s -> assertThat(s).contains("Two specimens have the code 'v  1'"),
                        s -> assertThat(s).contains("needs the code"),
                        s -> assertThat(s).contains("'2031-02-30' is not a date"),
                        s -> assertThat(s).contains("Are latitude and longitude swapped?"),
                        s -> assertThat(s).contains("not to 0."),
                        s -> assertThat(s).contains("rests on the specimen 'v9'"));
    }
}
