package org.polyclave.wording.comparison;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.separation.PairSeasonality;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.wording.key.StatementWording;

/**
 * When some rows can be distinguished from one another, or one row from all others, under viewing conditions.
 *
 * @param months twelve, from January
 * @param pairs those that are not firmly separated all year, worst first
 * @param more how many such pairs are left out
 */
public record Calendar(int count, List<MonthView> months, List<CalendarPair> pairs, int more) {
    private static final int MOST_PAIRS = 200;
    private static final int YEAR = 12;

    /** How many pairs are told by two independent groups, by one, and not at all. */
    public record MonthView(int firm, int thin, int open) {}

    /**
     * @param firm months, 1 to 12, in which it is firmly separated
     * @param thin in which one group alone tells it
     * @param durable subjects of characters that tell it all year
     * @param fleeting those that tell it in some months, with these
     * @param next what to check next and when, as a sentence
     */
    public record CalendarPair(
            String first,
            String second,
            List<Integer> firm,
            List<Integer> thin,
            List<String> durable,
            List<FleetingView> fleeting,
            String next) {}

    public record FleetingView(String character, String subject, List<Integer> months) {}

    /** @param rows one row: against every other of another taxon; several: all pairs of them. O(pairs · characters) */
    public static Calendar of(CompiledStudy compiled, ViewingConditions conditions, List<Integer> rows) {
        Matrix matrix = compiled.matrix();
        SeparationContext context = conditions.separation(compiled).in(0);
        StrictSeparation separation = new StrictSeparation(matrix, context);
        int[][] counts = new int[YEAR][3];
        List<CalendarPair> weak = new ArrayList<>();
        int count = 0;
        List<Integer> others = rows.size() == 1 ? conditions.rows(compiled) : rows;
        for (int a : rows) {
            for (int b : others) {
                boolean once = rows.size() == 1 ? a != b : a < b;
                if (once && matrix.row(a).name() != matrix.row(b).name()) {
                    PairSeasonality year = PairSeasonality.of(matrix, separation, a, b);
                    count++;
                    for (int m = 0; m < YEAR; m++) {
                        int kind = (year.firm() >> m & 1) != 0 ? 0 : (year.thin() >> m & 1) != 0 ? 1 : 2;
                        counts[m][kind]++;
                    }
                    if (Integer.bitCount(year.firm()) < YEAR) {
                        weak.add(pair(compiled, a, b, year));
                    }
                }
            }
        }
        weak.sort(Comparator.comparingInt(
                        (CalendarPair p) -> p.firm().size() + p.thin().size())
                .thenComparingInt(p -> p.firm().size()));
        List<MonthView> months = IntStream.range(0, YEAR)
                .mapToObj(m -> new MonthView(counts[m][0], counts[m][1], counts[m][2]))
                .toList();
        int more = Math.max(0, weak.size() - MOST_PAIRS);
        return new Calendar(count, months, weak.subList(0, weak.size() - more), more);
    }

    private static CalendarPair pair(CompiledStudy compiled, int a, int b, PairSeasonality year) {
        List<String> durable = year.signs().stream()
                .filter(PairSeasonality.Sign::isDurable)
                .map(s -> subject(compiled, s.character()))
                .toList();
        List<FleetingView> fleeting = year.signs().stream()
                .filter(s -> !s.isDurable())
                .map(s -> new FleetingView(
                        compiled.characters().get(s.character()).id(),
                        subject(compiled, s.character()),
                        ContrastCards.numbers(s.months())))
                .toList();
        return new CalendarPair(
                compiled.rows().get(a).id(),
                compiled.rows().get(b).id(),
                ContrastCards.numbers(year.firm()),
                ContrastCards.numbers(year.thin()),
                durable,
                fleeting,
                next(durable, fleeting));
    }

    private static String subject(CompiledStudy compiled, int c) {
        return StatementWording.subject(compiled.characters().get(c));
    }

    private static String next(List<String> durable, List<FleetingView> fleeting) {
        if (durable.isEmpty() && fleeting.isEmpty()) {
            return "Under these conditions nothing separates them, in any month.";
        }
        List<String> parts = new ArrayList<>();
        for (String subject : durable) {
            parts.add(ContrastWording.decapitalised(subject) + " (all year)");
        }
        for (FleetingView sign : fleeting) {
            parts.add(ContrastWording.decapitalised(sign.subject()) + " (" + MonthNotation.print(sign.months()) + ")");
        }
        return "Check " + String.join("; ", parts) + ".";
    }
}
