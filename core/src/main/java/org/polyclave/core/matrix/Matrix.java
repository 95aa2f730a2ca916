package org.polyclave.core.matrix;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntUnaryOperator;

/**
 * The compiled matrix: rows against characters, immutable. It is the only thing algorithms see.
 *
 * <p>Inheritance is already resolved: a cell here is what the row shows, whatever level it was scored at. A changed cell
 * yields a new matrix that shares the other rows.
 */
public final class Matrix {
    private final List<MatrixRow> rows;
    private final List<MatrixCharacter> characters;
    private final Cell[][] cells;
    /** Cells too weak to rule out a dangerous row. */
    private final boolean[][] weak;
    /** Bit sets of the months in which a row shows a character, where they differ from the character's; 0 elsewhere. */
    private final int[][] ownMonths;

    private final MisidentificationCosts losses;

    private Matrix(
            List<MatrixRow> rows,
            List<MatrixCharacter> characters,
            Cell[][] cells,
            boolean[][] weak,
            int[][] ownMonths,
            MisidentificationCosts losses) {
        this.rows = rows;
        this.characters = characters;
        this.cells = cells;
        this.weak = weak;
        this.ownMonths = ownMonths;
        this.losses = losses;
    }

    /**
     * Builds a matrix; {@code cells[row][character]}.
     *
     * @throws IllegalArgumentException if a cell does not fit its character, or a controller is not an earlier-checked
     *     categorical character; texts with places for people are the study model's task
     */
    public static Matrix of(List<MatrixRow> rows, List<MatrixCharacter> characters, Cell[][] cells) {
        return of(
                rows,
                characters,
                cells,
                new boolean[cells.length][characters.size()],
                new int[cells.length][characters.size()]);
    }

    /**
     * The same with {@code weak[row][character]} marking cells that must not help to rule out a dangerous row: doubtful,
     * imported unchecked, or inherited across sexes and stages, and {@code ownMonths[row][character]} the bit set of the
     * months in which the row shows the character, 0 where the character's own months hold.
     */
    public static Matrix of(
            List<MatrixRow> rows,
            List<MatrixCharacter> characters,
            Cell[][] cells,
            boolean[][] weak,
            int[][] ownMonths) {
        checkControllers(characters);
        Cell[][] copy = new Cell[rows.size()][];
        for (int i = 0; i < copy.length; i++) {
            copy[i] = cells[i].clone();
            if (copy[i].length != characters.size()) {
                throw new IllegalArgumentException("Row '" + rows.get(i).id() + "' has " + copy[i].length + " cells");
            }
            for (int c = 0; c < copy[i].length; c++) {
                checkCell(rows.get(i), characters.get(c), copy[i][c]);
            }
        }
        boolean[][] weakCopy = new boolean[weak.length][];
        int[][] monthsCopy = new int[ownMonths.length][];
        for (int i = 0; i < weak.length; i++) {
            weakCopy[i] = weak[i].clone();
            monthsCopy[i] = ownMonths[i].clone();
        }
        return new Matrix(
                List.copyOf(rows), List.copyOf(characters), copy, weakCopy, monthsCopy, MisidentificationCosts.EVEN);
    }

    private static void checkCell(MatrixRow row, MatrixCharacter character, Cell cell) {
        boolean fits = true;
        if (cell instanceof Cell.Categorical categorical) {
            fits = !character.type().isNumeric()
                    && categorical.shares().length == character.stateCount()
                    && (categorical.readable() & ~character.allStates()) == 0;
        } else if (cell instanceof Cell.Numeric) {
            fits = character.type().isNumeric();
        }
        if (!fits) {
            throw new IllegalArgumentException(
                    "The cell of row '" + row.id() + "' does not fit character '" + character.id() + "'");
        }
    }

    private static void checkControllers(List<MatrixCharacter> characters) {
        int n = characters.size();
        for (int c = 0; c < n; c++) {
            for (ControllingCondition controller : characters.get(c).appliesWhen()) {
                int d = controller.character();
                if (d < 0 || d >= n || characters.get(d).type().isNumeric()) {
                    throw new IllegalArgumentException(
                            "Character '" + characters.get(c).id() + "' depends on a character that has no states");
                }
            }
            if (dependsOn(characters, c, c, n)) {
                throw new IllegalArgumentException(
                        "Character '" + characters.get(c).id() + "' depends on itself");
            }
        }
    }

    private static boolean dependsOn(List<MatrixCharacter> characters, int from, int goal, int depth) {
        for (ControllingCondition controller : characters.get(from).appliesWhen()) {
            if (controller.character() == goal
                    || (depth > 0 && dependsOn(characters, controller.character(), goal, depth - 1))) {
                return true;
            }
        }
        return false;
    }

    public List<MatrixRow> rows() {
        return rows;
    }

    public List<MatrixCharacter> characters() {
        return characters;
    }

    public int rowCount() {
        return rows.size();
    }

    public int characterCount() {
        return characters.size();
    }

    public MatrixRow row(int row) {
        return rows.get(row);
    }

    /** Whether two rows have one name, so that nobody needs to separate them. */
    public boolean sharesName(int a, int b) {
        return rows.get(a).name() == rows.get(b).name();
    }

    /**
     * Shares of the rows in all specimens, summing to 1.
     *
     * @param even whether every name counts the same, its rows sharing it evenly, instead of by how common each row is
     */
    public double[] shares(boolean even) {
        Map<Integer, Integer> rowsOfName = new LinkedHashMap<>();
        for (MatrixRow row : rows) {
            rowsOfName.merge(row.name(), 1, Integer::sum);
        }
        double[] shares = new double[rows.size()];
        double total = 0;
        for (int i = 0; i < shares.length; i++) {
            MatrixRow row = rows.get(i);
            shares[i] = even ? 1.0 / rowsOfName.getOrDefault(row.name(), 1) : row.weight();
            total += shares[i];
        }
        for (int i = 0; i < shares.length; i++) {
            shares[i] /= total;
        }
        return shares;
    }

    public MatrixCharacter character(int character) {
        return characters.get(character);
    }

    public Cell cell(int row, int character) {
        return cells[row][character];
    }

    /** How bad it is to take one row for another. */
    public MisidentificationCosts losses() {
        return losses;
    }

    /** The same matrix with other losses; rows by their index here. */
    public Matrix withLosses(List<MisidentificationCosts.Loss> pairs) {
        return new Matrix(rows, characters, cells, weak, ownMonths, MisidentificationCosts.of(rows.size(), pairs));
    }

    /** Whether a cell may be evidence against a danger: somebody vouches for it, for this very row. */
    public boolean isUsable(int row, int character) {
        return !weak[row][character];
    }

    /** Whether a name is as dangerous as its worst row. O(rows). */
    public boolean isDangerousName(int name) {
        for (MatrixRow row : rows) {
            if (row.name() == name && row.hazard().isDangerous()) {
                return true;
            }
        }
        return false;
    }

    /** Bit set of the months in which a row shows a character. */
    public int months(int row, int character) {
        return ownMonths[row][character] != 0
                ? ownMonths[row][character]
                : characters.get(character).months();
    }

    /**
     * The same matrix as it can be read in every one of some months: what a row does not show in all of them is unknown
     * there, so that it separates nothing. Not applicable stays so, for a part that never exists is missing all year.
     *
     * @param months bit set of months; 0 asks nothing
     */
    public Matrix inEvery(int months) {
        return where((i, c) -> (months & ~months(i, c)) == 0);
    }

    /**
     * The same matrix as a reader finds it in some of these months. Only months of a row's own count: what was seen out of
     * a character's usual season was seen all the same.
     */
    public Matrix inSeason(int months) {
        return where((i, c) -> ownMonths[i][c] == 0 || (months & ownMonths[i][c]) != 0);
    }

    private interface Seen {
        boolean test(int row, int character);
    }

    private Matrix where(Seen seen) {
        Cell[][] masked = new Cell[rows.size()][];
        boolean changed = false;
        for (int i = 0; i < masked.length; i++) {
            masked[i] = cells[i].clone();
            for (int c = 0; c < masked[i].length; c++) {
                boolean known = masked[i][c] instanceof Cell.Categorical || masked[i][c] instanceof Cell.Numeric;
                if (known && !seen.test(i, c)) {
                    masked[i][c] = Cell.UNKNOWN;
                    changed = true;
                }
            }
        }
        return changed ? new Matrix(rows, characters, masked, weak, ownMonths, losses) : this;
    }

    /** Bit set of the months in which at least one row shows a character. */
    public int monthsOfAnyRow(int character) {
        int months = rows.isEmpty() ? characters.get(character).months() : 0;
        for (int i = 0; i < rows.size(); i++) {
            months |= months(i, character);
        }
        return months;
    }

    /** The same matrix with one cell changed; shares every other row. */
    public Matrix with(int row, int character, Cell cell) {
        checkCell(rows.get(row), characters.get(character), cell);
        Cell[][] copy = cells.clone();
        copy[row] = copy[row].clone();
        copy[row][character] = cell;
        return new Matrix(rows, characters, copy, weak, ownMonths, losses);
    }

    /**
     * Rows that may show something else than in an earlier matrix, told by what the two share; empty where the rows or
     * characters themselves are others. Takes time in the rows.
     */
    public Optional<List<Integer>> rowsUnlike(Matrix earlier) {
        if (rows != earlier.rows || characters != earlier.characters) {
            return Optional.empty();
        }
        List<Integer> unlike = new ArrayList<>();
        for (int i = 0; i < cells.length; i++) {
            if (cells[i] != earlier.cells[i] || weak[i] != earlier.weak[i] || ownMonths[i] != earlier.ownMonths[i]) {
                unlike.add(i);
            }
        }
        return Optional.of(unlike);
    }

    /** The same matrix with one character scored differently in every row; arguments by row, as in {@link #of}. */
    public Matrix withColumn(int character, Cell[] column, boolean[] weakColumn, int[] monthsColumn) {
        Cell[][] newCells = new Cell[rows.size()][];
        boolean[][] newWeak = new boolean[rows.size()][];
        int[][] newMonths = new int[rows.size()][];
        for (int i = 0; i < newCells.length; i++) {
            checkCell(rows.get(i), characters.get(character), column[i]);
            boolean same = column[i].equals(cells[i][character])
                    && weakColumn[i] == weak[i][character]
                    && monthsColumn[i] == ownMonths[i][character];
            newCells[i] = cells[i];
            newWeak[i] = weak[i];
            newMonths[i] = ownMonths[i];
            if (!same) {
                newCells[i] = cells[i].clone();
                newWeak[i] = weak[i].clone();
                newMonths[i] = ownMonths[i].clone();
                newCells[i][character] = column[i];
                newWeak[i][character] = weakColumn[i];
                newMonths[i][character] = monthsColumn[i];
            }
        }
        return new Matrix(rows, characters, newCells, newWeak, newMonths, losses);
    }

    /** The same matrix with other names of its rows. */
    public Matrix withNames(IntUnaryOperator nameOfRow) {
        List<MatrixRow> named = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            named.add(rows.get(i).named(nameOfRow.applyAsInt(i)));
        }
        return new Matrix(List.copyOf(named), characters, cells, weak, ownMonths, losses);
    }

    /** The same matrix restricted to some rows, in the order given. */
    public Matrix withRows(List<Integer> kept) {
        Cell[][] keptCells = new Cell[kept.size()][];
        boolean[][] keptWeak = new boolean[kept.size()][];
        int[][] keptMonths = new int[kept.size()][];
        List<MatrixRow> keptRows = new ArrayList<>();
        for (int k = 0; k < keptCells.length; k++) {
            keptRows.add(rows.get(kept.get(k)));
            keptCells[k] = cells[kept.get(k)];
            keptWeak[k] = weak[kept.get(k)];
            keptMonths[k] = ownMonths[kept.get(k)];
        }
        List<MatrixCharacter> kinds = new ArrayList<>();
        for (MatrixCharacter character : characters) {
            kinds.add(character.withMisreading(character.misreading().of(kept)));
        }
        return new Matrix(List.copyOf(keptRows), List.copyOf(kinds), keptCells, keptWeak, keptMonths, losses.of(kept));
    }

    /**
     * The same matrix restricted to some characters, in the order given. Where a controller is left out, the rows that do
     * not surely meet its condition count as not applicable, so that nothing is asked of a part that may not exist.
     */
    public Matrix withCharacters(List<Integer> kept) {
        List<MatrixCharacter> keptCharacters = new ArrayList<>();
        for (int c : kept) {
            List<ControllingCondition> conditions = new ArrayList<>();
            for (ControllingCondition controller : characters.get(c).appliesWhen()) {
                int at = kept.indexOf(controller.character());
                if (at >= 0) {
                    conditions.add(new ControllingCondition(at, controller.states()));
                }
            }
            keptCharacters.add(characters.get(c).when(conditions));
        }
        Cell[][] keptCells = new Cell[rows.size()][kept.size()];
        boolean[][] keptWeak = new boolean[rows.size()][kept.size()];
        int[][] keptMonths = new int[rows.size()][kept.size()];
        for (int i = 0; i < rows.size(); i++) {
            for (int k = 0; k < kept.size(); k++) {
                keptWeak[i][k] = weak[i][kept.get(k)];
                keptMonths[i][k] = ownMonths[i][kept.get(k)];
                keptCells[i][k] = meetsDropped(i, kept.get(k), kept) ? cells[i][kept.get(k)] : Cell.NOT_APPLICABLE;
            }
        }
        return new Matrix(rows, List.copyOf(keptCharacters), keptCells, keptWeak, keptMonths, losses);
    }

    private boolean meetsDropped(int row, int character, List<Integer> kept) {
        for (ControllingCondition controller : characters.get(character).appliesWhen()) {
            boolean meets = cells[row][controller.character()] instanceof Cell.Categorical shown
                    && (shown.readable() & ~controller.states()) == 0;
            if (!meets && !kept.contains(controller.character())) {
                return false;
            }
        }
        return true;
    }
}
