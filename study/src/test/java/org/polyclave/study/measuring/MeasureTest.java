package org.polyclave.study.measuring;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.core.measuring.Slips;
import org.polyclave.study.checks.Correction;
import org.polyclave.study.checks.FindingKind;
import org.polyclave.study.checks.StudyCheck;
import org.polyclave.study.checks.StudyFinding;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.measuring.Evidence.Barred;
import org.polyclave.study.measuring.Evidence.Material;
import org.polyclave.study.measuring.Proposals.Standing;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Mark.Point;
import org.polyclave.study.model.Mark.Shape;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Scale;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Specimen.Determination;
import org.polyclave.study.model.Specimen.Treated;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.StudyRules;

/** Readings of a study: taken from texts and pictures, and what they come to in its cells. */
final class MeasureTest {
    private static final StudyCharacter WIDTH = StudyCharacter.of("width", CharacterType.LENGTH, List.of());
    private static final StudyCharacter LENGTH = StudyCharacter.of("length", CharacterType.LENGTH, List.of());
    private static final StudyCharacter QUOTIENT =
            StudyCharacter.of("quotient", CharacterType.RATIO, List.of()).withRatioOf(List.of("length", "width"));
    private static final StudyCharacter TEETH = StudyCharacter.of("teeth", CharacterType.COUNT, List.of());
    private static final StudyCharacter TURN = StudyCharacter.of("turn", CharacterType.ANGLE, List.of());
    private static final StudyCharacter EDGE =
            StudyCharacter.of("edge", CharacterType.STATES, List.of(StudyState.of("entire"), StudyState.of("toothed")));

    @ParameterizedTest
    @CsvSource({
        "12.5, 12.5 mm, 12.5",
        "1/2 in, 1/2 in, 12.7",
        "'1,5 cm', '1,5 cm', 15",
        "250 um, 250 um, 0.25",
        "1 1/4\", 1 1/4\", 31.75"
    })
    void typedSizesAreConvertedAndKeptAsTyped(String typed, String kept, double millimetres) {
        ReadingOutcome.Value value = (ReadingOutcome.Value) TypedReading.of(typed, WIDTH);
        assertThat(value.typed()).isEqualTo(kept);
        assertThat(value.value()).isEqualTo(millimetres);
    }

    @ParameterizedTest
    @CsvSource({"2 fingers, 34", "1/2 hand span, 100", "a pencil, 7.3", "'1,5 Fingernails', 16.5", "half a nail, 5.5"})
    void rulesOfThumbAreLengthsWithAnHonestSpread(String typed, double millimetres) {
        ReadingOutcome.Value value = (ReadingOutcome.Value) TypedReading.of(typed, WIDTH);
        assertThat(value.typed()).isEqualTo(typed);
        assertThat(value.value()).isCloseTo(millimetres, within(1e-9));
        assertThat(value.uncertainty()).isGreaterThan(0.07 * millimetres);
        assertThat(TypedReading.of(typed, TURN)).isInstanceOf(ReadingOutcome.Refused.class);
    }

    @Test
    void everybodyHasFingersOfTheirOwn() {
        RuleOfThumb.Size own = RuleOfThumb.FINGER_WIDTH.of(new double[] {14, 14, 14});
        ReadingOutcome.Value value = (ReadingOutcome.Value) TypedReading.of("2 fingers", WIDTH, rule -> own);
        assertThat(value.value()).isEqualTo(28.0);
        Reading rough = reading("aa", WIDTH, "", "2 fingers");
        Evidence evidence = new Evidence(study(List.of(specimen("aa", "mild", "", "")), List.of(rough)));
        assertThat(evidence.of(WIDTH).get(0).items().get(0).barred())
                .as("too rough for a range")
                .isEqualTo(Barred.ROUGH);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "wide", "-3", "3 g", "1e999", "3 parsecs", "-2 fingers", "0 nails", "3 toes"})
    void whatIsNoSizeIsRefusedWithTheRemedy(String typed) {
        assertThat(TypedReading.of(typed, WIDTH))
                .isInstanceOfSatisfying(
                        ReadingOutcome.Refused.class,
                        r -> assertThat(r.reason()).endsWith("."));
    }

    @Test
    void aSpecimenShowsStatesAndNotFrequencies() {
        assertThat(TypedReading.of("tooth", EDGE))
                .isEqualTo(new ReadingOutcome.Value("tooth", null, List.of("toothed"), null));
        assertThat(((ReadingOutcome.Value) TypedReading.of("toothed + entire", EDGE)).states())
                .containsExactly("toothed", "entire");
        assertThat(TypedReading.of("usually toothed", EDGE)).isInstanceOf(ReadingOutcome.Refused.class);
        assertThat(TypedReading.of("lobed", EDGE)).isInstanceOf(ReadingOutcome.Refused.class);
    }

    private static StudyRow row(String id) {
        return row(id, null, "");
    }

    private static StudyRow row(String id, @Nullable String parent, String stage) {
        return new StudyRow(
                id, id, "", "species", parent, stage, Hazard.NONE_KNOWN, List.of(), List.of(), 1, false, List.of(), "");
    }

    private static Specimen specimen(String id, String row, String qualifier, String sex, Specimen.Treatment... done) {
        List<Determination> named = row.isEmpty()
                ? List.of()
                : List.of(new Determination(row, qualifier, Specimen.Kind.DETERMINED, "", "", "", List.of(EDGE.id())));
        Specimen.Event event = new Specimen.Event("2031-05-0" + (1 + id.length() % 3), "weir", "", null, "", "", "");
        return new Specimen(id, id, named, event, "", sex, List.of(done), "", "");
    }

    private static Reading reading(String specimen, StudyCharacter character, String item, String typed) {
        ReadingOutcome.Value value = (ReadingOutcome.Value) TypedReading.of(typed, character);
        return new Reading(
                specimen + character.id() + item + typed,
                specimen,
                character.id(),
                item,
                value.typed(),
                value.value(),
                value.states(),
                value.uncertainty(),
                "rule",
                "A. Scorer",
                "2031-06-01",
                null,
                Reading.Standing.TAKEN,
                "");
    }

    private static Study study(List<Specimen> specimens, List<Reading> readings) {
        Study study = new Study(
                        "s",
                        "S",
                        StudyScope.EMPTY,
                        List.of(row("mild"), row("bane"), row("mild-male", "mild", "male")),
                        List.of(),
                        List.of(WIDTH, LENGTH, QUOTIENT, TEETH, TURN, EDGE),
                        List.of())
                .withSpecimens(specimens)
                .withReadings(readings);
        assertThat(StudyRules.check(study))
                .filteredOn(v -> v.place().startsWith("reading"))
                .isEmpty();
        return study;
    }

    private static Proposals.Proposal proposal(Study study, StudyCharacter character, String row) {
        Evidence.RowReadings of = new Evidence(study)
                .of(character).stream()
                        .filter(r -> r.row().equals(row))
                        .findFirst()
                        .orElseThrow();
        StudyScore score = study.scoresByRow().getOrDefault(row, Map.of()).get(character.id());
        return Proposals.of(of, character, score);
    }

    /** Six plants of 8.1 to 8.6 mm. */
    private static Study sixPlants() {
        List<Specimen> specimens = IntStream.range(0, 6)
                .mapToObj(i -> specimen("p" + i, "mild", "", ""))
                .toList();
        List<Reading> readings = IntStream.range(0, 6)
                .mapToObj(i -> reading("p" + i, WIDTH, "", "8." + (i + 1)))
                .toList();
        return study(specimens, readings);
    }

    private static Study accepted(Study study, Proposals.Proposal proposal) {
        ScoreValue value = Objects.requireNonNull(proposal.value());
        return study.withScores(List.of(new StudyScore(
                        proposal.row(),
                        proposal.character(),
                        value,
                        proposal.notation(),
                        StudyScore.Basis.SPECIMENS,
                        "",
                        false,
                        "")
                .withSample(proposal.sample())));
    }

    @Test
    void aCellIsMadeOfReadingsAndOutOfDateWithTheNext() {
        Study study = sixPlants();
        Proposals.Proposal first = proposal(study, WIDTH, "mild");
        assertThat(first.notation()).isEqualTo("8.1–8.6");
        assertThat(first.standing()).isEqualTo(Standing.EMPTY);
        Study scored = accepted(study, first);
        assertThat(scored.scores().get(0).sample()).satisfies(s -> {
            assertThat(s.individuals()).isEqualTo(6);
            assertThat(s.mean()).isCloseTo(8.35, within(1e-9));
            assertThat(s.provisional()).isTrue();
        });
        assertThat(proposal(scored, WIDTH, "mild").standing()).isEqualTo(Standing.MADE_OF_THESE);

        List<Reading> more = new ArrayList<>(scored.readings());
        more.add(reading("p0", WIDTH, "", "9.4"));
        assertThat(proposal(scored.withReadings(more), WIDTH, "mild").standing())
                .isEqualTo(Standing.OUT_OF_DATE);

        assertThat(findings(scored)).isEmpty();
        assertThat(findings(scored.withReadings(more))).containsExactly("out-of-date");
        assertThat(findings(scored.withReadings(List.of()))).containsExactly("out-of-date");

        // A new name takes the readings along: one plant fewer here, one of another taxon there.
        Study renamed = scored.withSpecimens(scored.specimens().stream()
                .map(s -> s.id().equals("p3")
                        ? s.with(new Determination("bane", "", Specimen.Kind.DETERMINED, "", "", "", List.of()))
                        : s)
                .toList());
        assertThat(proposal(renamed, WIDTH, "mild").standing()).isEqualTo(Standing.OUT_OF_DATE);
        assertThat(proposal(renamed, WIDTH, "bane").counts().individuals()).isEqualTo(1);
        assertThat(proposal(renamed, WIDTH, "bane").standing()).isEqualTo(Standing.TOO_FEW);
    }

    private static List<String> findings(Study study) {
        return StudyCheck.of(StudyCompiler.compile(study)).findings().stream()
                .map(f -> f.kind().code())
                .filter(List.of("out-of-date", "reading-to-settle", "out-of-proportion")::contains)
                .toList();
    }

    /** Plants of either taxon are the larger the more teeth they have; the taxon of more teeth is the smaller one. */
    private static Study teethGoWithWidth(int each) {
        List<Specimen> plants = new ArrayList<>();
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < 2 * each; i++) {
            boolean bane = i % 2 == 1;
            int k = i / 2;
            plants.add(specimen("p" + i, bane ? "bane" : "mild", "", ""));
            readings.add(reading("p" + i, WIDTH, "", String.valueOf((bane ? 5.0 : 20.0) * (1 + 0.05 * k))));
            readings.add(reading("p" + i, TEETH, "", String.valueOf((bane ? 60 : 20) + 2 * k + k % 3)));
            readings.add(reading("p" + i, TURN, "", String.valueOf((bane ? 60 : 30) + (7 * k) % 5)));
        }
        return study(plants, readings);
    }

    @Test
    void measuresThatGoTogetherWithinTaxaAreProposedAsOneFeature() {
        Study study = teethGoWithWidth(10);
        List<StudyFinding> found = together(study);
        assertThat(found).hasSize(1);
        assertThat(found.get(0).character()).isEqualTo(WIDTH.id());
        assertThat(found.get(0).other()).isEqualTo(TEETH.id());
        assertThat(found.get(0).facts()).containsEntry("individuals", 20.0).containsEntry("together", "true");

        Study joined = Correction.of(study, found.get(0));
        assertThat(together(joined)).isEmpty();
        assertThat(joined.characters().stream().filter(c -> !c.group().isEmpty()))
                .as("what was one feature stays one: the length goes with the width")
                .extracting(StudyCharacter::id)
                .containsExactly(WIDTH.id(), LENGTH.id(), TEETH.id());
        assertThat(together(teethGoWithWidth(9))).as("18 plants").isEmpty();
    }

    private static List<StudyFinding> together(Study study) {
        return StudyCheck.of(StudyCompiler.compile(study)).findings().stream()
                .filter(f -> f.kind() == FindingKind.GO_TOGETHER)
                .toList();
    }

    @Test
    void aPairOfUsualSizesMayBeOutOfProportion() {
        List<Specimen> plants = new ArrayList<>();
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            plants.add(specimen("p" + i, "mild", "", ""));
            double width = 5 + i;
            // Length goes with the square of width, give or take 3 %; of one plant another one's was read.
            double length = width * width * (i % 2 == 0 ? 1.03 : 0.97);
            readings.add(reading("p" + i, WIDTH, "", String.valueOf(width)));
            readings.add(reading("p" + i, LENGTH, "", i == 3 ? "150" : String.format(Locale.ROOT, "%.2f", length)));
        }
        Study study = study(plants, readings);
        RowAllometry growth =
                RowAllometry.of(new Evidence(study), WIDTH, LENGTH).get(0);
        assertThat(growth.unforeseen()).containsExactly("p3");
        assertThat(findings(study)).containsExactly("out-of-proportion");

        Reading aside = readings.get(7).standing(Reading.Standing.SET_ASIDE, "another plant's");
        readings.set(7, aside);
        Study corrected = study(plants, readings);
        assertThat(findings(corrected)).isEmpty();
        assertThat(RowAllometry.of(new Evidence(corrected), WIDTH, LENGTH)
                        .get(0)
                        .relation()
                        .orElseThrow()
                        .exponent())
                .isCloseTo(2, within(0.1));
        assertThat(RowAllometry.of(new Evidence(study(plants.subList(0, 7), readings.subList(0, 14))), WIDTH, LENGTH)
                        .get(0)
                        .relation())
                .as("of too few")
                .isEmpty();
    }

    @Test
    void repetitionsGoToItemsAndItemsToIndividuals() {
        Study six = sixPlants();
        List<Reading> readings = new ArrayList<>(six.readings());
        readings.addAll(List.of(
                reading("p0", WIDTH, "leaf 1", "20"),
                reading("p0", WIDTH, "leaf 1", "22"),
                reading("p0", WIDTH, "leaf 2", "12")));
        Proposals.Proposal proposal = proposal(study(six.specimens(), readings), WIDTH, "mild");
        assertThat(proposal.counts()).isEqualTo(new Proposals.ReadCounts(9, 8, 6, 1));
        // (8.1 + 21 + 12) / 3
        assertThat(proposal.numbers().orElseThrow().max()).isCloseTo(13.7, within(1e-9));
        assertThat(proposal.repeatability().orElseThrow()).isCloseTo(Math.sqrt(2), within(1e-9));
    }

    @Test
    void whatCannotBeEvidenceIsLeftOutAndSaysWhy() {
        Specimen.Treatment later = new Specimen.Treatment(Treated.DRIED, "2031-07-01", "");
        Specimen.Treatment before = new Specimen.Treatment(Treated.DRIED, "2031-05-20", "");
        StudyCharacter.Looking fades = new StudyCharacter.Looking(
                "", List.of(), 0, "", StudyCharacter.Subject.ORGANISM, List.of(Treated.FLUID));
        StudyCharacter colour =
                withLooking(StudyCharacter.of("colour", CharacterType.STATES, List.of(StudyState.of("red"))), fades);
        List<Specimen> specimens = List.of(
                specimen("fresh", "mild", "", "", later),
                specimen("dried", "mild", "", "", before),
                specimen("cf", "mild", "cf.", ""),
                specimen("nameless", "", "", ""),
                specimen("male", "mild", "", "Male"),
                specimen("fluid", "mild", "", "", new Specimen.Treatment(Treated.FLUID, "", "")));
        List<Reading> readings = new ArrayList<>();
        specimens.forEach(s -> readings.add(reading(s.id(), WIDTH, "", "5")));
        readings.add(reading("fresh", EDGE, "", "toothed"));
        readings.add(reading("fluid", colour, "", "red"));
        readings.set(1, readings.get(1).standing(Reading.Standing.TAKEN, ""));
        Study study = study(specimens, List.of());
        study = study.withCharacters(List.of(WIDTH, EDGE, colour)).withReadings(readings);
        Evidence evidence = new Evidence(study);

        List<Evidence.RowReadings> width = evidence.of(WIDTH);
        assertThat(width).extracting(Evidence.RowReadings::row).containsExactly("mild", "mild-male", "");
        assertThat(width.get(0).items())
                .extracting(Evidence.Item::barred)
                .containsExactly(null, null, Barred.DOUBTFULLY_DETERMINED, null);
        assertThat(width.get(0).items())
                .extracting(Evidence.Item::material)
                .containsExactly(Material.FRESH, Material.DRIED, Material.FRESH, Material.FLUID);
        assertThat(width.get(2).items().get(0).barred()).isEqualTo(Barred.NOT_DETERMINED);
        assertThat(evidence.of(EDGE).get(0).items().get(0).barred())
                .as("the edge gave it its name")
                .isEqualTo(Barred.CIRCULAR);
        assertThat(evidence.of(colour).get(0).items().get(0).barred()).isEqualTo(Barred.ALTERED);
        // One plant in each material: the first stands, the others are left out, never mixed.
        Proposals.Proposal mild = proposal(study, WIDTH, "mild");
        assertThat(mild.material()).isEqualTo(Material.FRESH);
        assertThat(mild.counts().individuals()).isEqualTo(1);
        assertThat(mild.leftOut()).isEqualTo(2);
    }

    private static StudyCharacter withLooking(StudyCharacter c, StudyCharacter.Looking looking) {
        return c.withLooking(looking);
    }

    @Test
    void ratiosAreOfItemsAndStatesBecomeFrequencies() {
        List<Specimen> specimens = IntStream.range(0, 5)
                .mapToObj(i -> specimen("p" + i, "mild", "", ""))
                .toList();
        List<Reading> readings = new ArrayList<>();
        // Named spores are paired; what has no name is compared as the mean of the individual.
        readings.addAll(List.of(
                reading("p0", LENGTH, "a", "10"),
                reading("p0", WIDTH, "a", "5"),
                reading("p0", LENGTH, "b", "9"),
                reading("p0", WIDTH, "b", "3"),
                reading("p1", LENGTH, "", "8"),
                reading("p1", LENGTH, "", "12"),
                reading("p1", WIDTH, "", "4"),
                reading("p2", LENGTH, "a", "8"),
                reading("p2", WIDTH, "b", "8")));
        for (int i = 0; i < 5; i++) {
            // A fifth shows entire; the specimens' names rest on other characters here.
            readings.add(reading("p" + i, EDGE, "", i == 4 ? "entire" : "toothed"));
        }
        List<Specimen> otherwise = specimens.stream()
                .map(s -> s.determined(d -> d.withCharacters(List.of())))
                .toList();
        Study study = study(otherwise, readings);
        List<Evidence.Item> quotients = new Evidence(study).of(QUOTIENT).get(0).items();
        assertThat(quotients).extracting(Evidence.Item::value).containsExactly(2.0, 3.0, 2.5);
        double u = 0.1 / Math.sqrt(12) * 10;
        assertThat(quotients.get(0).uncertainty()).isCloseTo(Math.hypot(u / 5, 2 * u / 5), within(1e-9));
        assertThat(proposal(study, EDGE, "mild").notation()).isEqualTo("usually toothed, sometimes entire");

        // Named by the quotient: its parts are evidence still, it is none itself.
        Study circular = study(
                specimens.stream()
                        .map(s -> s.determined(d -> d.withCharacters(List.of(QUOTIENT.id()))))
                        .toList(),
                readings);
        assertThat(new Evidence(circular).of(QUOTIENT).get(0).items())
                .extracting(Evidence.Item::barred)
                .containsOnly(Barred.CIRCULAR);
        assertThat(new Evidence(circular).of(LENGTH).get(0).items()).allMatch(Evidence.Item::counts);
    }

    @Test
    void anUnsettledSlipIsFlaggedUntilSomebodyLooks() {
        List<Specimen> specimens = IntStream.range(0, 12)
                .mapToObj(i -> specimen("p" + i, "mild", "", ""))
                .toList();
        List<Reading> readings = new ArrayList<>(IntStream.range(0, 12)
                .mapToObj(i -> reading("p" + i, WIDTH, "", (i == 7 ? "215.9" : "8." + i)))
                .toList());
        Proposals.Proposal flagged = proposal(study(specimens, readings), WIDTH, "mild");
        assertThat(flagged.flags()).containsExactly(new Proposals.Flag(7, Slips.Cause.INCHES, Optional.of(8.5)));
        readings.set(7, readings.get(7).standing(Reading.Standing.KEPT, "a giant"));
        assertThat(proposal(study(specimens, readings), WIDTH, "mild").flags()).isEmpty();
        readings.set(7, readings.get(7).standing(Reading.Standing.SET_ASIDE, "in inches"));
        Proposals.Proposal without = proposal(study(specimens, readings), WIDTH, "mild");
        assertThat(without.flags()).isEmpty();
        assertThat(without.counts().individuals()).isEqualTo(11);
    }

    private static Picture picture(String id, @Nullable Scale scale) {
        return new Picture(id, "0".repeat(64), "image/png", 400, 300, id, "", "", "", "", "p0", scale, "");
    }

    private static final Scale BAR = new Scale(new Point(10, 10), new Point(210, 10), "1 mm", "", "objective 4", 0);

    private static ReadingOutcome marked(
            @Nullable Scale scale, StudyCharacter character, Shape shape, double[]... parts) {
        Study study = study(List.of(specimen("p0", "mild", "", "")), List.of())
                .withPictures(List.of(picture("bar", BAR), picture("shot", scale)));
        return MarkedReading.of(study, mark(shape, parts), character);
    }

    private static Mark mark(Shape shape, double[]... parts) {
        return new Mark(
                "shot",
                shape,
                Arrays.stream(parts)
                        .map(p -> IntStream.range(0, p.length / 2)
                                .mapToObj(i -> new Point(p[2 * i], p[2 * i + 1]))
                                .toList())
                        .toList());
    }

    @Test
    void marksAreReadByTheScaleOfTheirPicture() {
        ReadingOutcome.Value line =
                (ReadingOutcome.Value) marked(BAR, WIDTH, Shape.LINE, new double[] {50, 50, 50, 250});
        // 200 pixels are as long as the bar; both have two ends of a pixel each.
        assertThat(line.value()).isEqualTo(1);
        assertThat(line.uncertainty()).isCloseTo(2 / 200.0, within(1e-12));
        assertThat(line.typed()).isEqualTo("1 mm");
        Scale shared = new Scale(null, null, "", "bar", "", 0);
        assertThat(((ReadingOutcome.Value) marked(shared, WIDTH, Shape.PATH, new double[] {0, 0, 30, 40, 30, 90}))
                        .value())
                .isEqualTo(0.5);
        double area = 100 * 100 / (200.0 * 200);
        assertThat(((ReadingOutcome.Value)
                                marked(BAR, WIDTH, Shape.OUTLINE, new double[] {0, 0, 100, 0, 100, 100, 0, 100}))
                        .value())
                .isCloseTo(2 * Math.sqrt(area / Math.PI), within(1e-9));
        ReadingOutcome.Value ratio = (ReadingOutcome.Value)
                marked(null, QUOTIENT, Shape.LINE, new double[] {0, 0, 200, 0}, new double[] {0, 0, 0, 100});
        assertThat(ratio.value()).isEqualTo(2);
        assertThat(((ReadingOutcome.Value) marked(null, TURN, Shape.ANGLE, new double[] {90, 0, 0, 0, 0, 50})).value())
                .isEqualTo(90);
        double[] small = {0, 0, 10, 0, 10, 10, 0, 10};
        double[] large = {0, 0, 100, 0, 100, 100, 0, 100};
        assertThat(((ReadingOutcome.Value) marked(BAR, WIDTH, Shape.LARGEST, small, large, small)).value())
                .as("the largest lobe of three")
                .isCloseTo(2 * Math.sqrt(area / Math.PI), within(1e-9));
        ReadingOutcome longest =
                marked(BAR, WIDTH, Shape.LONGEST, new double[] {0, 0, 0, 100}, new double[] {0, 0, 0, 200});
        assertThat(((ReadingOutcome.Value) longest).value()).isEqualTo(1);
        assertThat(marked(null, QUOTIENT, Shape.LONGEST, new double[] {0, 0, 0, 100}, new double[] {0, 0, 0, 200}))
                .isInstanceOf(ReadingOutcome.Refused.class);
        assertThat(marked(null, TEETH, Shape.COUNT, new double[] {1, 1, 2, 2, 3, 3}))
                .isEqualTo(new ReadingOutcome.Value("3", 3.0, List.of(), 0.0));
    }

    @Test
    void whatCannotBeMeasuredSaysWhatIsMissing() {
        double[] line = {0, 0, 10, 0};
        assertThat(reason(marked(null, WIDTH, Shape.LINE, line))).contains("no scale yet");
        Scale flat = new Scale(new Point(5, 5), new Point(5, 5), "1 mm", "", "", 0);
        assertThat(reason(marked(flat, WIDTH, Shape.LINE, line))).contains("no length");
        Scale unitless = new Scale(new Point(5, 5), new Point(50, 5), "1", "", "", 0);
        assertThat(reason(marked(unitless, WIDTH, Shape.LINE, line))).contains("with its unit");
        Scale lost = new Scale(null, null, "", "gone", "", 0);
        assertThat(reason(marked(lost, WIDTH, Shape.LINE, line))).contains("Choose another");
        assertThat(reason(marked(BAR, WIDTH, Shape.LINE, new double[] {0, 0, 900, 0})))
                .contains("outside the picture");
        assertThat(reason(marked(BAR, WIDTH, Shape.LINE, new double[] {3, 3, 3, 3})))
                .contains("one place");
        assertThat(reason(marked(BAR, WIDTH, Shape.COUNT, line)))
                .contains("a line, a path, an outline, or a set of lines or outlines");
        assertThat(reason(marked(BAR, EDGE, Shape.LINE, line))).contains("type what it shows");
    }

    private static String reason(ReadingOutcome taken) {
        return ((ReadingOutcome.Refused) taken).reason();
    }

    @Test
    void aNewScaleReadsAllMarksThatRestOnItAnew() {
        Mark mark = mark(Shape.LINE, new double[] {50, 50, 50, 250});
        Study study = study(List.of(specimen("p0", "mild", "", "")), List.of())
                .withPictures(List.of(picture("bar", BAR), picture("shot", new Scale(null, null, "", "bar", "", 0))));
        Reading read = new Reading(
                "r", "p0", WIDTH.id(), "", "1 mm", 1.0, List.of(), 0.01, "", "", "", mark, Reading.Standing.TAKEN, "");
        Scale twice = new Scale(BAR.from(), BAR.to(), "2 mm", "", "objective 4", 0);
        Study changed = study.withReadings(List.of(read))
                .withPictures(List.of(picture("bar", twice), study.pictures().get(1)));
        assertThat(MarkedReading.reread(changed, "bar").readings().get(0).value())
                .isEqualTo(2);
        assertThat(MarkedReading.reread(changed, "another").readings()).containsExactly(read);
    }
}
