package org.polyclave.study.compile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.MisidentificationCosts;
import org.polyclave.core.matrix.Observer;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.change.MergeTaxa;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.rules.Rule;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.rule.RuleWording;

/** From what people score to what algorithms see. */
class CompilerTest {
    private static final StudyCharacter COLOUR = StudyCharacter.of(
            "colour",
            CharacterType.STATES,
            List.of(StudyState.of("red"), StudyState.of("blue"), StudyState.of("green"), StudyState.of("white")));

    private static Study study(String table) {
        return TableReader.read(table.getBytes(StandardCharsets.UTF_8), "t.csv").study();
    }

    private static CompiledStudy compiled(String table) {
        return StudyCompiler.compile(study(table));
    }

    private static Cell cell(CompiledStudy compiled, String row, String character) {
        return compiled.matrix().cell(compiled.rowIndex(row), compiled.characterIndex(character));
    }

    private static ScoreValue.States states(String text) {
        return (ScoreValue.States) ((CellNotation.Parsed) CellNotation.parse(text, COLOUR)).value();
    }

    @Test
    void theNearestGroupTellsHowFarACharacterIsTrusted() {
        Study read = study("""
                taxon,#rank,#parent,margin
                Aa,genus,,
                Aa ruber,species,Aa,entire
                Aa minor,species,Aa,toothed
                Bb,genus,,
                Bb albus,species,Bb,entire
                """);
        StudyCharacter margin = read.characters().get(0);
        Study trusted = read.withCharacters(List.of(margin.withTrust(new StudyCharacter.Trust(
                0.2,
                StudyCharacter.RateOrigin.EXPERT,
                List.of(
                        new StudyCharacter.InGroup("aa", 0.3, null, "washed off"),
                        new StudyCharacter.InGroup("aa-minor", 0.01, 0.02, "plain to see"))))));
        assertThat(StudyRules.check(trusted)).isEmpty();
        CompiledStudy compiled = StudyCompiler.compile(trusted);
        var misreading = compiled.matrix().character(0).misreading();
        assertThat(List.of("aa-ruber", "aa-minor", "bb-albus"))
                .extracting(
                        r -> misreading.rate(Observer.TRAINED, compiled.rowIndex(r)),
                        r -> misreading.rate(Observer.NOVICE, compiled.rowIndex(r)))
                .containsExactly(tuple(0.3, 0.3), tuple(0.01, 0.02), tuple(0.05, 0.2));
        Study merged = new MergeTaxa("aa-minor", "bb-albus").apply(trusted);
        assertThat(merged.characters().get(0).trust().groups())
                .extracting(StudyCharacter.InGroup::row)
                .containsExactly("aa", "bb-albus");
        assertThat(StudyRules.check(trusted.withRows(trusted.rows().subList(3, 5))))
                .extracting(RuleWording::sentence)
                .anyMatch(s -> s.contains("given for 'aa', which is not a taxon"));
    }

    /** A range of 5 to 7 with mean 6 and SD 0.5 of 12: 6 is likelier than 6.9, and 7.5 is possible. */
    @Test
    void aMeasuredSampleTellsWhatIsLikelyWithinItsRangeAndBeyond() {
        Study flat = study("taxon,width\n#type,length\nAa,5–7\nBb,1–30\n");
        Study measured = flat.withScores(flat.scores().stream()
                .map(s -> s.row().equals("aa")
                        ? s.withSample(new StudyScore.Sample(null, 12, 3, List.of(), 6.0, 0.5, null))
                        : s)
                .toList());
        assertThat(StudyRules.check(measured)).isEmpty();
        assertThat(List.of(posterior(flat, 6), posterior(flat, 6.9)))
                .as("flat: one is as good as the other")
                .allSatisfy(p -> assertThat(p).isCloseTo(posterior(flat, 6), within(1e-9)));
        assertThat(posterior(measured, 6)).isGreaterThan(posterior(flat, 6));
        assertThat(posterior(measured, 6.9)).isLessThan(posterior(flat, 6.9));
        assertThat(posterior(measured, 7.5)).isGreaterThan(posterior(flat, 7.5));
        Study wrong = measured.withScores(measured.scores().stream()
                .map(s -> s.row().equals("aa")
                        ? s.withSample(new StudyScore.Sample(null, null, 3, List.of(), 6.0, 0.5, null))
                        : s.withSample(new StudyScore.Sample(null, 9, null, List.of(), 60.0, 0.5, null)))
                .toList());
        assertThat(StudyRules.check(wrong))
                .extracting(RuleWording::sentence)
                .satisfiesExactlyInAnyOrder(
                        s -> assertThat(s).contains("only together"),
                        s -> assertThat(s).contains("outside the range"));
    }

    /** Of the first row, after a width was read. */
    private static double posterior(Study study, double width) {
        Identification found = new AnyOrderIdentifier(
                        StudyCompiler.compile(study).matrix())
                .identify(
                        List.of(new Answer(0, new Observation.MeasuredObservation(width, 0.05), Certainty.SURE)),
                        IdentifyOptions.WEIGH);
        return found.standings().stream()
                .filter(s -> s.row() == 0)
                .findFirst()
                .orElseThrow()
                .posterior();
    }

    @Test
    void aLossOfAGroupIsThatOfAllItsRowsAndFollowsAMergedTaxon() {
        Study read = study("""
                taxon,#rank,#parent,margin
                Aa,genus,,
                Aa ruber,species,Aa,entire
                Aa minor,species,Aa,toothed
                Bb,genus,,
                Bb albus,species,Bb,entire
                """);
        Study weighed = read.withScope(
                read.scope()
                        .withPairs(
                                List.of(
                                        new StudyScope.Loss("aa", "bb-albus", 20, "burns"),
                                        new StudyScope.Loss("aa-minor", "bb", 50, ""),
                                        new StudyScope.Loss("aa-minor", "aa-ruber", 0.5, "nobody minds")),
                                List.of(
                                        new StudyScope.Lookalikes(
                                                "rosettes", List.of("aa-minor", "aa-ruber", "bb-albus"), ""),
                                        new StudyScope.Lookalikes("twins", List.of("aa-minor", "aa-ruber"), ""))),
                List.of());
        assertThat(StudyRules.check(weighed)).isEmpty();
        CompiledStudy compiled = StudyCompiler.compile(weighed);
        MisidentificationCosts losses = compiled.matrix().losses();
        int ruber = compiled.rowIndex("aa-ruber");
        int minor = compiled.rowIndex("aa-minor");
        int albus = compiled.rowIndex("bb-albus");
        assertThat(List.of(
                        losses.of(ruber, albus),
                        losses.of(minor, albus),
                        losses.of(minor, ruber),
                        losses.of(albus, minor)))
                .containsExactly(20.0, 50.0, 0.5, 1.0);
        assertThat(new MergeTaxa("aa-minor", "aa-ruber").apply(weighed).scope().losses())
                .extracting(StudyScope.Loss::row, StudyScope.Loss::named)
                .containsExactly(tuple("aa", "bb-albus"), tuple("aa-ruber", "bb"));
        assertThat(new MergeTaxa("aa-minor", "aa-ruber").apply(weighed).scope().lookalikes())
                .containsExactly(new StudyScope.Lookalikes("rosettes", List.of("aa-ruber", "bb-albus"), ""));
        List<StudyScope.Lookalikes> broken = List.of(
                new StudyScope.Lookalikes("", List.of("aa", "bb"), ""),
                new StudyScope.Lookalikes("one", List.of("aa", "aa"), ""),
                new StudyScope.Lookalikes("two", List.of("aa", "cc"), ""));
        assertThat(StudyRules.check(weighed.withScope(weighed.scope().withPairs(List.of(), broken), List.of())))
                .extracting(RuleWording::sentence)
                .satisfiesExactly(
                        p -> assertThat(p).contains("needs a name"),
                        p -> assertThat(p).contains("'one' need two taxa"),
                        p -> assertThat(p).contains("'cc', which is not a taxon"));
        List<StudyScope.Loss> wrong = List.of(
                new StudyScope.Loss("aa", "cc", 2, ""),
                new StudyScope.Loss("aa", "aa", 2, ""),
                new StudyScope.Loss("aa", "bb", 0, ""));
        assertThat(StudyRules.check(read.withScope(read.scope().withPairs(wrong, List.of()), List.of())))
                .extracting(RuleWording::sentence)
                .satisfiesExactly(
                        s -> assertThat(s).contains("'cc', which is not a taxon"),
                        s -> assertThat(s).contains("needs two taxa"),
                        s -> assertThat(s).contains("not 0 times"));
    }

    /** Words weigh always 1, usually 0.75, sometimes 0.2, rarely 0.04. */
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "red; 1; 0; 0; 0; false",
                "red, blue; 0.5; 0.5; 0; 0; false",
                "usually red, rarely blue; 0.949367; 0.050633; 0; 0; false",
                "usually red, blue; 0.75; 0.25; 0; 0; false",
                "usually red, blue, green; 0.75; 0.125; 0.125; 0; false",
                "red, rarely blue; 0.96; 0.04; 0; 0; false",
                "always red; 1; 0; 0; 0; false",
                "sometimes red; 0.2; 0.266667; 0.266667; 0.266667; true",
                "usually red; 0.75; 0.083333; 0.083333; 0.083333; true",
                "rarely red, rarely blue; 0.04; 0.04; 0.46; 0.46; true",
                "red + blue; 0.5; 0.5; 0; 0; false",
                "red, mistaken blue; 1; 0; 0; 0; false"
            })
    void wordsBecomeShares(String text, double red, double blue, double green, double white, boolean incomplete) {
        double[] shares = Shares.of(states(text), COLOUR);
        assertThat(shares).containsExactly(new double[] {red, blue, green, white}, within(1e-6));
        assertThat(Shares.isIncomplete(states(text))).isEqualTo(incomplete);
    }

    /** The same words of counts; what "usually 5" leaves open is one more or less. */
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "usually 5, sometimes 3; 3; 5; 5:5:0.789474 3:3:0.210526",
                "usually 5, 6–7; 5; 7; 5:5:0.75 6:7:0.25",
                "4, 8; 4; 8; 4:4:0.5 8:8:0.5",
                "usually 5; 4; 6; 5:5:0.75 4:4:0.125 6:6:0.125",
                "usually 0; 0; 1; 0:0:0.75 1:1:0.25"
            })
    void wordsOfCountsBecomeShares(String text, double min, double max, String expected) {
        Cell.Numeric cell =
                (Cell.Numeric) cell(compiled("taxon,petals\n#type,count\nAa," + quoted(text)), "aa", "petals");
        assertThat(cell.min()).isEqualTo(min);
        assertThat(cell.max()).isEqualTo(max);
        assertThat(cell.parts())
                .extracting(p -> "%.0f:%.0f:%s".formatted(p.low(), p.high(), Math.round(p.share() * 1e6) / 1e6))
                .containsExactly(expected.split(" "));
    }

    private static String quoted(String cell) {
        return '"' + cell + '"';
    }

    @Test
    void anEmptyCellInheritsAndATypedUnknownBlocks() {
        CompiledStudy compiled = compiled("""
                taxon,#parent,#stage,colour,size
                #type,,,states,length
                Aa,,,red,5–9
                Aa bb,Aa,,,
                Aa cc,Aa,,?,12
                Aa bb,,male,blue,
                Aa bb,,female,,
                """);
        assertThat(compiled.rows()).extracting(StudyRow::name).containsExactly("Aa cc", "Aa bb, male", "Aa bb, female");
        assertThat(cell(compiled, "aa-bb-female", "colour")).isEqualTo(Cell.Categorical.single(0, 2));
        assertThat(cell(compiled, "aa-bb-male", "size")).isEqualTo(Cell.Numeric.range(5, 9));
        assertThat(cell(compiled, "aa-cc", "colour")).isInstanceOf(Cell.Unknown.class);
        int male = compiled.rowIndex("aa-bb-male");
        int female = compiled.rowIndex("aa-bb-female");
        assertThat(compiled.matrix().row(male).name())
                .isEqualTo(compiled.matrix().row(female).name());
        assertThat(compiled.matrix().isUsable(male, 0))
                .as("imported, not checked")
                .isFalse();
    }

    @Test
    void mistakenStatesAreReadableButNotShown() {
        CompiledStudy compiled = compiled("taxon,colour\n#states,red|blue\nAa,\"red, mistaken blue\"\nBb,blue\n");
        Cell.Categorical cell = (Cell.Categorical) cell(compiled, "aa", "colour");
        assertThat(cell.support()).isEqualTo(0b01);
        assertThat(cell.readable()).isEqualTo(0b11);
    }

    @Test
    void openEndsReachBeyondTheLargestScored() {
        CompiledStudy compiled = compiled("taxon,petals\n#type,count\nAa,>=20\nBb,5\nCc,30\n");
        Cell.Numeric open = (Cell.Numeric) cell(compiled, "aa", "petals");
        assertThat(open.min()).isEqualTo(20);
        assertThat(open.max()).isGreaterThanOrEqualTo(40);
    }

    @Test
    void aHybridAdmitsWhatItsParentsShow() {
        Study plain = study("""
                taxon,colour,shade,size
                #type,states,ordered,length
                #states,red|blue|green,pale|middle|dark,
                Aa,red,pale,2–3
                Bb,blue,dark,7–8
                Cc,,,
                Dd,green,dark,?
                """);
        List<StudyRow> rows = new ArrayList<>(plain.rows());
        StudyRow c = rows.get(2);
        rows.set(
                2,
                new StudyRow(
                        c.id(),
                        c.label(),
                        "",
                        "nothotaxon",
                        null,
                        "",
                        c.hazard(),
                        List.of(),
                        List.of(),
                        1,
                        false,
                        List.of("aa", "bb"),
                        ""));
        Study hybrid = new Study(
                plain.slug(), plain.title(), plain.scope(), rows, List.of(), plain.characters(), plain.scores());
        CompiledStudy compiled = StudyCompiler.compile(hybrid);
        assertThat(((Cell.Categorical) cell(compiled, "cc", "colour")).support())
                .isEqualTo(0b011);
        assertThat(((Cell.Categorical) cell(compiled, "cc", "shade")).support())
                .as("and what lies between")
                .isEqualTo(0b111);
        assertThat(cell(compiled, "cc", "size")).isEqualTo(Cell.Numeric.range(2, 8));
    }

    @Test
    void characters() {
        CompiledStudy compiled = compiled("""
                taxon,colour,hue,smell,size
                #organ,leaf,leaf,leaf,stem
                #method,eye,lens,smell,ruler
                #group,,,odour,
                #months,May–Jun,,,
                #unit,,,,cm
                #type,states,states,states,length
                #uncertainty,,,,0.2
                Aa,red,x,y,1–2
                """);
        assertThat(compiled.matrix().character(2).isHandling()).isTrue();
        assertThat(compiled.matrix().character(2).countsForSafety()).isFalse();
        assertThat(compiled.matrix().character(0).months()).isEqualTo(0b110000);
        assertThat(compiled.matrix().character(3).uncertainty()).as("in mm").isCloseTo(2, within(1e-12));
        assertThat(cell(compiled, "aa", "size")).isEqualTo(Cell.Numeric.range(10, 20));
    }

    @Test
    void eachCharacterIsAFeatureOfItsOwnExceptSizesPositionsAndWhatTheAuthorJoins() {
        CompiledStudy compiled = compiled("""
                taxon,colour,leaf length,leaf width,leaf weight,stem length,smell,smoke,petals
                #organ,leaf,leaf,Leaf,leaf,stem,leaf,stem,flower
                #type,states,length,length,mass,length,states,states,count
                #group,,,,,,odour,Odour,
                Aa,red,1–2 mm,1–2 mm,1–2 g,1–2 mm,x,y,5
                """);
        List<Integer> features = compiled.matrix().characters().stream()
                .map(MatrixCharacter::group)
                .toList();
        assertThat(features.stream().map(features::indexOf))
                .as("the sizes of the leaf are one, and so are the odours")
                .containsExactly(0, 1, 1, 1, 4, 5, 5, 7);
    }

    @Test
    void ofARatioAndTwoMeasuresAtMostTwoCount() {
        StudyCharacter leaf = StudyCharacter.of("leaf length", CharacterType.LENGTH, List.of())
                .withOrgan("leaf");
        StudyCharacter width =
                StudyCharacter.of("leaf width", CharacterType.LENGTH, List.of()).withOrgan("leaf");
        StudyCharacter stem = StudyCharacter.of("stem length", CharacterType.LENGTH, List.of())
                .withOrgan("stem");
        StudyCharacter ofLeaf = StudyCharacter.of("leaf shape", CharacterType.RATIO, List.of())
                .withRatioOf(List.of(leaf.id(), width.id()));
        StudyCharacter ofTwo = StudyCharacter.of("leaf by stem", CharacterType.RATIO, List.of())
                .withRatioOf(List.of(stem.id(), leaf.id()));
        StudyCharacter atBase = StudyCharacter.of("hairs at the base", CharacterType.COUNT, List.of())
                .withOrgan("leaf")
                .withWhere(new StudyCharacter.Where("at the base", "", "", "", "", "", "", ""));
        StudyCharacter atTip = StudyCharacter.of("hairs at the tip", CharacterType.COUNT, List.of())
                .withOrgan("leaf")
                .withWhere(new StudyCharacter.Where("at the tip", "", "", "", "", "", "", ""));
        StudyCharacter ofStem =
                StudyCharacter.of("hairs", CharacterType.COUNT, List.of()).withOrgan("stem");
        List<StudyCharacter> all = List.of(leaf, width, stem, ofLeaf, ofTwo, atBase, atTip, ofStem);
        Study study = compiled("taxon,x\nAa,1\n").study().withScores(List.of()).withCharacters(all);
        List<Integer> features = StudyCompiler.compile(study).matrix().characters().stream()
                .map(MatrixCharacter::group)
                .toList();
        assertThat(features.stream().map(features::indexOf))
                .as("two sizes and a shape of the leaf; leaf by stem goes with the stem; hairs at two places are one")
                .containsExactly(0, 0, 2, 3, 2, 5, 5, 7);
    }

    @Test
    void whatIsRarelyThereCostsMoreAndASignOfTheIndividualSeparatesNothing() {
        CompiledStudy compiled = compiled("""
                taxon,berries,claw,scar
                #organ,branch,claw,shell
                #role,never first,confirms,
                #seen,0.2,,
                #effort,2,1,1
                Aa,red,long,present
                Bb,black,short,absent
                """);
        assertThat(compiled.matrix().character(0).effort()).isCloseTo(10, within(1e-12));
        assertThat(compiled.matrix().character(0).role()).isEqualTo(CharacterRole.NEVER_FIRST);
        assertThat(compiled.matrix().character(0).countsForSafety()).isTrue();
        assertThat(compiled.matrix().character(1).countsForSafety())
                .as("what only confirms rules no danger out")
                .isFalse();
        StudyCharacter scar = compiled.characters().get(2);
        Study study = compiled.study()
                .withCharacters(List.of(
                        compiled.characters().get(0),
                        compiled.characters().get(1),
                        scar.withLooking(
                                new StudyCharacter.Looking("", List.of(), 0, "", StudyCharacter.Subject.INDIVIDUAL))));
        Matrix matrix = StudyCompiler.compile(study).matrix();
        assertThat(matrix.cell(0, 2)).isEqualTo(Cell.UNKNOWN);
        assertThat(matrix.cell(1, 1)).isNotEqualTo(Cell.UNKNOWN);
    }

    @Test
    void theShareOfIndividualsThatShowAPartIsAShare() {
        CompiledStudy compiled = compiled("taxon,berries\nAa,red\nBb,black\n");
        for (double share : new double[] {0, -0.2, 1.5, 0.2, 1}) {
            Study study = compiled.study()
                    .withCharacters(List.of(compiled.characters()
                            .get(0)
                            .withUse(new StudyCharacter.Use(CharacterRole.DECIDES, share))));
            assertThat(StudyRules.check(study).stream().anyMatch(v -> v.rule() == Rule.SEEN_ON))
                    .as("%s", share)
                    .isEqualTo(!(share > 0 && share <= 1));
        }
    }

    @Test
    void aNameIsAsDangerousAsItsWorstForm() {
        CompiledStudy compiled = compiled("""
                taxon,#stage,#hazard,colour
                Aa,,none known,red
                Aa,young,serious,grey
                """);
        List<Integer> rows = List.of(compiled.rowIndex("aa"), compiled.rowIndex("aa-young"));
        assertThat(compiled.matrix().sharesName(rows.get(0), rows.get(1))).isTrue();
        assertThat(KeyWording.taxon(compiled, rows).hazard()).isEqualTo(Hazard.SERIOUS);
        assertThat(KeyWording.taxon(compiled, rows).row()).isEqualTo("aa");
        assertThat(KeyWording.taxon(compiled, List.of(rows.get(0))).hazard()).isEqualTo(Hazard.NONE_KNOWN);
    }

    @Test
    void aFormIsMetWhenItsTaxonIs() {
        CompiledStudy compiled = compiled("""
                taxon,#stage,colour
                Aa,,red
                Aa,winter,grey
                Aa,summer,brown
                """);
        List<StudyRow> rows = compiled.study().rows().stream()
                .map(r -> r.stage().isEmpty()
                        ? r.withOccurrence(new StudyRow.Occurrence(List.of(11, 12, 1), "", List.of()))
                        : r.stage().equals("summer")
                                ? r.withOccurrence(new StudyRow.Occurrence(List.of(6), "", List.of()))
                                : r)
                .toList();
        Matrix matrix = StudyCompiler.compile(compiled.study().withRows(rows)).matrix();
        assertThat(matrix.rows())
                .extracting(MatrixRow::id, MatrixRow::present)
                .contains(tuple("aa-winter", 0b1100_0000_0001), tuple("aa-summer", 0b10_0000));
    }

    @Test
    void aContextKeepsWhatIsAtHandInEveryMonthNamed() {
        CompiledStudy whole = compiled("""
                taxon,flower colour,leaf colour,leaf hairs,wing,wing colour
                #organ,flower,leaf,leaf,stem,stem
                #method,eye,eye,lens,eye,eye
                #months,May–Jun,,,,
                #states,red|blue,a|b,x|y,absent|present,p|q
                #applies,,,,,wing = present
                Aa,red,a,x,present,p
                Bb,blue,b,y,absent,?
                """);
        assertThat(KeyContext.parse("months=5+6").apply(whole).characters()).hasSize(5);
        assertThat(KeyContext.parse("months=6+7").apply(whole).characters())
                .extracting(StudyCharacter::id)
                .doesNotContain("flower-colour");
        assertThat(KeyContext.parse("organs=leaf,methods=eye").apply(whole).characters())
                .extracting(StudyCharacter::id)
                .containsExactly("leaf-colour");
        CompiledStudy withoutWing = whole.without(List.of(3));
        assertThat(withoutWing.matrix().cell(0, 3)).as("surely winged").isInstanceOf(Cell.Categorical.class);
        assertThat(withoutWing.matrix().cell(1, 3)).as("there may be no wing").isInstanceOf(Cell.NotApplicable.class);
    }
}
