package org.polyclave.print.key;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.key.SupportPropagationProver;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.files.key.KeyJson;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.testkit.RandomScores;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.lead.Clause;
import org.polyclave.wording.lead.Seen;

/** Keys as files and in words. */
class KeyFilesTest {
    private static final String TABLE = """
            taxon,#hazard,leaf margin,leaf width,petals,season,height
            #type,,states,length,count,months,length
            #organ,,leaf,leaf,flower,whole plant,whole plant
            #unit,,,mm,,,cm
            #states,,toothed|entire|lobed,,,,
            Aa <one>,serious,toothed,5–9,5,May–Jun,10–20
            Bb & two,none known,entire,12–20,4,Aug,10–20
            Cc three,,lobed,5–9,9–12,Oct,40–60
            """;

    private static CompiledStudy compiled(String table) {
        return StudyCompiler.compile(TableReader.read(table.getBytes(StandardCharsets.UTF_8), "Sallows.csv")
                .study());
    }

    private static KeyResult generate(CompiledStudy compiled, KeyObjective objective) {
        KeyOutcome outcome = new KeyGenerator()
                .generate(
                        compiled.matrix(),
                        KeyOptions.DEFAULT.withNodeBudget(400).withObjective(objective),
                        CancelSignal.NEVER);
        return ((KeyOutcome.Generated) outcome).result();
    }

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 25);
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void aKeyFileReadsBackAsAKeyThatIsStillProven(long seed) {
        CompiledStudy compiled = StudyCompiler.compile(RandomScores.study(seed));
        KeyResult result = generate(compiled, KeyObjective.CAUTIOUS);
        KeyJson.ReadKey read = KeyJson.read(KeyJson.write(compiled, result).getBytes(StandardCharsets.UTF_8), compiled);
        assertThat(read.problems()).isEmpty();
        assertThat(read.key().couplets()).hasSameSizeAs(result.key().couplets());
        assertThat(new SupportPropagationProver()
                        .prove(compiled.matrix(), read.key())
                        .failures())
                .isEmpty();
    }

    private static String word(StudyCharacter character, Atoms atoms, Key.Role role, boolean plain) {
        Clause clause = Clause.of(character, plain);
        Seen seen = Seen.of(character, clause, atoms);
        return clause.fill(seen.words(), seen.count(), role == Key.Role.TENDENCY);
    }

    private static StudyCharacter on(String organ, String label, CharacterType type, StudyState... states) {
        StudyCharacter c = StudyCharacter.of(label, type, List.of(states));
        return new StudyCharacter(
                c.id(),
                label,
                "",
                "",
                type,
                c.unit(),
                organ,
                "",
                "",
                c.states(),
                List.of(),
                List.of(),
                1,
                false,
                false,
                false,
                0.05,
                "",
                0,
                StudyCharacter.Where.NOT_SAID,
                StudyCharacter.Looking.PLAIN,
                "",
                List.of(),
                StudyCharacter.Trust.USUAL,
                StudyCharacter.Use.FREE,
                StudyCharacter.LeadPattern.MADE);
    }

    @Test
    void aLimitBetweenMeasuredTaxaSaysWhereNotToDecide() {
        String table = """
                taxon,fruit length
                #type,length
                #organ,fruit
                #unit,cm
                Aa,2–2.4
                Bb,2.6–3
                """;
        Study study = compiled(table).study();
        CompiledStudy measured = StudyCompiler.compile(study.withScores(study.scores().stream()
                .map(s -> s.withSample(
                        new StudyScore.Sample(null, 20, 4, List.of(), s.row().equals("aa") ? 22.0 : 28.0, 1.0, null)))
                .toList()));
        KeyResult result = generate(measured, KeyObjective.FEWEST);
        KeyView view = KeyWording.word(measured, result);
        // The next fruit of Aa may have 24.14 mm, that of Bb 25.86 mm (GenerationTest works it out).
        assertThat(view.couplets().get(0).leads())
                .extracting(KeyView.LeadView::plainText)
                .containsExactly("Fruit 2–2.4 cm long (2.41–2.59 cm: do not decide on this)", "Fruit 2.6–3 cm long");
        assertThat(view.couplets().get(0).leads().get(1).statements().get(0).wrong())
                .isBetween(0.0025, 0.005);
        Key read = KeyJson.read(KeyJson.write(measured, result).getBytes(StandardCharsets.UTF_8), measured)
                .key();
        Key.Doubt doubt = read.couplets()
                .get(0)
                .leads()
                .get(0)
                .statements()
                .get(0)
                .doubt()
                .orElseThrow();
        assertThat(List.of(doubt.from(), doubt.to()))
                .usingElementComparator((a, b) -> Math.abs(a - b) < 1e-9 ? 0 : 1)
                .isEqualTo(result.key().couplets().get(0).leads().get(0).statements().get(0).doubt().stream()
                        .flatMap(d -> Stream.of(d.from(), d.to()))
                        .toList());
    }

    @Test
    void plainWordsTellALimitInSizesThatPeopleHaveWithThem() {
        CompiledStudy compiled = compiled("""
                taxon,fruit length
                #type,length
                #organ,fruit
                #unit,cm
                Aa,0.5–1
                Bb,2.5–4
                """);
        KeyView.LeadView lead = KeyWording.word(compiled, generate(compiled, KeyObjective.FEWEST))
                .couplets()
                .get(0)
                .leads()
                .get(1);
        assertThat(lead.text()).isEqualTo("Fruit 2.5–4 cm long");
        assertThat(lead.plainText()).isEqualTo("Fruit 2.5–4 cm long (limit about the width of a finger)");
    }

    @Test
    void statementsNameTheOrganFirstAndLimitsDoNotOverlap() {
        StudyCharacter margin = on(
                "leaf",
                "margin",
                CharacterType.STATES,
                new StudyState("toothed", "toothed", "with teeth", ""),
                StudyState.of("entire"),
                StudyState.of("lobed"));
        assertThat(word(margin, new Atoms.States(0b001), Key.Role.DECIDING, false))
                .isEqualTo("leaf margin toothed");
        assertThat(word(margin, new Atoms.States(0b111), Key.Role.DECIDING, true))
                .isEqualTo("leaf margin with teeth, entire or lobed");
        assertThat(word(margin, new Atoms.States(0b110), Key.Role.TENDENCY, false))
                .isEqualTo("leaf margin usually entire or lobed");
        StudyCharacter width = on("leaf", "leaf width", CharacterType.LENGTH);
        double inf = Double.POSITIVE_INFINITY;
        assertThat(word(width, Atoms.Interval.closed(2, 6), Key.Role.DECIDING, false))
                .isEqualTo("leaf 2–6 mm wide");
        assertThat(word(width, new Atoms.Interval(6, 9, true, false), Key.Role.TENDENCY, false))
                .isEqualTo("leaf usually more than 6 and up to 9 mm wide");
        assertThat(word(width, new Atoms.Interval(6, inf, true, false), Key.Role.DECIDING, false))
                .isEqualTo("leaf more than 6 mm wide");
        StudyCharacter petals = on("flower", "petals", CharacterType.COUNT);
        assertThat(word(petals, Atoms.Interval.closed(6, inf), Key.Role.DECIDING, false))
                .isEqualTo("petals six or more");
        assertThat(word(petals, Atoms.Interval.closed(0, 1), Key.Role.DECIDING, false))
                .isEqualTo("petals none or one");
        assertThat(word(petals, Atoms.Interval.closed(8, 12), Key.Role.DECIDING, false))
                .isEqualTo("petals 8–12");
        assertThat(word(
                        on("whole plant", "height", CharacterType.LENGTH),
                        Atoms.Interval.closed(-inf, 1.5),
                        Key.Role.DECIDING,
                        false))
                .isEqualTo("plant up to 1.5 mm high");
        assertThat(word(
                        on("", "fruiting", CharacterType.MONTHS),
                        new Atoms.States(0b1110000),
                        Key.Role.DECIDING,
                        false))
                .isEqualTo("fruiting from May to July");
    }

    @Test
    void leadsAreParallelAndNamesCarryTheirHazard() {
        KeyView view = KeyWording.word(compiled(TABLE), generate(compiled(TABLE), KeyObjective.CAUTIOUS));
        for (KeyView.CoupletView couplet : view.couplets()) {
            List<String> first = couplet.leads().get(0).statements().stream()
                    .map(KeyView.StatementView::character)
                    .toList();
            for (KeyView.LeadView lead : couplet.leads()) {
                assertThat(lead.statements())
                        .extracting(KeyView.StatementView::character)
                        .isEqualTo(first);
                assertThat(lead.text()).doesNotContain("not ");
            }
        }
        assertThat(view.figures().proven()).isTrue();
        assertThat(view.couplets().stream()
                        .flatMap(c -> c.leads().stream())
                        .filter(l -> l.terminal() != null)
                        .flatMap(l -> l.terminal().names().stream()))
                .extracting(KeyView.NameView::hazardText)
                .containsExactlyInAnyOrder("serious hazard", "no hazard known", "hazard not assessed");
    }

    @Test
    void everyFormatSaysWhichDangersAreNotRuledOut() {
        CompiledStudy compiled = compiled("""
                taxon,#hazard,leaf margin,pod colour,stem hairs
                #type,,states,states,states
                #organ,,leaf,pod,stem
                #states,,toothed|entire,red|blue,absent|present
                B<ane,serious,toothed,red,absent
                Lamb,none known,entire,blue,present
                Meek,none known,entire,red,present
                """);
        KeyView view = KeyWording.word(compiled, generate(compiled, KeyObjective.FEWEST));
        String sentence = "(serious). This matrix has no checked sign that rules it out.";
        assertThat(KeyRenderer.text(view, compiled.study()))
                .containsOnlyOnce("2 (1)")
                .contains("! Not ruled out: B<ane");
        assertThat(KeyRenderer.text(view, compiled.study()).split("Not ruled out", -1))
                .hasSize(3);
        assertThat(KeyRenderer.markdown(view, compiled.study())).contains("**!** Not ruled out: B\\<ane " + sentence);
        assertThat(KeyRenderer.html(view, compiled.study())).contains("⚠ Not ruled out: <i>B&lt;ane</i> " + sentence);
    }

    @Test
    void everyFormatSaysWhatIsDangerousAndNotInTheKey() {
        CompiledStudy compiled = compiled("""
                taxon,#stage,#rank,#hazard,leaf margin
                #type,,,,states
                Bane,,species,life-threatening,
                Bane,seedling,species,,toothed
                Lamb,,species,none known,entire
                Late,,species,none known,
                """).scoredOnly();
        KeyView view = KeyWording.word(compiled, generate(compiled, KeyObjective.FEWEST));
        String sentence = "Dangerous, and not in this key: Bane, other than seedling (life-threatening hazard).";
        assertThat(KeyRenderer.text(view, compiled.study())).contains("! " + sentence);
        assertThat(KeyRenderer.markdown(view, compiled.study())).contains(sentence);
        assertThat(KeyRenderer.html(view, compiled.study())).contains(sentence);
    }

    @Test
    void pagesEscapeNamesAndLoadNothing() {
        CompiledStudy compiled = compiled(TABLE);
        KeyView view = KeyWording.word(compiled, generate(compiled, KeyObjective.FEWEST));
        String html = KeyRenderer.html(view, compiled.study());
        assertThat(html)
                .contains("Aa &lt;one&gt;")
                .contains("Bb &amp; two")
                .contains("default-src 'none'")
                .contains("⚠ serious hazard")
                .contains("hazard not assessed")
                .doesNotContain("<script")
                .doesNotContain("src=");
        assertThat(KeyRenderer.markdown(view, compiled.study()))
                .contains("Aa \\<one\\>")
                .contains("No result is permission");
        assertThat(KeyRenderer.text(view, compiled.study()).lines().filter(l -> l.contains("..")))
                .allMatch(l -> l.length() <= 140);
    }

    @Test
    void failuresAreToldByName() {
        CompiledStudy compiled = compiled(TABLE);
        KeyResult good = generate(compiled, KeyObjective.FEWEST);
        String broken = KeyJson.write(compiled, good).replace("\"cc-three\"", "\"aa-one\"");
        KeyJson.ReadKey read = KeyJson.read(broken.getBytes(StandardCharsets.UTF_8), compiled);
        List<String> told =
                KeyWording.failures(compiled, new SupportPropagationProver().prove(compiled.matrix(), read.key()));
        assertThat(told)
                .anyMatch(t -> t.matches("Couplet \\d, lead \\d: 'Cc three' with .* ends here, but is not named\\."))
                .anyMatch(t -> t.equals("The key never names 'Cc three'."));
    }

    @Test
    void filesThatAreNoKeysAreRefusedWithEveryProblem() {
        CompiledStudy compiled = compiled(TABLE);
        assertThat(KeyJson.read("nonsense".getBytes(StandardCharsets.UTF_8), compiled)
                        .problems())
                .hasSize(1);
        assertThat(KeyJson.read("{\"format\":\"other\"}".getBytes(StandardCharsets.UTF_8), compiled)
                        .problems())
                .first()
                .asString()
                .contains("not a Polyclave key");
        String text = """
                {"format":"polyclave-key","version":1,"couplets":[{"number":1,"from":null,"leads":[
                {"statements":[{"character":"leaf-margin","states":["wavy"],"confirming":false}],"text":"","to":{"rows":["dd"]}},
                {"statements":[{"character":"colour","states":["red"],"confirming":false}],"text":"","to":{}}]}]}
                """;
        assertThat(KeyJson.read(text.getBytes(StandardCharsets.UTF_8), compiled).problems())
                .containsExactly(
                        "Couplet 1, lead 1: 'leaf margin' has no state 'wavy'.",
                        "Couplet 1, lead 1: the matrix has no row 'dd'.",
                        "Couplet 1, lead 2: the matrix has no character 'colour'.",
                        "Couplet 1, lead 2: 'to' must name a couplet or rows.");
    }

    @Test
    void unitsOfTheFileAreConverted() {
        CompiledStudy compiled = compiled(TABLE);
        String text = KeyJson.write(compiled, generate(compiled, KeyObjective.FEWEST));
        String key = """
                {"format":"polyclave-key","version":1,"couplets":[{"number":1,"from":null,"leads":[
                {"statements":[{"character":"leaf-width","min":null,"max":1,"unit":"cm","confirming":false}],"text":"","to":{"couplet":2}},
                {"statements":[{"character":"leaf-width","min":1,"minExclusive":true,"max":null,"unit":"cm","confirming":false}],"text":"","to":{"rows":["bb-two"]}}]},
                {"number":2,"from":1,"leads":[
                {"statements":[{"character":"season","states":["5","6"],"confirming":false}],"text":"","to":{"rows":["aa-one"]}},
                {"statements":[{"character":"season","states":["10"],"confirming":false}],"text":"","to":{"rows":["cc-three"]}}]}]}
                """;
        KeyJson.ReadKey read = KeyJson.read(key.getBytes(StandardCharsets.UTF_8), compiled);
        assertThat(read.problems()).isEmpty();
        assertThat(new SupportPropagationProver()
                        .prove(compiled.matrix(), read.key())
                        .failures())
                .isEmpty();
        assertThat(text).contains("\"completion\" : \"OPTIMAL\"");
    }
}
