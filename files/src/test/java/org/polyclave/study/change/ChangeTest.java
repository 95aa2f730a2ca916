package org.polyclave.study.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;

import java.util.List;
import java.util.Map;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.convert.MatrixFiles.Format;
import org.polyclave.files.table.TableReader;
import org.polyclave.files.table.TableWriter.Layout;
import org.polyclave.study.change.StudyDifference.Change;
import org.polyclave.study.change.StudyDifference.How;
import org.polyclave.study.change.StudyDifference.Kind;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.study.testkit.RandomScores;

/** Changes of whole studies: what they do, and above all what they leave alone. */
class ChangeTest {
    static LongStream seeds() {
        return LongStream.rangeClosed(1, 25);
    }

    private static Study table(String text) {
        return TableReader.read(text.getBytes(java.nio.charset.StandardCharsets.UTF_8), "t.csv")
                .study();
    }

    private static String said(Study study, String row, String character) {
        return study.scores().stream()
                .filter(s -> s.row().equals(row) && s.character().equals(character))
                .map(s -> s.typed() + (s.doubtful() ? " (doubtful)" : ""))
                .findFirst()
                .orElse("");
    }

    private static final Study LEAVES = table("""
            taxon,#stage,#parent,#rank,margin,hairs,width
            #type,,,,states,states,length
            #unit,,,,,,mm
            #states,,,,entire|toothed|lobed,on the teeth|elsewhere,
            #applies,,,,,margin = toothed|lobed,
            Genus one,,,genus,,,
            Aa,,Genus one,,toothed,on the teeth,5–9
            Bb,,Genus one,,"usually toothed, rarely entire",elsewhere,12
            Bb,male,,,lobed,elsewhere,10–14
            Cc,,Genus one,,entire,n/a,3–4
            """);

    @Test
    void namesBecomeTaxaWithTheRankAndPlaceThatTheySay() {
        Study grown = new AddTaxa(List.of(
                        "Helica",
                        " Helica  pumila ",
                        "Helica pumila subsp. alta",
                        "",
                        "bitter one",
                        "helica PUMILA",
                        "Aa",
                        "Tolva",
                        "Helica × media",
                        "Tolva?"))
                .apply(LEAVES);
        assertThat(StudyRules.check(grown)).isEmpty();
        List<StudyRow> added =
                grown.rows().subList(LEAVES.rows().size(), grown.rows().size());
        assertThat(added)
                .extracting(r -> r.id() + " " + r.rank() + " " + r.parent())
                .containsExactly(
                        "helica genus null",
                        "helica-pumila species helica",
                        "helica-pumila-subsp-alta subspecies helica-pumila",
                        "bitter-one species null",
                        "tolva species null",
                        "helica-media nothotaxon helica",
                        "tolva-2 species null");
        assertThat(new AddTaxa(List.of("Helica pumila")).apply(grown)).isEqualTo(grown);
        assertThat(new AddTaxa(List.of("Velmora nana subsp. alta", "Velmora nana", "Velmora"))
                        .apply(LEAVES)
                        .rows()
                        .subList(LEAVES.rows().size(), LEAVES.rows().size() + 3))
                .as("whatever their order")
                .extracting(StudyRow::parent)
                .containsExactly("velmora-nana", "velmora", null);
        assertThatExceptionOfType(Refused.class)
                .isThrownBy(() -> new AddTaxa(List.of("x".repeat(300))).apply(LEAVES))
                .withMessageContaining("too long");
    }

    @Test
    void jottedLinesBecomeCharacters() {
        Study grown = new AddCharacters(List.of(
                        "Leaf:",
                        "leaf tip: blunt, pointed, long and drawn out",
                        "leaf length (mm)",
                        "  ",
                        "Flower:",
                        "petals: count",
                        "petal colour\twhite/cream\tred",
                        "flowering: months",
                        "scent: none < faint < strong",
                        "awns",
                        "Margin: x, y",
                        "ovary weight: mg"))
                .apply(LEAVES);
        assertThat(StudyRules.check(grown)).isEmpty();
        assertThat(grown.characters()
                        .subList(LEAVES.characters().size(), grown.characters().size()))
                .extracting(c -> c.id() + " " + c.type() + " " + c.unit() + " " + c.organ() + " "
                        + c.states().stream().map(s -> s.label()).toList())
                .containsExactly(
                        "leaf-tip STATES  leaf [blunt, pointed, long and drawn out]",
                        "leaf-length LENGTH mm leaf []",
                        "petals COUNT  flower []",
                        "petal-colour STATES  flower [white/cream, red]",
                        "flowering MONTHS  flower []",
                        "scent ORDERED  flower [none, faint, strong]",
                        "awns STATES  flower [absent, present]",
                        "ovary-weight MASS mg flower []");
        assertThat(new AddCharacters(List.of("petals: count")).apply(grown)).isEqualTo(grown);
        for (String wrong : List.of("leaf width", ": red, blue", "colour: red", "colour: red, RED", "colour: !, ?")) {
            assertThatExceptionOfType(Refused.class)
                    .as(wrong)
                    .isThrownBy(() -> new AddCharacters(List.of(wrong)).apply(LEAVES));
        }
    }

    @Test
    void aSplitStateTakesItsScoresAndDependenciesAlong() {
        Study split = new SplitState(
                        "margin",
                        "toothed",
                        List.of("saw-toothed", "double-toothed"),
                        Map.of("aa", List.of("double-toothed")))
                .apply(LEAVES);
        assertThat(StudyRules.check(split)).isEmpty();
        assertThat(said(split, "aa", "margin")).isEqualTo("double-toothed");
        assertThat(said(split, "bb", "margin"))
                .isEqualTo("usually saw-toothed, usually double-toothed, rarely entire (doubtful)");
        assertThat(split.character("hairs").orElseThrow().appliesWhen().get(0).states())
                .containsExactly("toothed", "lobed", "double-toothed");
        assertThat(StudyDifference.between(LEAVES, split))
                .extracting(Change::name)
                .containsExactly("margin", "hairs", "Aa × margin", "Bb × margin");

        Study back = new MergeStates("margin", "double-toothed", "toothed").apply(split);
        assertThat(said(back, "aa", "margin")).isEqualTo("saw-toothed");
        assertThat(said(back, "bb", "margin")).isEqualTo("usually saw-toothed, rarely entire (doubtful)");
        assertThat(back.character("hairs").orElseThrow().appliesWhen())
                .isEqualTo(LEAVES.character("hairs").orElseThrow().appliesWhen());
    }

    @Test
    void aSplitTaxonLeavesWhatIsNotAssignedDoubtfulInAll() {
        Study split = new SplitTaxon("bb", List.of("Bb", "Bb nova"), Map.of("width", List.of("Bb nova")), Map.of())
                .apply(LEAVES);
        assertThat(StudyRules.check(split)).isEmpty();
        assertThat(said(split, "bb", "width")).isEmpty();
        assertThat(said(split, "bb-nova", "width")).isEqualTo("12");
        assertThat(said(split, "bb", "hairs")).isEqualTo("elsewhere (doubtful)");
        assertThat(said(split, "bb-nova", "hairs")).isEqualTo("elsewhere (doubtful)");
        assertThat(split.row("bb-male")).get().extracting(StudyRow::parent).isEqualTo("bb");
        assertThatExceptionOfType(Refused.class)
                .isThrownBy(() -> new SplitTaxon("bb", List.of("Bb", "Bb "), Map.of(), Map.of()).apply(LEAVES))
                .withMessage("'Bb' is named twice.");
    }

    @Test
    void specimensOfASplitTaxonAreAssignedOrDoubtfulAndKeepTheirHistory() {
        Study kept = LEAVES.withSpecimens(
                Stream.of("a", "b", "c", "d").map(ChangeTest::specimenOfBb).toList());
        Study split = new SplitTaxon(
                        "bb", List.of("Bb", "Bb nova"), Map.of(), Map.of("a", "Bb", "b", "Bb nova", "c", "Bb nova"))
                .apply(kept);
        assertThat(StudyRules.check(split)).isEmpty();
        assertThat(split.specimens())
                .extracting(s -> s.determinations().size() + " "
                        + s.present().orElseThrow().qualifier()
                        + s.present().orElseThrow().row())
                .containsExactly("1 bb", "2 bb-nova", "2 bb-nova", "2 cf.bb");
        assertThat(split.specimens().get(3).present().orElseThrow().characters())
                .containsExactly("margin");
        Study merged = new MergeTaxa("bb-nova", "aa").apply(split);
        assertThat(StudyRules.check(merged)).isEmpty();
        assertThat(merged.specimens().get(1).determinations())
                .extracting(Specimen.Determination::row)
                .containsExactly("bb", "aa");
    }

    private static Specimen specimenOfBb(String id) {
        return new Specimen(
                id,
                id,
                List.of(new Specimen.Determination("bb", "", Specimen.Kind.DETERMINED, "", "", "", List.of("margin"))),
                "");
    }

    @Test
    void specimensOfAFileAreToldByTheirCodes() {
        Study here = LEAVES.withSpecimens(List.of(specimenOfBb("v-1"), specimenOfBb("v-2")));
        Study there = LEAVES.withSpecimens(List.of(
                        new Specimen("v-1", "V-9", List.of(), "new"), new Specimen("x", "V-2", List.of(), "known")))
                .withScores(LEAVES.scores().stream()
                        .map(s -> s.withSample(StudyScore.Sample.of(null, null, null, List.of("v-1", "x"))))
                        .toList());
        Study joined = StudyJoin.of(here, there).study();
        assertThat(StudyRules.check(joined)).isEmpty();
        assertThat(joined.specimens()).extracting(Specimen::id).containsExactly("v-1", "v-2", "v-1-2");
        assertThat(joined.specimens().get(1).determinations()).hasSize(1);
        // Scores that say the same and not where they come from leave what is here.
        assertThat(joined.scores()).allMatch(s -> s.sample() == null);
        Study sourced = there.withScores(
                there.scores().stream().map(s -> s.withSource("field book")).toList());
        assertThat(StudyJoin.of(here, sourced).study().scores())
                .allSatisfy(s -> assertThat(s.sample())
                        .isEqualTo(StudyScore.Sample.of(null, null, null, List.of("v-1-2", "v-2"))));
    }

    @Test
    void mergedTaxaAdmitWhatEitherShowed() {
        Study merged = new MergeTaxa("bb", "aa").apply(LEAVES);
        assertThat(StudyRules.check(merged)).isEmpty();
        assertThat(said(merged, "aa", "margin")).isEqualTo("toothed, rarely entire (doubtful)");
        assertThat(said(merged, "aa", "width")).isEqualTo("5–12 (doubtful)");
        assertThat(merged.row("aa").orElseThrow().names().synonyms())
                .extracting(StudyRow.Synonym::name)
                .containsExactly("Bb");
        assertThat(merged.row("bb-male").orElseThrow().name()).isEqualTo("Aa, male");
        assertThatExceptionOfType(Refused.class)
                .isThrownBy(() -> new MergeTaxa("genus-one", "aa").apply(LEAVES))
                .withMessageContaining("belongs to");
    }

    @Test
    void anotherUnitChangesTextsOnly() {
        Study inCm = new ChangeUnit("width", "cm").apply(LEAVES);
        assertThat(said(inCm, "aa", "width")).isEqualTo("0.5–0.9");
        assertThat(StudyCompiler.compile(inCm).matrix().cell(0, 2))
                .isEqualTo(StudyCompiler.compile(LEAVES).matrix().cell(0, 2));
        assertThatExceptionOfType(Refused.class).isThrownBy(() -> new ChangeUnit("width", "kg").apply(LEAVES));
    }

    @Test
    void aScoredCharacterChangesItsTypeAndLosesNoText() {
        Study jotted = table("""
                taxon,ring,width
                #type,states,length
                #unit,,cm
                #states,5–9|12|wide,
                Aa,5–9,5–9
                Bb,wide,12
                Cc,12,n/a
                """);
        Study measured = new ChangeType("ring", CharacterType.LENGTH, "cm").apply(jotted);
        assertThat(measured.character("ring").orElseThrow())
                .satisfies(c -> assertThat(c.states()).isEmpty())
                .satisfies(c -> assertThat(c.unit()).isEqualTo("cm"));
        assertThat(Stream.of("aa", "bb", "cc").map(r -> said(measured, r, "ring")))
                .containsExactly("5–9", "?", "12");
        assertThat(measured.scores().stream()
                        .filter(s -> s.row().equals("bb") && s.character().equals("ring"))
                        .map(StudyScore::note))
                .containsExactly("It said: wide");
        assertThat(StudyDifference.between(jotted, measured))
                .as("every score is shown with what it becomes")
                .extracting(Change::kind)
                .containsExactlyInAnyOrder(Kind.CHARACTER, Kind.CELL, Kind.CELL, Kind.CELL);
        Study noted = jotted.withScores(
                jotted.scores().stream().map(s -> s.withNote("old book")).toList());
        assertThat(new ChangeType("ring", CharacterType.LENGTH, "cm")
                        .apply(noted).scores().stream()
                                .filter(s ->
                                        s.row().equals("bb") && s.character().equals("ring"))
                                .map(StudyScore::note))
                .containsExactly("old book It said: wide");
        Study counted = new ChangeType("width", CharacterType.COUNT, "").apply(jotted);
        assertThat(StudyDifference.between(jotted, counted))
                .filteredOn(c -> c.kind() == Kind.CELL && c.id().equals("aa"))
                .as("also where the text is the same")
                .singleElement()
                .satisfies(c -> assertThat(c.fields())
                        .containsExactly(new StudyDifference.Field(StudyField.SCORE, "5–9 cm", "5–9 (count)")));
        Study named = new ChangeType("width", CharacterType.ORDERED, "").apply(jotted);
        assertThat(named.character("width").orElseThrow().states()).hasSize(2);
        assertThat(said(named, "cc", "width")).isEqualTo("n/a");
        assertThat(StudyRules.check(named)).isEmpty();
        assertThatExceptionOfType(Refused.class)
                .isThrownBy(() -> new ChangeType("width", CharacterType.LENGTH, "cm").apply(jotted))
                .withMessageContaining("already");
        Reading reading = new Reading(
                "r-1", "v-1", "width", "", "5", 5.0, List.of(), null, "", "", "", null, Reading.Standing.TAKEN, "");
        Study read = jotted.withReadings(List.of(reading));
        assertThatExceptionOfType(Refused.class)
                .isThrownBy(() -> new ChangeType("width", CharacterType.COUNT, "").apply(read))
                .withMessageContaining("was measured");
        assertThat(new ChangeType("ring", CharacterType.LENGTH, "cm")
                        .apply(read)
                        .readings())
                .containsExactly(reading);
    }

    @Test
    void severalCharactersAreToldTheSameAndKeepTheRest() {
        Study edited = new EditCharacters(
                        List.of("margin", "width"), List.of(9, 6, 9), "lens ×10", null, null, "leaf shape")
                .apply(LEAVES);
        assertThat(edited.character("margin").orElseThrow())
                .isEqualTo(LEAVES.character("margin")
                        .orElseThrow()
                        .withMonths(List.of(6, 9))
                        .withMethod("lens ×10")
                        .withGroup("leaf shape"));
        assertThat(edited.character("hairs")).isEqualTo(LEAVES.character("hairs"));
        Study always = new EditCharacters(
                        List.of("width"), List.of(1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12), "", "leaf", 2.5, "")
                .apply(edited);
        assertThat(always.character("width").orElseThrow())
                .isEqualTo(LEAVES.character("width")
                        .orElseThrow()
                        .withOrgan("leaf")
                        .withEffort(2.5));
        for (EditCharacters wrong : List.of(
                new EditCharacters(List.of("gone"), List.of(), null, null, null, null),
                new EditCharacters(List.of("width"), List.of(13), null, null, null, null),
                new EditCharacters(List.of("width"), List.of(0), null, null, null, null),
                new EditCharacters(List.of("width"), null, null, null, -0.5, null),
                new EditCharacters(List.of("width"), null, null, null, 1440.5, null),
                new EditCharacters(List.of("width"), null, null, null, Double.NaN, null))) {
            assertThatExceptionOfType(Refused.class).isThrownBy(() -> wrong.apply(LEAVES));
        }
        for (double effort : new double[] {0, 1440}) {
            assertThat(new EditCharacters(List.of("width"), null, null, null, effort, null)
                            .apply(LEAVES)
                            .character("width")
                            .orElseThrow()
                            .effort())
                    .isEqualTo(effort);
        }
    }

    @Test
    void manyAreAssessedAtOnceAndNoneBecomesLessDangerousByIt() {
        Study meadow = table("""
                taxon,#stage,#parent,#hazard,colour
                Bane,,,serious,red
                Bane,seedling,,not assessed,red
                Mild,,,not assessed,blue
                Meek,,,none known,white
                """);
        Study assessed =
                new AssessHazards(List.of("mild", "meek"), Hazard.NONE_KNOWN, " Plants of the weir ").apply(meadow);
        assertThat(assessed.row("mild").orElseThrow())
                .satisfies(r -> assertThat(r.hazard()).isEqualTo(Hazard.NONE_KNOWN))
                .satisfies(r -> assertThat(r.assessment().source()).isEqualTo("Plants of the weir"));
        assertThat(assessed.row("meek")).as("it says so already").isEqualTo(meadow.row("meek"));
        assertThat(new AssessHazards(List.of("mild", "bane-seedling"), Hazard.SERIOUS, "A book")
                        .apply(meadow)
                        .row("bane-seedling")
                        .orElseThrow()
                        .hazard())
                .isEqualTo(Hazard.SERIOUS);
        Map<AssessHazards, String> refused = Map.of(
                new AssessHazards(List.of("mild", "bane"), Hazard.CAUTION, "A book"), "'Bane' is recorded as more",
                new AssessHazards(List.of("bane-seedling"), Hazard.NONE_KNOWN, "A book"), "belongs to a dangerous",
                new AssessHazards(List.of("bane-seedling"), Hazard.CAUTION, "A book"), "belongs to a dangerous",
                new AssessHazards(List.of("mild"), Hazard.NONE_KNOWN, " "), "by what source",
                new AssessHazards(List.of("mild"), Hazard.NOT_ASSESSED, "A book"), "Choose how dangerous",
                new AssessHazards(List.of("gone"), Hazard.SERIOUS, "A book"), "does not exist");
        refused.forEach((operation, why) -> assertThatExceptionOfType(Refused.class)
                .as(operation.toString())
                .isThrownBy(() -> operation.apply(meadow))
                .withMessageContaining(why));
    }

    @Test
    void scoresAreFoundByWhatTheyMean() {
        Study doubtful = new ReplaceScores(
                        List.of(), List.of(), "rarely entire, usually toothed", false, null, false, "", true, null)
                .apply(LEAVES);
        assertThat(said(doubtful, "bb", "margin")).endsWith("(doubtful)");
        assertThat(StudyDifference.between(LEAVES, doubtful)).hasSize(1);
        Study replaced = new ReplaceScores(
                        List.of(), List.of("margin"), "toothed", true, true, false, "toothed", false, "Orrin 2031")
                .apply(doubtful);
        assertThat(StudyDifference.between(doubtful, replaced))
                .singleElement()
                .satisfies(c -> assertThat(c.fields())
                        .extracting(StudyDifference.Field::name)
                        .containsExactly(StudyField.SCORE, StudyField.SOURCE, StudyField.DOUBTFUL));
        assertThatExceptionOfType(Refused.class)
                .isThrownBy(() -> new ReplaceScores(
                                List.of(), List.of("width"), "toothed", false, null, false, "", true, null)
                        .apply(LEAVES))
                .withMessageContaining("is not a score of any");
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void aStudysOwnExportsChangeNothing(long seed) {
        Study study = RandomScores.study(seed);
        assertThat(StudyDifference.between(study, study)).isEmpty();
        for (Format format : List.of(Format.STUDY, Format.CSV, Format.XLSX)) {
            for (Layout layout : Layout.values()) {
                Study read = MatrixFiles.read(MatrixFiles.write(study, format, layout), "x." + format.ending())
                        .study();
                StudyJoin.JoinedStudy joined = StudyJoin.of(study, read);
                assertThat(joined.problems()).isEmpty();
                assertThat(StudyDifference.between(study, joined.study())).isEmpty();
            }
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void joiningToAnEmptyStudyGivesTheFile(long seed) {
        Study study = RandomScores.study(seed);
        Study empty = study.withRows(List.of())
                .withCharacters(List.of())
                .withScores(List.of())
                .withClaims(List.of())
                .withSpecimens(List.of());
        Study joined = StudyJoin.of(empty, study).study();
        assertThat(joined.rows()).isEqualTo(study.rows());
        assertThat(joined.specimens()).isEqualTo(study.specimens());
        assertThat(joined.characters()).isEqualTo(study.characters());
        assertThat(joined.scores())
                .usingRecursiveFieldByFieldElementComparatorIgnoringFields("typed")
                .isEqualTo(study.scores());
    }

    @Test
    void aFileAddsAndChangesButNeverDeletes() {
        Study incoming = table("""
                taxon,MARGIN,width,spots
                aa,crenate,0.6 cm,present
                Dd,entire,7 mm,absent
                """);
        StudyJoin.JoinedStudy joined = StudyJoin.of(LEAVES, incoming);
        assertThat(joined.problems()).isEmpty();
        List<Change> changes = StudyDifference.between(LEAVES, joined.study());
        assertThat(changes).noneMatch(c -> c.how() == How.REMOVED);
        assertThat(changes)
                .filteredOn(c -> c.kind() != Kind.CELL)
                .extracting(c -> c.how() + " " + c.name())
                .containsExactly("ADDED Dd", "CHANGED margin", "ADDED spots");
        assertThat(said(joined.study(), "aa", "margin")).isEqualTo("crenate");
        assertThat(said(joined.study(), "aa", "width")).isEqualTo("6");
        assertThat(said(joined.study(), "cc", "margin")).isEqualTo("entire");
        assertThat(StudyJoin.of(LEAVES, table("taxon,width\nAa,narrow\n")).problems())
                .singleElement()
                .satisfies(p -> assertThat(p.sentence()).startsWith("'aa' × 'width': 'narrow' is not a number"));
    }

    @Test
    void typesAreChangedAfterReading() {
        Study read = table("taxon,width,girth\nAa,5-9,2\nBb,wide,3\n");
        Retype.Retyped retyped = Retype.of(
                read,
                Map.of(
                        "width", new Retype.Choice(CharacterType.LENGTH, "cm"),
                        "girth", new Retype.Choice(CharacterType.STATES, "")));
        assertThat(retyped.problems())
                .singleElement()
                .satisfies(p -> assertThat(p.sentence()).startsWith("'bb' × 'width': 'wide' is not a number"));
        CompiledStudy compiled = StudyCompiler.compile(retyped.study());
        assertThat(compiled.matrix().cell(0, 0)).isEqualTo(org.polyclave.core.matrix.Cell.Numeric.range(50, 90));
        assertThat(compiled.characters().get(1).states())
                .extracting(s -> s.label())
                .containsExactly("2", "3");
        assertThat(retyped.study().scores()).extracting(StudyScore::typed).containsExactly("5-9", "2", "3");
    }
}
