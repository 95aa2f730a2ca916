package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

/**
 * Seeded generator of matrices for tests and benchmarks.
 *
 * @param rows number of rows
 * @param characters number of characters
 * @param states most states of a categorical character (at least 2)
 * @param polymorphic share of categorical cells with several states
 * @param unknown share of unknown cells
 * @param numeric share of numeric characters
 * @param dependent share of characters that depend on an earlier one
 * @param evenShares whether every state of a cell has the same share
 */
public record SyntheticMatrix(
        int rows,
        int characters,
        int states,
        double polymorphic,
        double unknown,
        double numeric,
        double dependent,
        boolean evenShares) {
    /** The parameters of the published benchmarks: 5 % polymorphic, 3 % unknown, 20 % numeric characters. */
    public static SyntheticMatrix benchmark(int rows, int characters) {
        return new SyntheticMatrix(rows, characters, 5, 0.05, 0.03, 0.2, 0, false);
    }

    /** The matrix of a seed; the same seed always gives the same matrix. */
    public Matrix generate(long seed) {
        Random random = new Random(seed);
        List<MatrixCharacter> definitions = new ArrayList<>();
        for (int c = 0; c < characters; c++) {
            definitions.add(definition(c, definitions, random));
        }
        List<MatrixRow> rowList = new ArrayList<>();
        Cell[][] cells = new Cell[rows][characters];
        for (int i = 0; i < rows; i++) {
            Hazard hazard = i % 11 == 3 ? Hazard.SERIOUS : Hazard.NONE_KNOWN;
            rowList.add(new MatrixRow("row-" + i, i, i / 4, 1 + random.nextInt(4), hazard));
            for (int c = 0; c < characters; c++) {
                cells[i][c] = cell(definitions.get(c), random);
            }
        }
        return Matrix.of(rowList, definitions, cells);
    }

    /** The cells of a matrix, to be changed. */
    public static Cell[][] cells(Matrix matrix) {
        Cell[][] cells = new Cell[matrix.rowCount()][matrix.characterCount()];
        for (int i = 0; i < cells.length; i++) {
            for (int c = 0; c < cells[i].length; c++) {
                cells[i][c] = matrix.cell(i, c);
            }
        }
        return cells;
    }

    /** A matrix with the same cells and other characters, of as many states. */
    public static Matrix withCharacters(Matrix matrix, UnaryOperator<MatrixCharacter> change) {
        return Matrix.of(matrix.rows(), matrix.characters().stream().map(change).toList(), cells(matrix));
    }

    private MatrixCharacter definition(int c, List<MatrixCharacter> earlier, Random random) {
        if (random.nextDouble() < numeric) {
            CharacterType type = random.nextBoolean() ? CharacterType.COUNT : CharacterType.LENGTH;
            return MatrixCharacter.of("c" + c, type, 0, c);
        }
        CharacterType type = random.nextInt(3) == 0 ? CharacterType.ORDERED : CharacterType.STATES;
        MatrixCharacter plain = MatrixCharacter.of("c" + c, type, 2 + random.nextInt(states - 1), c);
        if (c > 0 && random.nextDouble() < dependent) {
            int controller = random.nextInt(c);
            if (!earlier.get(controller).type().isNumeric()) {
                int all = earlier.get(controller).allStates();
                int some = 1 + random.nextInt(all - 1);
                return plain.when(List.of(new ControllingCondition(controller, some)));
            }
        }
        return plain;
    }

    private Cell cell(MatrixCharacter definition, Random random) {
        if (random.nextDouble() < unknown) {
            return Cell.UNKNOWN;
        }
        if (definition.type().isNumeric()) {
            return range(definition, random);
        }
        int n = definition.stateCount();
        int first = random.nextInt(n);
        if (random.nextDouble() >= polymorphic) {
            return Cell.Categorical.single(first, n);
        }
        int support = (1 << first) | (1 << random.nextInt(n));
        if (random.nextInt(3) == 0) {
            support |= 1 << random.nextInt(n);
        }
        return evenShares ? Cell.Categorical.even(support, n) : uneven(support, n, random);
    }

    private static Cell uneven(int support, int n, Random random) {
        double[] shares = new double[n];
        double total = 0;
        for (int s = 0; s < n; s++) {
            shares[s] = (support & (1 << s)) == 0 ? 0 : 1 + random.nextInt(9);
            total += shares[s];
        }
        for (int s = 0; s < n; s++) {
            shares[s] /= total;
        }
        int mistaken = random.nextInt(4) == 0 ? 1 << random.nextInt(n) : 0;
        return new Cell.Categorical(support, support | mistaken, shares);
    }

    private static Cell range(MatrixCharacter definition, Random random) {
        double low = random.nextInt(definition.type() == CharacterType.COUNT ? 12 : 60);
        double width = random.nextInt(definition.type() == CharacterType.COUNT ? 4 : 12);
        double tail = random.nextInt(5) == 0 ? 1 + random.nextInt(3) : 0;
        double min = Math.max(0, low - tail);
        return new Cell.Numeric(min, low, low + width, low + width + (random.nextBoolean() ? tail : 0));
    }
}
