package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;

/**
 * The expected number of couplets of a key, by walking every specimen with its probability: the mean over names of the mean over
 * their rows of the mean over their specimens. For categorical matrices whose controllers stand before the characters that
 * depend on them. A character that a specimen does not have is read at random, as the scored rows show it.
 */
public final class StepsOracle {
    private static final int ABSENT = -1;

    private final Matrix matrix;
    private final Key key;

    public StepsOracle(Matrix matrix, Key key) {
        this.matrix = matrix;
        this.key = key;
    }

    public double expectedSteps() {
        Map<Integer, List<Double>> byName = new LinkedHashMap<>();
        for (int row = 0; row < matrix.rowCount(); row++) {
            byName.computeIfAbsent(matrix.row(row).name(), n -> new ArrayList<>())
                    .add(overSpecimens(row, new ArrayList<>()));
        }
        double sum = 0;
        for (List<Double> rows : byName.values()) {
            sum += rows.stream().mapToDouble(s -> s).average().orElse(0);
        }
        return sum / byName.size();
    }

    private double overSpecimens(int row, List<Integer> specimen) {
        int c = specimen.size();
        if (c == matrix.characterCount()) {
            return key.couplets().isEmpty() ? 0 : steps(specimen, key.couplets().get(0));
        }
        if (!exists(row, c, specimen)) {
            specimen.add(ABSENT);
            double mean = overSpecimens(row, specimen);
            specimen.remove(c);
            return mean;
        }
        double[] shares = matrix.cell(row, c) instanceof Cell.Categorical shown ? shown.shares() : mixture(c);
        double mean = 0;
        for (int state = 0; state < shares.length; state++) {
            if (shares[state] > 0) {
                specimen.add(state);
                mean += shares[state] * overSpecimens(row, specimen);
                specimen.remove(c);
            }
        }
        return mean;
    }

    private boolean exists(int row, int c, List<Integer> specimen) {
        for (ControllingCondition controller : matrix.character(c).appliesWhen()) {
            int shown = specimen.get(controller.character());
            if (shown == ABSENT || (controller.states() & (1 << shown)) == 0) {
                return false;
            }
        }
        return !(matrix.cell(row, c) instanceof Cell.NotApplicable);
    }

    private double[] mixture(int c) {
        double[] mixture = new double[matrix.character(c).stateCount()];
        int scored = 0;
        for (int row = 0; row < matrix.rowCount(); row++) {
            if (matrix.cell(row, c) instanceof Cell.Categorical shown) {
                scored++;
                for (int s = 0; s < mixture.length; s++) {
                    mixture[s] += shown.shares()[s];
                }
            }
        }
        for (int s = 0; s < mixture.length; s++) {
            mixture[s] = scored == 0 ? 1.0 / mixture.length : mixture[s] / scored;
        }
        return mixture;
    }

    private double steps(List<Integer> specimen, Key.Couplet couplet) {
        double sum = 0;
        double weights = 0;
        for (Key.Lead lead : couplet.leads()) {
            double weight = weight(specimen, lead);
            weights += weight;
            sum += weight == 0 ? 0 : weight * after(specimen, lead);
        }
        return 1 + sum / weights;
    }

    private double weight(List<Integer> specimen, Key.Lead lead) {
        Key.Statement deciding = lead.statements().get(0);
        int mask = ((Atoms.States) deciding.atoms()).mask();
        int shown = specimen.get(deciding.character());
        if (shown != ABSENT) {
            return (mask & (1 << shown)) != 0 ? 1 : 0;
        }
        double[] mixture = mixture(deciding.character());
        double weight = 0;
        for (int s = 0; s < mixture.length; s++) {
            weight += (mask & (1 << s)) != 0 ? mixture[s] : 0;
        }
        return weight;
    }

    private double after(List<Integer> specimen, Key.Lead lead) {
        if (lead.to() instanceof Key.ToCouplet to) {
            return steps(
                    specimen,
                    key.couplets().stream()
                            .filter(c -> c.number() == to.number())
                            .findFirst()
                            .orElseThrow());
        }
        return 0;
    }
}
