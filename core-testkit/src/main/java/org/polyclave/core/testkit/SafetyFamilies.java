package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Misreading;

/** Made-up studies in which row 0 is dangerous and row 1 is the harmless one that is most like it. */
public final class SafetyFamilies {
    private SafetyFamilies() {}

    /**
     * @param taxa number of rows
     * @param parts on which the characters stand, in turn
     * @param differing characters in which rows 0 and 1 differ; below 0: as other rows do
     * @param onParts on how many parts these stand
     * @param even whether every character is misread alike; else the rates spread from a quarter to two and a half times
     * @param states most states of a character
     * @param polymorphic share of cells with two states
     */
    public record Family(
            String name,
            int taxa,
            int characters,
            int parts,
            int differing,
            int onParts,
            boolean even,
            int states,
            double polymorphic,
            Hazard hazard) {
        public Matrix matrix(long seed) {
            Random random = new Random(seed);
            List<MatrixCharacter> kinds = new ArrayList<>();
            for (int c = 0; c < characters; c++) {
                double novice = even ? 0.12 : 0.03 + 0.27 * Math.pow(random.nextDouble(), 2);
                int part = c < differing ? c % Math.max(1, onParts) : c % parts;
                kinds.add(MatrixCharacter.of("c" + c, CharacterType.STATES, 2 + random.nextInt(states - 1), c)
                        .withMisreading(new Misreading(novice / 2, novice, List.of(), List.of()))
                        .on(part, List.of()));
            }
            Cell[][] cells = new Cell[taxa][characters];
            List<MatrixRow> rows = new ArrayList<>();
            for (int i = 0; i < taxa; i++) {
                rows.add(new MatrixRow("t" + i, i, i, 1, i == 0 ? hazard : Hazard.NONE_KNOWN));
                for (int c = 0; c < characters; c++) {
                    cells[i][c] = cell(kinds.get(c).stateCount(), random);
                }
            }
            for (int c = 0; c < characters && differing >= 0; c++) {
                int n = kinds.get(c).stateCount();
                int state = random.nextInt(n);
                cells[0][c] = Cell.Categorical.single(state, n);
                cells[1][c] = Cell.Categorical.single(c < differing ? (state + 1) % n : state, n);
            }
            return Matrix.of(rows, kinds, cells);
        }

        private Cell cell(int n, Random random) {
            int support = 1 << random.nextInt(n);
            support |= random.nextDouble() < polymorphic ? 1 << random.nextInt(n) : 0;
            return Cell.Categorical.even(support, n);
        }
    }

    /** Those by which the margin was chosen. */
    public static List<Family> chosen() {
        Hazard h = Hazard.SERIOUS;
        return List.of(
                new Family("8 taxa × 10 characters", 8, 10, 5, -1, 0, false, 3, 0.15, h),
                new Family("20 taxa × 14 characters", 20, 14, 6, -1, 0, false, 3, 0.15, h),
                new Family("40 taxa × 24 characters", 40, 24, 8, -1, 0, false, 3, 0.15, h),
                new Family("two characters of two parts", 12, 12, 5, 2, 2, false, 3, 0.1, h),
                new Family("three characters of two parts", 12, 12, 5, 3, 2, false, 3, 0.1, h),
                new Family("three characters of three parts", 12, 12, 5, 3, 3, false, 3, 0.1, h),
                new Family("four characters of three parts", 12, 12, 5, 4, 3, false, 3, 0.1, h),
                new Family("one character", 12, 12, 5, 1, 1, false, 3, 0.1, h),
                new Family("three characters of one part", 12, 12, 5, 3, 1, false, 3, 0.1, h));
    }

    /** Those that had no part in choosing it. */
    public static List<Family> fresh() {
        return List.of(
                new Family("many states, much variation", 16, 18, 7, -1, 0, false, 6, 0.35, Hazard.SERIOUS),
                new Family("few parts, even misreading", 10, 9, 3, 4, 3, true, 2, 0, Hazard.LIFE_THREATENING));
    }
}
