package org.polyclave.core.separation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

/** How far rows are apart, which are neighbours, and which form groups. */
class LookalikesTest {
    static LongStream seeds() {
        return LongStream.rangeClosed(1, 40);
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void countsAreTheGroupsThatSeparateEachPair(long seed) {
        Random random = new Random(seed);
        Matrix matrix =
                SeparationCases.matrix(random, 2 + random.nextInt(seed % 5 == 0 ? 150 : 30), 1 + random.nextInt(14));
        SeparationContext context = SeparationCases.context(random, matrix.characterCount());
        PairCounts counts = PairCounts.of(matrix, context);
        StrictSeparation pairs = new StrictSeparation(matrix, context);
        for (int a = 0; a < matrix.rowCount(); a++) {
            for (int b = 0; b < matrix.rowCount(); b++) {
                if (a != b) {
                    assertThat(counts.groups(a, b))
                            .as("%d and %d", a, b)
                            .isEqualTo(pairs.groups(pairs.separating(a, b)));
                }
            }
        }
        int[] order = new Lookalikes(counts).order();
        assertThat(Arrays.stream(order).sorted().toArray())
                .as("every row has one place")
                .isEqualTo(IntStream.range(0, matrix.rowCount()).toArray());
    }

    @Test
    void countsStopWhereAByteIsFull() {
        Matrix many = binary(new String[] {"0".repeat(300), "1".repeat(300)});
        assertThat(PairCounts.of(many, SeparationContext.EVERYTHING).groups(0, 1))
                .isEqualTo(PairCounts.MOST);
    }

    /** Each character a group of its own. */
    private static Matrix binary(String[] rows) {
        int count = rows[0].length();
        List<MatrixCharacter> characters = IntStream.range(0, count)
                .mapToObj(c -> MatrixCharacter.of("c" + c, CharacterType.STATES, 2, c))
                .toList();
        List<MatrixRow> taxa = IntStream.range(0, rows.length)
                .mapToObj(i -> new MatrixRow("r" + i, i, i, 1, Hazard.NONE_KNOWN))
                .toList();
        Cell[][] cells = new Cell[rows.length][count];
        for (int i = 0; i < rows.length; i++) {
            for (int c = 0; c < count; c++) {
                cells[i][c] = Cell.Categorical.single(rows[i].charAt(c) - '0', 2);
            }
        }
        return Matrix.of(taxa, characters, cells);
    }

    private static Lookalikes of(List<String> rows) {
        return new Lookalikes(PairCounts.of(binary(rows.toArray(String[]::new)), SeparationContext.EVERYTHING));
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void aGradientIsLaidOutFromEndToEnd(long seed) {
        // Row k shows k ones before its noughts, so that rows are as far apart as their places; an end is worth as much
        // as a start.
        int n = 3 + (int) (seed % 20);
        List<Integer> places = new ArrayList<>(IntStream.range(0, n).boxed().toList());
        Collections.shuffle(places, new Random(seed));
        int[] order = of(places.stream()
                        .map(k -> "1".repeat(k) + "0".repeat(n - k))
                        .toList())
                .order();
        List<Integer> laid = Arrays.stream(order).mapToObj(places::get).toList();
        for (int k = 1; k < n; k++) {
            assertThat(Math.abs(laid.get(k) - laid.get(k - 1)))
                    .as("neighbours in %s", laid)
                    .isEqualTo(1);
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void groupsThatWerePlantedAreFoundAndSitTogether(long seed) {
        Random random = new Random(seed);
        int groups = 2 + random.nextInt(4);
        List<Integer> of = new ArrayList<>();
        for (int g = 0; g < groups; g++) {
            of.addAll(Collections.nCopies(1 + random.nextInt(5), g));
        }
        Collections.shuffle(of, random);
        List<String> rows = of.stream()
                .map(g -> {
                    // Groups differ in three characters of their own, rows of one group in one at most.
                    StringBuilder row = new StringBuilder("0".repeat(3 * groups)).replace(3 * g, 3 * g + 3, "111");
                    return row.append(random.nextInt(2)).toString();
                })
                .toList();
        Lookalikes found = of(rows);
        Set<List<Integer>> planted = new HashSet<>();
        for (int g = 0; g < groups; g++) {
            int wanted = g;
            List<Integer> members = IntStream.range(0, of.size())
                    .filter(i -> of.get(i) == wanted)
                    .boxed()
                    .toList();
            if (members.size() > 1) {
                planted.add(members);
            }
        }
        assertThat(found.groups()).containsExactlyInAnyOrderElementsOf(planted);
        int[] order = found.order();
        long borders = IntStream.range(1, order.length)
                .filter(k -> !of.get(order[k]).equals(of.get(order[k - 1])))
                .count();
        assertThat(borders).as("groups sit together").isEqualTo(groups - 1L);
    }
}
