package org.polyclave.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.separation.PairVerdicts;
import org.polyclave.core.separation.Strength;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.core.separation.Verdict;
import org.polyclave.files.table.TableReader;
import org.polyclave.print.card.ContrastPrint;
import org.polyclave.print.card.PrintedPicture;
import org.polyclave.study.comparison.Contrasts;
import org.polyclave.study.comparison.Contrasts.Kind;
import org.polyclave.study.comparison.PairJudgement;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.wording.comparison.Calendar;
import org.polyclave.wording.comparison.ContrastCard;
import org.polyclave.wording.comparison.ContrastCard.PointView;
import org.polyclave.wording.comparison.ContrastCards;
import org.polyclave.wording.comparison.Recognition;
import org.polyclave.wording.comparison.Recognitions;
import org.polyclave.wording.key.StatementWording;

/** What opens on the demo's studies when something is missing, what settles it, and what must never be suggested. */
final class TellingApartTest {
    private static final CompiledStudy TUSSOCKS = compiled("marrowmere-tussocks");
    private static final String TWINS = "tarnella-praecox / tarnella-serotina";

    private static CompiledStudy compiled(String slug) {
        return studies().filter(s -> s.study().slug().equals(slug)).findFirst().orElseThrow();
    }

    static Stream<CompiledStudy> studies() {
        return DemoStudies.all().stream().map(StudyCompiler::compile);
    }

    private static ViewingConditions viewing(Set<Integer> months, Set<String> organs, Set<String> methods) {
        return new ViewingConditions(new KeyContext(months, organs, methods), Set.of(), Observer.TRAINED, false);
    }

    /** Everything in the hand but one part or means. */
    private static Set<String> allBut(String missing, java.util.function.Function<StudyCharacter, String> what) {
        return TUSSOCKS.characters().stream()
                .map(c -> what.apply(c).toLowerCase(Locale.ROOT))
                .filter(v -> !v.isEmpty() && !v.equals(missing))
                .collect(Collectors.toSet());
    }

    private static Set<String> told(ViewingConditions conditions, Verdict... wanted) {
        Matrix matrix = TUSSOCKS.matrix();
        PairVerdicts verdicts = PairVerdicts.of(matrix, conditions.separation(TUSSOCKS));
        Set<String> pairs = new HashSet<>();
        for (int a = 0; a < matrix.rowCount(); a++) {
            for (int b = a + 1; b < matrix.rowCount(); b++) {
                boolean counts = matrix.row(a).name() != matrix.row(b).name();
                if (counts && Set.of(wanted).contains(verdicts.verdict(a, b))) {
                    pairs.add(Stream.of(a, b)
                            .map(r -> TUSSOCKS.rows().get(r).id())
                            .sorted()
                            .collect(Collectors.joining(" / ")));
                }
            }
        }
        return pairs;
    }

    private static ContrastCard card(CompiledStudy compiled, ViewingConditions conditions, String... rows) {
        return new ContrastCards(compiled, conditions, new Strength(compiled.matrix(), conditions.observer()))
                .of(Stream.of(rows).map(compiled::rowIndex).toList());
    }

    private static String settles(ViewingConditions conditions, String... rows) {
        return card(TUSSOCKS, conditions, rows).pairs().get(0).settles();
    }

    @Test
    void withoutFruitTheTwinsOfTheFruitAreOpenAndTheCardSendsToTheFruit() {
        ViewingConditions fruitless = viewing(Set.of(), allBut("fruit", StudyCharacter::organ), Set.of());
        assertThat(told(ViewingConditions.EVERYTHING, Verdict.FIRM)).contains(TWINS);
        assertThat(told(fruitless, Verdict.NONE, Verdict.TENDENCY)).contains(TWINS);
        assertThat(settles(fruitless, "tarnella-praecox", "tarnella-serotina"))
                .startsWith("Nothing that can be seen now separates them.")
                .contains("on the fruit, Jul–Oct: fruit length");
    }

    @Test
    void inJanuaryTheyAreOpenAndTheCardSaysWhenToComeBack() {
        ViewingConditions january = viewing(Set.of(1), Set.of(), Set.of());
        assertThat(told(january, Verdict.NONE, Verdict.TENDENCY))
                .contains(TWINS)
                .hasSizeGreaterThan(told(ViewingConditions.EVERYTHING, Verdict.NONE, Verdict.TENDENCY)
                        .size());
        assertThat(settles(january, "tarnella-praecox", "tarnella-serotina"))
                .contains("What will: Jul–Oct: fruit length");
        assertThat(card(TUSSOCKS, january, "brimora-dioica-male", "brimora-paludosa-male")
                        .pairs()
                        .get(0))
                .satisfies(pair -> {
                    assertThat(pair.verdict()).isEqualTo(Verdict.NONE);
                    assertThat(pair.settles()).contains("May–Jul: flower anther colour");
                    assertThat(pair.thin()).containsExactly(5, 6, 7);
                });
    }

    @Test
    void withoutALensPairsOpenThatALensTells() {
        ViewingConditions lensless = viewing(Set.of(), Set.of(), allBut("lens", StudyCharacter::method));
        Set<String> opened = new HashSet<>(told(lensless, Verdict.NONE, Verdict.TENDENCY, Verdict.THIN));
        opened.removeAll(told(ViewingConditions.EVERYTHING, Verdict.NONE, Verdict.TENDENCY, Verdict.THIN));
        assertThat(opened).isNotEmpty();
        for (String pair : opened) {
            String[] rows = pair.split(" / ");
            ContrastCard card = card(TUSSOCKS, lensless, rows);
            assertThat(card.later())
                    .as(pair)
                    .anyMatch(p -> p.lack() == ViewingConditions.Lack.METHOD
                            && p.method().equals("lens"));
            Set<Integer> known = card.points().stream()
                    .filter(p -> p.kind() == Kind.SEPARATES)
                    .map(p -> group(p.character()))
                    .collect(Collectors.toSet());
            boolean another = card.later().stream()
                    .anyMatch(p -> p.kind() == Kind.SEPARATES
                            && p.lack() == ViewingConditions.Lack.METHOD
                            && !known.contains(group(p.character())));
            assertThat(card.pairs().get(0).settles().contains("by lens"))
                    .as(pair)
                    .isEqualTo(another);
        }
    }

    private static int group(String character) {
        return TUSSOCKS.matrix().character(TUSSOCKS.characterIndex(character)).group();
    }

    /** Contexts in which every pair of every study is looked at. */
    private static List<ViewingConditions> hands() {
        return List.of(
                ViewingConditions.EVERYTHING,
                viewing(Set.of(1), Set.of(), Set.of()),
                viewing(Set.of(), Set.of(), Set.of("eye")),
                new ViewingConditions(KeyContext.EVERYTHING, Set.of(), Observer.NOVICE, true));
    }

    @ParameterizedTest
    @MethodSource("studies")
    void everyCardSaysWhatTheMatrixSaysAndEachCharacterOnce(CompiledStudy compiled) {
        Strength strength = new Strength(compiled.matrix(), Observer.TRAINED);
        for (ViewingConditions conditions : hands()) {
            PairJudgement map = PairJudgement.of(
                    compiled, conditions, PairVerdicts.of(compiled.matrix(), conditions.separation(compiled)));
            Contrasts contrasts = new Contrasts(
                    compiled,
                    conditions,
                    strength,
                    new Inheritance(compiled.study().rows(), compiled.scores()));
            ContrastCards cards = new ContrastCards(compiled, conditions, strength);
            for (int a = 0; a < compiled.rows().size(); a++) {
                for (int b = 0; b < a; b++) {
                    ContrastCard card = cards.of(List.of(a, b));
                    Verdict verdict = card.pairs().get(0).verdict();
                    // One pair has one verdict, whoever shows it.
                    assertThat(verdict).isEqualTo(map.verdict(a, b));
                    Verdict listed = contrasts.of(List.of(a, b)).pairs().get(0).listed();
                    if (!card.gentle() && !conditions.safely()) {
                        assertThat(listed).isEqualTo(verdict);
                    }
                    boolean separated = card.points().stream().anyMatch(p -> p.kind() == Kind.SEPARATES);
                    assertThat(separated).isEqualTo(listed.compareTo(Verdict.THIN) >= 0);
                    assertThat(card.answer().technical().isEmpty()).isEqualTo(!separated);
                    String settles = card.pairs().get(0).settles();
                    assertThat(settles.isEmpty()).isEqualTo(verdict == Verdict.FIRM && listed == Verdict.FIRM);
                    if (separated) {
                        assertThat(settles)
                                .doesNotContain("Nothing that can be seen")
                                .doesNotContain("Nothing scored");
                    }
                    if (card.later().stream().anyMatch(p -> p.kind() == Kind.SEPARATES)) {
                        assertThat(settles).doesNotContain("Nothing scored");
                    }
                    List<String> named = Stream.of(card.points(), card.later(), card.shared())
                            .flatMap(List::stream)
                            .map(PointView::character)
                            .collect(Collectors.toCollection(ArrayList::new));
                    card.unscored().forEach(o -> named.add(o.character()));
                    // Whatever is compared is said, of hybrids without scores of their own, too.
                    assertThat(card.points())
                            .flatMap(PointView::cells)
                            .noneMatch(c -> c.text().startsWith("?"));
                    assertThat(named).doesNotHaveDuplicates();
                }
            }
        }
    }

    @Test
    void rangesThatTouchOrOverlapAreNotTheSame() {
        CompiledStudy compiled = StudyCompiler.compile(
                TableReader.read("""
                        taxon,#hazard,touching,overlapping,alike,colour
                        #type,,length,length,length,states
                        Aa,none known,5–7,5–9,5–9,red
                        Bb,none known,7–9,7–13,5–10,red
                        """.getBytes(StandardCharsets.UTF_8), "t.csv").study());
        ContrastCard card = new ContrastCards(
                        compiled, ViewingConditions.EVERYTHING, new Strength(compiled.matrix(), Observer.TRAINED))
                .of(List.of(0, 1));
        assertThat(card.points())
                .extracting(PointView::character, PointView::kind)
                .containsExactlyInAnyOrder(tuple("touching", Kind.TENDENCY), tuple("overlapping", Kind.TENDENCY));
        assertThat(card.points()).allSatisfy(p -> assertThat(p.cuts()).hasSize(1));
        assertThat(card.shared()).extracting(PointView::character).containsExactlyInAnyOrder("alike", "colour");
        assertThat(card.pairs().get(0).verdict()).isEqualTo(Verdict.NONE);
    }

    @ParameterizedTest
    @MethodSource("studies")
    void whereSomethingMayHarmNothingIsSuggestedThatTakesTouchingIt(CompiledStudy compiled) {
        List<StudyCharacter> hazardous = IntStream.range(
                        0, compiled.characters().size())
                .filter(c -> compiled.matrix().character(c).isHandling())
                .mapToObj(compiled.characters()::get)
                .toList();
        Strength strength = new Strength(compiled.matrix(), Observer.TRAINED);
        int guarded = 0;
        for (ViewingConditions conditions : hands()) {
            ContrastCards cards = new ContrastCards(compiled, conditions, strength);
            Recognitions recognitions = new Recognitions(compiled, conditions, cards);
            for (int a = 0; a < compiled.rows().size(); a++) {
                Recognition recognition = recognitions.of(a);
                assertThat(recognition.points())
                        .noneMatch(p -> hazardous.stream().anyMatch(c -> c.id().equals(p.character())));
                for (int b = 0; b < a; b++) {
                    boolean may = Stream.of(a, b)
                            .anyMatch(r -> compiled.matrix().row(r).hazard() != Hazard.NONE_KNOWN);
                    ContrastCard card = may ? cards.of(List.of(a, b)) : null;
                    if (card != null) {
                        guarded++;
                        assertThat(card.points()).noneMatch(PointView::hazardous);
                        List<String> suggested = Stream.of(
                                        card.pairs().get(0).settles().split("[:;,.]"))
                                .map(String::strip)
                                .toList();
                        for (StudyCharacter c : hazardous) {
                            assertThat(suggested).noneMatch(StatementWording.subject(c)::equalsIgnoreCase);
                        }
                        assertThat(card.later())
                                .allMatch(p -> !p.hazardous() || p.lack() == ViewingConditions.Lack.UNSAFE);
                    }
                }
            }
        }
        assertThat(guarded).as("the demo has dangers").isPositive();
    }

    @Test
    void theYearOfATaxonCountsItsRivalsMonthByMonth() {
        int row = TUSSOCKS.rowIndex("tarnella-praecox");
        Calendar year = Calendar.of(TUSSOCKS, ViewingConditions.EVERYTHING, List.of(row));
        Matrix matrix = TUSSOCKS.matrix();
        for (int month = 1; month <= 12; month++) {
            PairVerdicts verdicts = PairVerdicts.of(
                    matrix, viewing(Set.of(month), Set.of(), Set.of()).separation(TUSSOCKS));
            long open = IntStream.range(0, matrix.rowCount())
                    .filter(i -> matrix.row(i).name() != matrix.row(row).name()
                            && verdicts.verdict(row, i).compareTo(Verdict.THIN) < 0)
                    .count();
            assertThat(year.months().get(month - 1).open())
                    .as("month %d", month)
                    .isEqualTo((int) open);
        }
        assertThat(year.pairs())
                .filteredOn(p -> p.second().equals("tarnella-serotina"))
                .singleElement()
                .satisfies(p -> assertThat(p.next()).contains("fruit length (Jul–Oct)"));
    }

    @Test
    void paperHoldsTheDangerTheContrastAndTheCautionOnOnePage() throws IOException {
        ContrastCard card = card(
                TUSSOCKS,
                ViewingConditions.EVERYTHING,
                "ostrivia-fallax-spring-shoot",
                "tarnella-vadosa-subsp-collina",
                "ostrivia-mitis");
        ContrastPrint.Imprint imprint =
                new ContrastPrint.Imprint("Tussocks <of> Marrowmere", "2031-05-04", false, TellingApartTest::picture);
        for (byte[] file : List.of(ContrastPrint.plate(card, imprint), ContrastPrint.wallet(card, imprint))) {
            try (PDDocument pdf = Loader.loadPDF(file)) {
                String text = new PDFTextStripper().getText(pdf).replaceAll("\\s+", " ");
                assertThat(pdf.getNumberOfPages()).isEqualTo(1);
                assertThat(text)
                        .contains("Ostrivia fallax", "life-threatening hazard", "Tussocks <of> Marrowmere, 2031-05-04")
                        .contains("not permission to eat, touch or collect")
                        .contains(card.points().get(0).subject())
                        .contains("wash hands after touching");
            }
        }
    }

    @Test
    void paperSaysOnceThatNothingSeparatesAPairNow() throws IOException {
        ContrastCard card =
                card(TUSSOCKS, viewing(Set.of(1), Set.of(), Set.of()), "tarnella-praecox", "tarnella-serotina");
        ContrastPrint.Imprint imprint = new ContrastPrint.Imprint("", "", false, TellingApartTest::picture);
        for (byte[] file : List.of(ContrastPrint.plate(card, imprint), ContrastPrint.wallet(card, imprint))) {
            try (PDDocument pdf = Loader.loadPDF(file)) {
                String text = new PDFTextStripper().getText(pdf).replaceAll("\\s+", " ");
                assertThat(text)
                        .containsOnlyOnce("Nothing that can be seen now separates them")
                        .contains("What will:");
            }
        }
    }

    private static Optional<PrintedPicture> picture(String id) {
        return TUSSOCKS.study().pictures().stream()
                .filter(p -> p.id().equals(id))
                .findFirst()
                .map(p -> new PrintedPicture(
                        p.mediaType(),
                        p.width(),
                        p.height(),
                        Base64.getDecoder().decode(p.data())));
    }

    @Test
    void aPlateShowsEveryPictureOfWhatTheTaxaShow() throws IOException {
        ContrastCard card =
                card(TUSSOCKS, ViewingConditions.EVERYTHING, "ostrivia-mitis", "tarnella-vadosa-subsp-collina");
        Set<String> asked = new HashSet<>();
        byte[] plate = ContrastPrint.plate(card, new ContrastPrint.Imprint("", "", false, id -> {
            asked.add(id);
            return picture(id);
        }));
        try (PDDocument pdf = Loader.loadPDF(plate)) {
            long drawn = pdf.getPage(0)
                    .getResources()
                    .getXObjectNames()
                    .spliterator()
                    .getExactSizeIfKnown();
            assertThat(pdf.getNumberOfPages()).isEqualTo(1);
            assertThat(asked).hasSizeGreaterThan(4);
            assertThat(drawn).isGreaterThanOrEqualTo(asked.size());
        }
    }

    private static PointView point(ContrastCard card, String character) {
        return card.points().stream()
                .filter(p -> p.character().equals(character))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void measuredIndividualsSayWhereToCutAndRecordedRangesWhereNoneWereMeasured() {
        String[] three = {"tarnella-praecox", "tarnella-serotina", "ostrivia-mitis"};
        CompiledStudy measured = DemoStudies.withSpecimens().stream()
                .filter(s -> s.slug().equals(TUSSOCKS.study().slug()))
                .map(StudyCompiler::compile)
                .findFirst()
                .orElseThrow();
        PointView fruit = point(card(measured, ViewingConditions.EVERYTHING, three), "fruit-length");
        // Between the twins, whose ranges do not meet, by the individuals that were measured.
        assertThat(fruit.cuts()).filteredOn(c -> c.below() == 0).singleElement().satisfies(cut -> {
            assertThat(cut.below()).isZero();
            assertThat(cut.above()).isEqualTo(1);
            assertThat(cut.individuals()).isGreaterThanOrEqualTo(10);
            assertThat(cut.at()).isBetween(2.65, 3.08);
            assertThat(cut.from()).isNotNull().isLessThan(cut.at());
            assertThat(cut.to()).isNotNull().isGreaterThan(cut.at());
        });
        assertThat(point(card(TUSSOCKS, ViewingConditions.EVERYTHING, three), "fruit-length")
                        .cuts())
                .filteredOn(c -> c.below() == 0)
                .singleElement()
                .satisfies(cut -> {
                    assertThat(cut.individuals()).isZero();
                    assertThat(cut.at()).isBetween(2.65, 3.08);
                    assertThat(cut.from()).isNull();
                });
    }

    /** One sign never rules a danger out: whoever recognises a harmless row has two kinds against each dangerous one. */
    @ParameterizedTest
    @MethodSource("studies")
    void recognisingAHarmlessRowRulesOutEachDangerByTwoKindsOrSaysSo(CompiledStudy compiled) {
        Matrix matrix = compiled.matrix();
        ViewingConditions conditions = ViewingConditions.EVERYTHING;
        ContrastCards cards = new ContrastCards(compiled, conditions, new Strength(matrix, conditions.observer()));
        Recognitions recognitions = new Recognitions(compiled, conditions, cards);
        StrictSeparation separation = new StrictSeparation(matrix, conditions.recognising(compiled));
        int pairs = 0;
        for (int row = 0; row < matrix.rowCount(); row++) {
            Recognition found = recognitions.of(row);
            Set<Integer> looked = found.points().stream()
                    .map(p -> compiled.characterIndex(p.character()))
                    .collect(Collectors.toSet());
            for (int danger = 0; danger < matrix.rowCount(); danger++) {
                String name = compiled.rows().get(danger).name();
                if (matrix.row(danger).hazard().isDangerous() && found.dangers().contains(name)) {
                    int groups = separation.groups(separation.separating(row, danger).stream()
                            .filter(looked::contains)
                            .toList());
                    boolean said =
                            found.thin().contains(name) || found.notTold().contains(name);
                    assertThat(groups >= 2 || said)
                            .as(found.row() + " / " + name)
                            .isTrue();
                    pairs++;
                }
            }
        }
        assertThat(pairs).isPositive();
    }
}
