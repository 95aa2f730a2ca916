package org.polyclave.study.comparison;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.separation.Difference;
import org.polyclave.core.separation.PairSeasonality;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Strength;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.core.separation.Verdict;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;

/** What separates a few rows of a study under viewing conditions. Of k rows it takes O(k² · characters) time. */
public final class Contrasts {
    private static final int ALL_MONTHS = 0xFFF;

    private final CompiledStudy compiled;
    private final ViewingConditions conditions;
    private final Strength strength;
    private final StrictSeparation ever;
    private final CardThresholds thresholds;
    /** What can be seen now, also by handling: the verdict is the map's, and what may harm is listed apart. */
    private final StrictSeparation all;

    private final StrictSeparation allYear;
    private final PairJudgement judgement;

    public Contrasts(CompiledStudy compiled, ViewingConditions conditions, Strength strength, Inheritance inheritance) {
        this.compiled = compiled;
        this.conditions = conditions;
        this.strength = strength;
        ever = new StrictSeparation(compiled.matrix());
        thresholds = new CardThresholds(compiled, inheritance, strength);
        SeparationContext context = conditions.separation(compiled);
        all = new StrictSeparation(compiled.matrix(), context);
        allYear = new StrictSeparation(compiled.matrix(), context.in(0));
        judgement = PairJudgement.of(compiled, conditions, all::verdict);
    }

    /** How sure a point is. */
    public enum Kind {
        /** No reader who sees it can take one for the other. */
        SEPARATES,
        /** Measured on too few to be sure. */
        SO_FAR,
        /** It differs, but its author lets it only confirm. */
        CONFIRMS,
        /** Usually so. */
        TENDENCY,
        SHARED
    }

    /** Two rows, by their places among those that are compared and by their index. */
    public record Pair(int first, int second, int a, int b) {}

    /**
     * A character that is known of all the rows.
     *
     * @param bits what it tells, over all pairs
     * @param tells indices of the pairs that it separates for sure
     * @param months bit set of those in which all rows show it
     * @param lack why it does not count now; null where it does
     */
    public record Point(
            int character,
            Kind kind,
            double bits,
            List<Integer> tells,
            int months,
            ViewingConditions.@Nullable Lack lack,
            List<CardThresholds.Cut> cuts) {}

    /** A character that is not known of these places. */
    public record Unscored(int character, List<Integer> places) {}

    /**
     * How a pair stands.
     *
     * @param verdict the one that the map of all pairs shows
     * @param listed the verdict of the points that are listed as seen now: without what takes handling that may harm, but with
     *     what does not count against a danger
     * @param year when it is separated
     * @param later what would add evidence that is independent of what separates it now
     */
    public record Standing(
            Pair pair, Verdict verdict, Verdict listed, double bits, PairSeasonality year, List<Point> later) {}

    /**
     * @param gently whether nothing may be smelled, cut or touched
     * @param points what separates them now, or tends to
     * @param later what does so, but not under these conditions
     * @param shared what is the same in all
     */
    public record Contrast(
            boolean gently,
            List<Standing> pairs,
            List<Point> points,
            List<Point> later,
            List<Point> shared,
            List<Unscored> unscored) {}

    /** How the rows of one contrast are separated. */
    private record Seen(List<Integer> rows, List<Pair> pairs, StrictSeparation now, boolean gently) {}

    /** @param rows two or more rows of the matrix */
    public Contrast of(List<Integer> rows) {
        List<Pair> pairs = pairs(rows);
        boolean gently = rows.stream().anyMatch(r -> compiled.matrix().row(r).hazard() != Hazard.NONE_KNOWN);
        SeparationContext context = conditions.separation(compiled, gently);
        Seen seen = new Seen(rows, pairs, new StrictSeparation(compiled.matrix(), context), gently);
        Contrast found = new Contrast(
                gently, new ArrayList<>(), new ArrayList<>(), new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        for (int c = 0; c < compiled.characters().size(); c++) {
            sort(c, seen, found);
        }
        Comparator<Point> byTrust = Comparator.comparing(Point::kind)
                .thenComparingDouble(p -> -p.bits())
                .thenComparingDouble(
                        p -> compiled.characters().get(p.character()).effort());
        found.points().sort(byTrust);
        found.later().sort(byTrust);
        for (Pair pair : pairs) {
            found.pairs()
                    .add(new Standing(
                            pair,
                            judgement.verdict(pair.a(), pair.b()),
                            seen.now().verdict(pair.a(), pair.b()),
                            strength.bits(pair.a(), pair.b(), all),
                            PairSeasonality.of(compiled.matrix(), allYear, pair.a(), pair.b()),
                            independent(pair, seen, found.later())));
        }
        return found;
    }

    private static List<Pair> pairs(List<Integer> rows) {
        return IntStream.range(0, rows.size())
                .boxed()
                .flatMap(i ->
                        IntStream.range(i + 1, rows.size()).mapToObj(j -> new Pair(i, j, rows.get(i), rows.get(j))))
                .toList();
    }

    private void sort(int c, Seen seen, Contrast found) {
        List<Difference> current =
                seen.pairs().stream().map(p -> between(seen.now(), p, c)).toList();
        List<Difference> anyTime =
                seen.pairs().stream().map(p -> between(ever, p, c)).toList();
        Optional<Kind> kind = kind(current);
        Optional<Kind> elsewhere = kind(anyTime);
        if (kind.isPresent()) {
            found.points().add(point(c, seen, current, kind.get(), null));
        } else if (elsewhere.isPresent()) {
            ViewingConditions.Lack lack =
                    conditions.lack(compiled, c, seen.gently()).orElse(ViewingConditions.Lack.SEASON);
            found.later().add(point(c, seen, anyTime, elsewhere.get(), lack));
        } else if (anyTime.stream().allMatch(d -> d == Difference.SHARED)) {
            found.shared().add(point(c, seen, anyTime, Kind.SHARED, null));
        } else if (anyTime.contains(Difference.UNKNOWN)) {
            List<Integer> open = IntStream.range(0, seen.rows().size())
                    .filter(i -> compiled.matrix().cell(seen.rows().get(i), c) instanceof Cell.Unknown)
                    .boxed()
                    .toList();
            found.unscored().add(new Unscored(c, open));
        }
    }

    /** Ranges that touch or overlap are not the same: where a cut between them tells something, that is said. */
    private Difference between(StrictSeparation separation, Pair pair, int c) {
        Difference found = separation.difference(pair.a(), pair.b(), c);
        return found == Difference.SHARED && thresholds.tells(c, pair.a(), pair.b()) ? Difference.TENDENCY : found;
    }

    /** By the surest of the pairs. */
    private static Optional<Kind> kind(List<Difference> differences) {
        return differences.stream().min(Comparator.naturalOrder()).flatMap(d -> switch (d) {
            case STRICT -> Optional.of(Kind.SEPARATES);
            case SO_FAR -> Optional.of(Kind.SO_FAR);
            case CONFIRMS -> Optional.of(Kind.CONFIRMS);
            case TENDENCY -> Optional.of(Kind.TENDENCY);
            case SHARED, UNKNOWN, NOT_APPLICABLE, OUT_OF_CONTEXT -> Optional.empty();
        });
    }

    private Point point(
            int c, Seen seen, List<Difference> differences, Kind kind, ViewingConditions.@Nullable Lack lack) {
        double bits = 0;
        List<Integer> tells = new ArrayList<>();
        for (int p = 0; p < seen.pairs().size(); p++) {
            Pair pair = seen.pairs().get(p);
            if (differences.get(p) == Difference.STRICT) {
                tells.add(p);
            }
            if (differences.get(p).separates() || differences.get(p).tends()) {
                bits += strength.bits(pair.a(), pair.b(), c);
            }
        }
        int months = seen.rows().stream()
                .mapToInt(r -> compiled.matrix().months(r, c))
                .reduce(ALL_MONTHS, (a, b) -> a & b);
        return new Point(
                c,
                kind,
                bits,
                tells,
                months,
                lack,
                thresholds.of(c, seen.rows(), (first, second) -> differences.get(place(seen.pairs(), first, second))));
    }

    private static int place(List<Pair> pairs, int first, int second) {
        return IntStream.range(0, pairs.size())
                .filter(p -> pairs.get(p).first() == first && pairs.get(p).second() == second)
                .findFirst()
                .orElseThrow();
    }

    private List<Point> independent(Pair pair, Seen seen, List<Point> later) {
        Set<Integer> known = seen.now().separating(pair.a(), pair.b()).stream()
                .map(this::group)
                .collect(Collectors.toSet());
        return later.stream().filter(p -> !known.contains(group(p.character()))).toList();
    }

    private int group(int character) {
        return compiled.matrix().character(character).group();
    }
}
