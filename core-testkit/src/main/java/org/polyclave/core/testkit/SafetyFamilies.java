package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.LongFunction;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Misreading;

/** Made-up studies in which row 0 is dangerous and row 1 is the harmless one that is most like it. */
public final class SafetyFamilies {
    private SafetyFamilies() {}

    /** Studies of a kind, one a seed. */
    public record Family(String name, Hazard hazard, LongFunction<Matrix> studies) {
        public Matrix matrix(long seed) {
            return studies.apply(seed);
        }
    }

    /**
     * @param taxa number of rows
     * @param parts on which the characters stand, in turn
     * @param differing characters in which rows 0 and 1 differ; below 0: as other rows do
     * @param onParts on how many parts these stand
     * @param even whether every character is misread alike; else the rates spread from a quarter to two and a half times
     * @param states most states of a character
     * @param polymorphic share of cells with two states
     */
    private record Plain(
            int taxa,
            int characters,
            int parts,
            int differing,
            int onParts,
            boolean even,
            int states,
            double polymorphic,
            Hazard hazard) {
        Family named(String name) {
            return new Family(name, hazard, this::matrix);
        }

        private Matrix matrix(long seed) {
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
    public static List<Family> chosen(Hazard h) {
        return List.of(
                new Plain(8, 10, 5, -1, 0, false, 3, 0.15, h).named("8 taxa × 10 characters"),
                new Plain(20, 14, 6, -1, 0, false, 3, 0.15, h).named("20 taxa × 14 characters"),
                new Plain(40, 24, 8, -1, 0, false, 3, 0.15, h).named("40 taxa × 24 characters"),
                new Plain(12, 12, 5, 2, 2, false, 3, 0.1, h).named("two characters of two parts"),
                new Plain(12, 12, 5, 3, 2, false, 3, 0.1, h).named("three characters of two parts"),
                new Plain(12, 12, 5, 3, 3, false, 3, 0.1, h).named("three characters of three parts"),
                new Plain(12, 12, 5, 4, 3, false, 3, 0.1, h).named("four characters of three parts"),
                new Plain(12, 12, 5, 1, 1, false, 3, 0.1, h).named("one character"),
                new Plain(12, 12, 5, 3, 1, false, 3, 0.1, h).named("three characters of one part"));
    }

    /** Those that had no part in choosing it. */
    public static List<Family> fresh() {
        return List.of(
                new Plain(16, 18, 7, -1, 0, false, 6, 0.35, Hazard.SERIOUS).named("many states, much variation"),
                new Plain(10, 9, 3, 4, 3, true, 2, 0, Hazard.LIFE_THREATENING).named("few parts, even misreading"),
                new Family("awkward", Hazard.SERIOUS, SafetyFamilies::awkward));
    }

    /**
     * 14 taxa with what real studies have: parts that may be lacking, and characters that depend on them; seasons; parts in
     * parts; measures that go together; cells that nobody has scored; looks that cost more.
     */
    private static Matrix awkward(long seed) {
        Random random = new Random(seed);
        int taxa = 14;
        List<MatrixCharacter> kinds = new ArrayList<>();
        for (int part = 0; part < 5; part++) {
            int first = kinds.size();
            List<Integer> around = part == 4 ? List.of(3) : List.of();
            boolean mayLack = part % 2 == 0;
            int months = part < 3 ? 0xFFF : season(random);
            for (int k = 0; k < 4; k++) {
                double novice = 0.03 + 0.27 * Math.pow(random.nextDouble(), 2);
                boolean presence = mayLack && k == 0;
                boolean length = part < 2 && k > 1;
                kinds.add(new MatrixCharacter(
                        "c" + kinds.size(),
                        length ? CharacterType.LENGTH : CharacterType.STATES,
                        length ? 0 : presence ? 2 : 2 + random.nextInt(3),
                        mayLack && k > 0 ? List.of(new ControllingCondition(first, 1)) : List.of(),
                        part,
                        0,
                        length ? 100 + part : kinds.size(),
                        0.5 + random.nextInt(4),
                        length ? 1 : 0,
                        new Misreading(novice / 2, novice, List.of(), List.of()),
                        months,
                        Handling.NONE,
                        true,
                        List.of(),
                        presence ? 2 : 0,
                        around,
                        CharacterRole.DECIDES,
                        1));
            }
        }
        Cell[][] cells = new Cell[taxa][kinds.size()];
        List<MatrixRow> rows = new ArrayList<>();
        for (int i = 0; i < taxa; i++) {
            rows.add(new MatrixRow("t" + i, i, i, 1, i == 0 ? Hazard.SERIOUS : Hazard.NONE_KNOWN));
            double size = 10 + random.nextInt(60);
            for (int c = 0; c < kinds.size(); c++) {
                cells[i][c] = awkward(kinds.get(c), cells[i], size, random);
            }
        }
        return Matrix.of(rows, kinds, cells);
    }

    private static Cell awkward(MatrixCharacter kind, Cell[] before, double size, Random random) {
        boolean lacking = kind.appliesWhen().stream()
                .anyMatch(w ->
                        before[w.character()] instanceof Cell.Categorical shown && (shown.support() & w.states()) == 0);
        if (lacking) {
            return Cell.NOT_APPLICABLE;
        }
        if (random.nextInt(8) == 0) {
            return Cell.UNKNOWN;
        }
        if (kind.type() == CharacterType.LENGTH) {
            double low = size * (0.8 + 0.4 * random.nextDouble());
            return Cell.Numeric.range(low, 1.3 * low);
        }
        int n = kind.stateCount();
        int support = 1 << random.nextInt(n);
        support |= random.nextInt(5) == 0 ? 1 << random.nextInt(n) : 0;
        return Cell.Categorical.even(support, n);
    }

    private static int season(Random random) {
        int from = random.nextInt(12);
        int months = 0;
        for (int k = 0; k < 4 + random.nextInt(4); k++) {
            months |= 1 << ((from + k) % 12);
        }
        return months;
    }
}
