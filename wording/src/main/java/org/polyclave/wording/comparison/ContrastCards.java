package org.polyclave.wording.comparison;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.separation.Difference;
import org.polyclave.core.separation.PairSeasonality;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Strength;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.wording.comparison.ContrastCard.Kind;
import org.polyclave.wording.comparison.ContrastCard.PairView;
import org.polyclave.wording.comparison.ContrastCard.PointView;
import org.polyclave.wording.comparison.ContrastCard.ShownCell;
import org.polyclave.wording.comparison.ContrastCard.ShownView;
import org.polyclave.wording.comparison.ContrastCard.SpanView;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.key.StatementWording;

/** Makes contrast cards of one study in one hand. A card of k rows takes O(k² · characters) time. */
public final class ContrastCards {
    /** A card of more rows is not a card. */
    public static final int MOST_ROWS = 6;

    private static final int ALL_MONTHS = 0xFFF;

    private final CompiledStudy compiled;
    private final ViewingConditions conditions;
    private final Strength strength;
    private final StrictSeparation ever;
    private final Inheritance inheritance;
    private final CardThresholds cuts;

    public ContrastCards(CompiledStudy compiled, ViewingConditions conditions, Strength strength) {
        this.compiled = compiled;
        this.conditions = conditions;
        this.strength = strength;
        ever = new StrictSeparation(compiled.matrix());
        inheritance = new Inheritance(compiled.study().rows(), compiled.scores());
        cuts = new CardThresholds(compiled, inheritance, strength);
    }

    private record Pair(int first, int second, int a, int b) {}

    /**
     * How the rows of one card are told apart.
     *
     * @param gently whether nothing may be smelled, cut or touched
     */
    private record Looks(StrictSeparation now, StrictSeparation anyMonth, boolean gently) {}

    private Looks looks(List<Integer> rows) {
        boolean gently = rows.stream().anyMatch(r -> compiled.matrix().row(r).hazard() != Hazard.NONE_KNOWN);
        SeparationContext context = conditions.separation(compiled, gently);
        return new Looks(
                new StrictSeparation(compiled.matrix(), context),
                new StrictSeparation(compiled.matrix(), context.in(0)),
                gently);
    }

    /** @param rows two to {@value #MOST_ROWS} rows of the matrix */
    public ContrastCard of(List<Integer> rows) {
        List<Pair> pairs = pairs(rows);
        Looks looks = looks(rows);
        List<PointView> points = new ArrayList<>();
        List<PointView> later = new ArrayList<>();
        List<PointView> shared = new ArrayList<>();
        List<ContrastCard.OpenView> unscored = new ArrayList<>();
        for (int c = 0; c < compiled.characters().size(); c++) {
            sort(c, looks, rows, pairs, points, later, shared, unscored);
        }
        Comparator<PointView> byTrust = Comparator.comparing(PointView::kind)
                .thenComparingDouble(p -> -p.bits())
                .thenComparingDouble(PointView::effort);
        points.sort(byTrust);
        later.sort(byTrust);
        List<PairView> views = pairs.stream()
                .map(p -> pair(p, pairs.indexOf(p), looks, later, unscored))
                .toList();
        return new ContrastCard(
                rows.stream().map(r -> KeyWording.name(compiled, r)).toList(),
                views,
                new ContrastWording(compiled, rows).answer(points),
                looks.gently(),
                points,
                later,
                shared,
                unscored);
    }

    private static List<Pair> pairs(List<Integer> rows) {
        return IntStream.range(0, rows.size())
                .boxed()
                .flatMap(i ->
                        IntStream.range(i + 1, rows.size()).mapToObj(j -> new Pair(i, j, rows.get(i), rows.get(j))))
                .toList();
    }

    private void sort(
            int c,
            Looks looks,
            List<Integer> rows,
            List<Pair> pairs,
            List<PointView> points,
            List<PointView> later,
            List<PointView> shared,
            List<ContrastCard.OpenView> unscored) {
        List<Difference> current =
                pairs.stream().map(p -> looks.now().difference(p.a(), p.b(), c)).toList();
        List<Difference> anyTime =
                pairs.stream().map(p -> ever.difference(p.a(), p.b(), c)).toList();
        Optional<Kind> kind = kind(current);
        Optional<Kind> elsewhere = kind(anyTime);
        if (kind.isPresent()) {
            points.add(point(c, rows, pairs, current, kind.get(), null));
        } else if (elsewhere.isPresent()) {
            ViewingConditions.Lack lack =
                    conditions.lack(compiled, c, looks.gently()).orElse(ViewingConditions.Lack.SEASON);
            later.add(point(c, rows, pairs, anyTime, elsewhere.get(), lack));
        } else if (anyTime.stream().allMatch(d -> d == Difference.SHARED)) {
            shared.add(point(c, rows, pairs, anyTime, Kind.SHARED, null));
        } else if (anyTime.contains(Difference.UNKNOWN)) {
            List<Integer> open = IntStream.range(0, rows.size())
                    .filter(i -> compiled.matrix().cell(rows.get(i), c) instanceof Cell.Unknown)
                    .boxed()
                    .toList();
            unscored.add(new ContrastCard.OpenView(
                    compiled.characters().get(c).id(),
                    StatementWording.subject(compiled.characters().get(c)),
                    open));
        }
    }

    private static Optional<Kind> kind(List<Difference> differences) {
        return differences.contains(Difference.STRICT)
                ? Optional.of(Kind.SEPARATES)
                : differences.contains(Difference.SO_FAR)
                        ? Optional.of(Kind.SO_FAR)
                        : differences.contains(Difference.TENDENCY) ? Optional.of(Kind.TENDENCY) : Optional.empty();
    }

    private PointView point(
            int c,
            List<Integer> rows,
            List<Pair> pairs,
            List<Difference> differences,
            Kind kind,
            ViewingConditions.@Nullable Lack lack) {
        StudyCharacter character = compiled.characters().get(c);
        double bits = 0;
        List<Integer> tells = new ArrayList<>();
        for (int p = 0; p < pairs.size(); p++) {
            if (differences.get(p) == Difference.STRICT) {
                tells.add(p);
            }
            if (differences.get(p).separates() || differences.get(p).tends()) {
                bits += strength.bits(pairs.get(p).a(), pairs.get(p).b(), c);
            }
        }
        int months = rows.stream().mapToInt(r -> compiled.matrix().months(r, c)).reduce(ALL_MONTHS, (a, b) -> a & b);
        return new PointView(
                character.id(),
                StatementWording.subject(character),
                character.question(),
                character.plainQuestion(),
                character.organ(),
                character.method(),
                where(character.where()),
                character.note(),
                character.looking().pitfalls(),
                character.effort(),
                character.harms(),
                compiled.matrix().character(c).isHandling(),
                kind,
                bits,
                tells,
                numbers(months),
                lack,
                rows.stream().map(r -> cell(r, c)).toList(),
                cuts.of(c, rows, (first, second) -> differences.get(place(pairs, first, second))));
    }

    private static int place(List<Pair> pairs, int first, int second) {
        return IntStream.range(0, pairs.size())
                .filter(p -> pairs.get(p).first() == first && pairs.get(p).second() == second)
                .findFirst()
                .orElseThrow();
    }

    private static String where(StudyCharacter.Where where) {
        String span = where.from().isEmpty() || where.to().isEmpty() ? "" : where.from() + " to " + where.to();
        return String.join(
                ", ",
                Stream.of(where.position(), where.side(), where.dimension(), span, where.view(), where.magnification())
                        .filter(s -> !s.isEmpty())
                        .toList());
    }

    static List<Integer> numbers(int months) {
        return IntStream.range(0, 12)
                .filter(m -> (months & (1 << m)) != 0)
                .map(m -> m + 1)
                .boxed()
                .toList();
    }

    /** What a row shows for a character, to recognise it by. */
    Recognition.SignView told(int row, int c) {
        StudyCharacter character = compiled.characters().get(c);
        ShownCell cell = cell(row, c);
        return new Recognition.SignView(
                character.id(), StatementWording.subject(character), cell.text(), cell.plain(), character.method());
    }

    private ShownCell cell(int row, int c) {
        StudyCharacter character = compiled.characters().get(c);
        Optional<StudyScore> score = inheritance
                .effective(compiled.rows().get(row).id(), character.id())
                .map(Inheritance.Effective::score);
        Cell cell = compiled.matrix().cell(row, c);
        ScoreValue value = score.map(StudyScore::value).orElseGet(() -> unscored(cell, character));
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        SpanView range = cell instanceof Cell.Numeric n
                ? new SpanView(n.min() / factor, n.low() / factor, n.high() / factor, n.max() / factor)
                : null;
        int individuals = cell instanceof Cell.Numeric n && n.measured().isPresent()
                ? n.measured().get().individuals()
                : 0;
        String unit = range == null || character.unit().isEmpty() ? "" : " " + character.unit();
        return new ShownCell(
                NotationPrinter.print(value, character) + unit,
                NotationPrinter.print(value, plain(character)) + unit,
                cell instanceof Cell.Categorical shown ? states(shown, character) : List.of(),
                range,
                individuals,
                score.map(StudyScore::doubtful).orElse(false),
                score.map(StudyScore::source).orElse(""));
    }

    /** A hybrid's unscored cell admits what its parents show. */
    private static ScoreValue unscored(Cell cell, StudyCharacter character) {
        if (cell instanceof Cell.Numeric n) {
            return new ScoreValue.Range(n.min(), n.low(), n.high(), n.max());
        }
        if (cell instanceof Cell.Categorical shown && character.type() != CharacterType.MONTHS) {
            List<ScoreValue.Shown> states = IntStream.range(
                            0, character.states().size())
                    .filter(s -> (shown.support() & (1 << s)) != 0)
                    .mapToObj(
                            s -> new ScoreValue.Shown(character.states().get(s).id(), ScoreValue.Frequency.PLAIN))
                    .toList();
            return new ScoreValue.States(states, ScoreValue.Combination.EITHER);
        }
        return new ScoreValue.Unknown();
    }

    private static StudyCharacter plain(StudyCharacter character) {
        return character.withStates(character.states().stream()
                .map(s -> s.plain().isEmpty() ? s : new StudyState(s.id(), s.plain(), s.plain(), s.definition()))
                .toList());
    }

    private static List<ShownView> states(Cell.Categorical shown, StudyCharacter character) {
        List<ShownView> states = new ArrayList<>();
        for (int s = 0; s < character.states().size(); s++) {
            if ((shown.readable() & (1 << s)) != 0) {
                StudyState state = character.states().get(s);
                states.add(new ShownView(
                        state.label(),
                        state.plain().isEmpty() ? state.label() : state.plain(),
                        state.picture(),
                        (shown.support() & (1 << s)) == 0 ? 0 : shown.shares()[s]));
            }
        }
        return states;
    }

    private PairView pair(
            Pair pair, int index, Looks looks, List<PointView> later, List<ContrastCard.OpenView> unscored) {
        PairSeasonality year = PairSeasonality.of(compiled.matrix(), looks.anyMonth(), pair.a(), pair.b());
        return new PairView(
                pair.first(),
                pair.second(),
                looks.now().verdict(pair.a(), pair.b()),
                strength.bits(pair.a(), pair.b(), looks.now()),
                numbers(year.firm()),
                numbers(year.thin()),
                ContrastWording.settles(
                        looks.now().verdict(pair.a(), pair.b()),
                        index,
                        news(pair, looks, later),
                        safe(unscored, looks)));
    }

    /** What would add another kind of evidence to what tells a pair apart now. */
    private List<PointView> news(Pair pair, Looks looks, List<PointView> later) {
        Set<Integer> known = looks.now().separating(pair.a(), pair.b()).stream()
                .map(this::group)
                .collect(Collectors.toSet());
        return later.stream()
                .filter(p -> !known.contains(group(compiled.characterIndex(p.character()))))
                .toList();
    }

    private int group(int character) {
        return compiled.matrix().character(character).group();
    }

    private List<ContrastCard.OpenView> safe(List<ContrastCard.OpenView> unscored, Looks looks) {
        return unscored.stream()
                .filter(o -> !looks.gently()
                        || !compiled.matrix()
                                .character(compiled.characterIndex(o.character()))
                                .isHandling())
                .toList();
    }
}
