package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.statistics.Measured;
import org.polyclave.core.testkit.SyntheticMatrix;

/** Matrices and contexts with everything that telling apart has to look at. */
final class SeparationCases {
    private SeparationCases() {}

    /** Groups of several characters, months of rows' own, dependent, unknown and measured cells. */
    static Matrix matrix(Random random, int rows, int count) {
        Matrix plain = new SyntheticMatrix(rows, count, 4, 0.4, 0.15, 0.35, 0.3, false).generate(random.nextLong());
        List<MatrixCharacter> characters = new ArrayList<>();
        for (MatrixCharacter c : plain.characters()) {
            int months = random.nextInt(3) == 0 ? 1 + random.nextInt(0xFFF) : MatrixCharacter.ALL_MONTHS;
            double uncertainty = random.nextInt(4);
            characters.add(new MatrixCharacter(
                    c.id(),
                    c.type(),
                    c.stateCount(),
                    c.appliesWhen(),
                    c.organ(),
                    c.method(),
                    random.nextInt(1 + count / 2),
                    1,
                    uncertainty,
                    0.05,
                    months,
                    false,
                    true));
        }
        Cell[][] cells = new Cell[rows][count];
        int[][] ownMonths = new int[rows][count];
        for (int i = 0; i < rows; i++) {
            for (int c = 0; c < count; c++) {
                cells[i][c] = cell(plain.cell(i, c), random);
                ownMonths[i][c] = random.nextInt(5) == 0 ? 1 + random.nextInt(0xFFF) : 0;
            }
        }
        return Matrix.of(plain.rows(), characters, cells, new boolean[rows][count], ownMonths);
    }

    private static Cell cell(Cell plain, Random random) {
        if (random.nextInt(15) == 0) {
            return Cell.NOT_APPLICABLE;
        }
        if (plain instanceof Cell.Numeric range && random.nextInt(3) == 0 && range.max() > range.min()) {
            Measured measured = new Measured(
                    2 + random.nextInt(60),
                    (range.low() + range.high()) / 2,
                    (range.max() - range.min()) / (3 + random.nextInt(3)));
            return new Cell.Numeric(range.min(), range.low(), range.high(), range.max(), Optional.of(measured));
        }
        return plain;
    }

    static SeparationContext context(Random random, int characters) {
        boolean[] unusable = new boolean[characters];
        for (int c = 0; c < characters; c++) {
            unusable[c] = random.nextInt(6) == 0;
        }
        return new SeparationContext(random.nextBoolean() ? 0 : random.nextInt(0x1000), unusable);
    }
}
