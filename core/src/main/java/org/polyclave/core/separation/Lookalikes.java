package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * Which rows sit close together: an order in which lookalikes are neighbours, and groups of them.
 *
 * <p>Rows are joined by group average (R. R. Sokal and C. D. Michener, A statistical method for evaluating systematic
 * relationships, University of Kansas Science Bulletin 38 (1958) 1409–1438), their distance being the number of independent
 * groups that separate them, along chains of nearest neighbours (F. Murtagh, A survey of recent advances in hierarchical
 * clustering algorithms, Computer Journal 26 (1983) 354–359): O(R²) time and space. Of the four ways to lay two clusters side by side
 * the one is taken whose meeting ends are closest (G. Gruvaeus and H. Wainer, Two additions to hierarchical cluster analysis,
 * British Journal of Mathematical and Statistical Psychology 25 (1972) 200–206). Equals go by the order of rows.
 */
public final class Lookalikes {
    /** Rows that fewer independent groups than these part on average are lookalikes: most of their pairs are thin or open. */
    public static final double CLOSE = 2;

    private final PairCounts counts;
    private final List<Merge> merges = new ArrayList<>();
    private final int n;

    /** Two clusters become one; clusters are named by one of their rows. */
    private record Merge(int a, int b, double distance) {}

    public Lookalikes(PairCounts counts) {
        this.counts = counts;
        this.n = counts.rows();
        join();
        merges.sort(Comparator.comparingDouble(Merge::distance));
    }

    private void join() {
        float[][] distance = new float[n][];
        for (int i = 0; i < n; i++) {
            distance[i] = new float[i];
            for (int j = 0; j < i; j++) {
                distance[i][j] = counts.groups(i, j);
            }
        }
        int[] size = new int[n];
        Arrays.fill(size, 1);
        int[] chain = new int[n];
        int length = 0;
        int first = 0;
        for (int left = n; left > 1; ) {
            if (length == 0) {
                while (size[first] == 0) {
                    first++;
                }
                chain[length++] = first;
            }
            int end = chain[length - 1];
            int nearest = nearest(end, length > 1 ? chain[length - 2] : -1, distance, size);
            if (length > 1 && nearest == chain[length - 2]) {
                merge(nearest, end, distance, size);
                length -= 2;
                left--;
            } else {
                chain[length++] = nearest;
            }
        }
    }

    /** @param before is kept if none is nearer, so that the chain ends; −1: none */
    private static int nearest(int of, int before, float[][] distance, int[] size) {
        int nearest = before;
        for (int i = 0; i < size.length; i++) {
            if (i != of && size[i] > 0 && (nearest < 0 || at(distance, of, i) < at(distance, of, nearest))) {
                nearest = i;
            }
        }
        return nearest;
    }

    private static float at(float[][] distance, int a, int b) {
        return a > b ? distance[a][b] : distance[b][a];
    }

    private void merge(int a, int b, float[][] distance, int[] size) {
        merges.add(new Merge(a, b, at(distance, a, b)));
        float share = (float) size[a] / (size[a] + size[b]);
        for (int i = 0; i < size.length; i++) {
            if (i != a && i != b && size[i] > 0) {
                float joined = share * at(distance, a, i) + (1 - share) * at(distance, b, i);
                distance[Math.max(a, i)][Math.min(a, i)] = joined;
            }
        }
        size[a] += size[b];
        size[b] = 0;
    }

    /** All rows, lookalikes side by side. */
    public int[] order() {
        int[][] rows = new int[n][];
        for (int i = 0; i < n; i++) {
            rows[i] = new int[] {i};
        }
        int last = 0;
        for (Merge merge : merges) {
            last = root(rows, merge.a());
            int other = root(rows, merge.b());
            rows[last] = sideBySide(rows[last], rows[other]);
            rows[other] = new int[] {-1, last};
        }
        return n == 0 ? new int[0] : rows[last];
    }

    /** The row under which a cluster goes on after others were joined to it. */
    private static int root(int[][] rows, int of) {
        int at = of;
        while (rows[at][0] < 0) {
            at = rows[at][1];
        }
        return at;
    }

    private int[] sideBySide(int[] a, int[] b) {
        int first = a[0];
        int last = a[a.length - 1];
        int begin = b[0];
        int end = b[b.length - 1];
        int[] ways = {
            counts.groups(last, begin), counts.groups(last, end), counts.groups(first, begin), counts.groups(first, end)
        };
        int best = 0;
        for (int w = 1; w < ways.length; w++) {
            best = ways[w] < ways[best] ? w : best;
        }
        int[] left = best < 2 ? a : reversed(a);
        int[] right = best % 2 == 0 ? b : reversed(b);
        int[] both = Arrays.copyOf(left, left.length + right.length);
        System.arraycopy(right, 0, both, left.length, right.length);
        return both;
    }

    private static int[] reversed(int[] rows) {
        int[] back = new int[rows.length];
        for (int i = 0; i < rows.length; i++) {
            back[i] = rows[rows.length - 1 - i];
        }
        return back;
    }

    /** Groups of two rows and more that fewer than {@link #CLOSE} independent groups part on average, ascending. */
    public List<List<Integer>> groups() {
        int[] of = new int[n];
        for (int i = 0; i < n; i++) {
            of[i] = i;
        }
        for (Merge merge : merges) {
            if (merge.distance() < CLOSE) {
                of[find(of, merge.b())] = find(of, merge.a());
            }
        }
        List<List<Integer>> groups = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            groups.add(new ArrayList<>());
        }
        for (int i = 0; i < n; i++) {
            groups.get(find(of, i)).add(i);
        }
        return groups.stream()
                .filter(g -> g.size() > 1)
                .sorted(Comparator.comparing(g -> g.get(0)))
                .toList();
    }

    private static int find(int[] of, int row) {
        int at = row;
        while (of[at] != at) {
            at = of[at];
        }
        return at;
    }
}
