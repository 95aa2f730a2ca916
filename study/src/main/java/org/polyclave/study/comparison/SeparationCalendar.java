package org.polyclave.study.comparison;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.separation.PairSeasonality;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.study.compile.CompiledStudy;

/**
 * In which months some rows can be separated from one another, or one row from all others, under viewing conditions.
 *
 * @param count how many pairs there are
 * @param months twelve, from January
 * @param weak pairs that are not firmly separated all year, worst first
 */
public record SeparationCalendar(int count, List<Month> months, List<Pair> weak) {
    private static final int YEAR = 12;

    /** How many pairs are separated by two independent groups, by one, and not at all. */
    public record Month(int firm, int thin, int open) {}

    /** Two rows and their year. */
    public record Pair(int a, int b, PairSeasonality year) {}

    /** @param rows one row: against every other of another taxon; several: all pairs of them. O(pairs · characters) */
    public static SeparationCalendar of(CompiledStudy compiled, ViewingConditions conditions, List<Integer> rows) {
        Matrix matrix = compiled.matrix();
        StrictSeparation separation =
                new StrictSeparation(matrix, conditions.separation(compiled).in(0));
        int[][] counts = new int[YEAR][3];
        List<Pair> weak = new ArrayList<>();
        int count = 0;
        List<Integer> others = rows.size() == 1 ? conditions.rows(compiled) : rows;
        for (int a : rows) {
            for (int b : others) {
                boolean once = rows.size() == 1 ? a != b : a < b;
                if (once && !matrix.sharesName(a, b)) {
                    PairSeasonality year = PairSeasonality.of(matrix, separation, a, b);
                    count++;
                    for (int m = 0; m < YEAR; m++) {
                        int kind = (year.firm() >> m & 1) != 0 ? 0 : (year.thin() >> m & 1) != 0 ? 1 : 2;
                        counts[m][kind]++;
                    }
                    if (Integer.bitCount(year.firm()) < YEAR) {
                        weak.add(new Pair(a, b, year));
                    }
                }
            }
        }
        weak.sort(Comparator.comparingInt((Pair p) -> Integer.bitCount(p.year().firm())
                        + Integer.bitCount(p.year().thin()))
                .thenComparingInt(p -> Integer.bitCount(p.year().firm())));
        List<Month> months = IntStream.range(0, YEAR)
                .mapToObj(m -> new Month(counts[m][0], counts[m][1], counts[m][2]))
                .toList();
        return new SeparationCalendar(count, months, weak);
    }
}
