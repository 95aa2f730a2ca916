package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.RangeDistribution;
import org.polyclave.core.statistics.StudentPoints;
import org.polyclave.core.statistics.StudentPredictive;

/**
 * A matrix laid out for splitting: one entry per class of specimens, with supports and shares by number.
 *
 * <p>Cells that are alike share one <em>pattern</em> of their character (support, shares, known or not), so that a
 * position is summarised by counting patterns, not by visiting cells' contents.
 */
final class KeyProblem {
    /** Probability that the next individual of a measured row lies within its reach. */
    static final double INSIDE = 0.95;

    /**
     * What a cell of one character shows; equal cells share one pattern.
     *
     * @param next where its next individual lies, if a sample was measured
     */
    record Pattern(
            int mask,
            double[] shares,
            double min,
            double max,
            RangeDistribution range,
            Optional<StudentPredictive> next,
            boolean known,
            boolean inapplicable) {
        /** Share of the states in {@code k}, relative to all the row shows. */
        double share(int k) {
            double sum = 0;
            for (int bits = k & mask; bits != 0; bits &= bits - 1) {
                sum += shares[Integer.numberOfTrailingZeros(bits)];
            }
            return sum;
        }
    }

    final Matrix matrix;
    /** Between which points of Student's t the next individual of a sample lies, by degrees of freedom. */
    final StudentPoints reach = new StudentPoints(new double[] {(1 - INSIDE) / 2, (1 + INSIDE) / 2});

    final int classCount;
    /** False if a row has more kinds of specimens than are told apart; what is left is more than it can show. */
    final boolean complete;

    final int[] rowOf;
    final int[] nameOf;
    /** One more than the highest number of a name. */
    final int names;
    /** Whether some name has several classes. */
    final boolean namesShared;

    /** The named group of each class, numbered from 0. */
    final int[] kinOf;

    final int kins;
    final double[] mass;
    /** By character, all its states. */
    final int[] allStates;
    /** By character, bit set of the months in which some row shows it. */
    final int[] monthsSeen;
    /** pattern number per [character][class]. */
    final int[][] patternOf;
    /** patterns per character. */
    final Pattern[][] patterns;

    /** How many leads a couplet may have. */
    final int mostLeads;

    KeyProblem(Matrix matrix, boolean evenWeights) {
        this(matrix, evenWeights, KeyOptions.TWO_LEADS);
    }

    KeyProblem(Matrix matrix, boolean evenWeights, int mostLeads) {
        this.matrix = matrix;
        this.mostLeads = mostLeads;
        SpecimenClasses divided = SpecimenClasses.of(matrix);
        List<SpecimenClasses.SpecimenClass> classes = divided.classes();
        complete = divided.complete();
        classCount = classes.size();
        rowOf = new int[classCount];
        nameOf = new int[classCount];
        mass = new double[classCount];
        patternOf = new int[matrix.characterCount()][classCount];
        patterns = new Pattern[matrix.characterCount()][];
        double[] shares = matrix.shares(evenWeights);
        Distributions distributions = new Distributions(matrix, RangeDistribution.Tails.CUT);
        for (int i = 0; i < classCount; i++) {
            rowOf[i] = classes.get(i).row();
            nameOf[i] = matrix.row(rowOf[i]).name();
            mass[i] = shares[rowOf[i]];
        }
        int[] groups = Arrays.stream(rowOf)
                .map(row -> matrix.row(row).kin())
                .distinct()
                .sorted()
                .toArray();
        kins = groups.length;
        kinOf = Arrays.stream(rowOf)
                .map(row -> Arrays.binarySearch(groups, matrix.row(row).kin()))
                .toArray();
        allStates = new int[matrix.characterCount()];
        Arrays.setAll(allStates, c -> matrix.character(c).allStates());
        monthsSeen = new int[matrix.characterCount()];
        Arrays.setAll(monthsSeen, matrix::monthsOfAnyRow);
        names = Arrays.stream(nameOf).max().orElse(-1) + 1;
        namesShared = Arrays.stream(nameOf).distinct().count() < classCount;
        for (int c = 0; c < matrix.characterCount(); c++) {
            fillPatterns(c, classes, distributions);
        }
        applyRestrictions(classes);
        normalise();
    }

    private void fillPatterns(int c, List<SpecimenClasses.SpecimenClass> classes, Distributions distributions) {
        Map<List<Object>, Integer> numbers = new HashMap<>();
        List<Pattern> found = new ArrayList<>();
        for (int i = 0; i < classCount; i++) {
            Cell cell = classes.get(i).cells()[c];
            int restricted = restriction(classes.get(i), c);
            List<Object> signature = List.of(cell, restricted);
            Integer number = numbers.get(signature);
            if (number == null) {
                number = found.size();
                numbers.put(signature, number);
                found.add(pattern(c, cell, restricted, distributions));
            }
            patternOf[c][i] = number;
        }
        patterns[c] = found.toArray(new Pattern[0]);
    }

    private int restriction(SpecimenClasses.SpecimenClass specimens, int c) {
        for (ControllingCondition restriction : specimens.readable()) {
            if (restriction.character() == c) {
                return restriction.states();
            }
        }
        return matrix.character(c).allStates();
    }

    private Pattern pattern(int c, Cell cell, int restricted, Distributions distributions) {
        MatrixCharacter character = matrix.character(c);
        boolean inapplicable = cell instanceof Cell.NotApplicable;
        boolean known = cell instanceof Cell.Categorical || cell instanceof Cell.Numeric;
        if (!character.type().isNumeric()) {
            int readable = cell instanceof Cell.Categorical shown ? shown.readable() : character.allStates();
            double[] shares = distributions.states(c, cell);
            return new Pattern(readable & restricted, shares, 0, 0, NO_RANGE, Optional.empty(), known, inapplicable);
        }
        double min = cell instanceof Cell.Numeric range ? character.least(range.min()) : Double.NEGATIVE_INFINITY;
        double max = cell instanceof Cell.Numeric range ? character.greatest(range.max()) : Double.POSITIVE_INFINITY;
        Optional<StudentPredictive> next =
                cell instanceof Cell.Numeric range ? range.measured().map(StudentPredictive::new) : Optional.empty();
        return new Pattern(0, NO_SHARES, min, max, distributions.range(c, cell), next, known, inapplicable);
    }

    private static final double[] NO_SHARES = {};
    private static final RangeDistribution NO_RANGE = RangeDistribution.of(
            List.of(Cell.Numeric.range(0, 1)),
            MatrixCharacter.of("none", CharacterType.RATIO, 0, 0),
            RangeDistribution.Tails.CUT);

    /** A class holds the part of its row's specimens that shows the states its controllers are restricted to. */
    private void applyRestrictions(List<SpecimenClasses.SpecimenClass> classes) {
        for (int i = 0; i < classCount; i++) {
            for (ControllingCondition restriction : classes.get(i).readable()) {
                int c = restriction.character();
                mass[i] *= patterns[c][patternOf[c][i]].share(-1);
            }
        }
    }

    private void normalise() {
        double total = Arrays.stream(mass).sum();
        for (int i = 0; i < classCount; i++) {
            mass[i] /= total;
        }
    }

    boolean isDangerous(int specimens) {
        return matrix.row(rowOf[specimens]).hazard().isDangerous();
    }

    Pattern pattern(int character, int specimens) {
        return patterns[character][patternOf[character][specimens]];
    }
}
