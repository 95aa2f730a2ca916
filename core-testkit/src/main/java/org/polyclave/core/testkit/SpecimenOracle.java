package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;

/**
 * Walks every single specimen that a small matrix admits through a key: the definition of a proven key, by enumeration.
 * Numbers are sampled in steps of a quarter, as far off as they are read: limits and uncertainties must be multiples of it.
 */
public final class SpecimenOracle {
    private static final Object ABSENT = new Object();

    private final Matrix matrix;
    private final Key key;

    public SpecimenOracle(Matrix matrix, Key key) {
        this.matrix = matrix;
        this.key = key;
    }

    /** Whether every specimen of every row is led, by exactly one lead at each couplet, to a terminal naming its row. */
    public boolean everySpecimenArrives() {
        for (int row = 0; row < matrix.rowCount(); row++) {
            if (!allArrive(row, new ArrayList<>())) {
                return false;
            }
        }
        return true;
    }

    private boolean allArrive(int row, List<Object> specimen) {
        int c = specimen.size();
        if (c == matrix.characterCount()) {
            return arrives(
                    row,
                    specimen,
                    key.couplets().isEmpty() ? -1 : key.couplets().get(0).number());
        }
        for (Object value : values(row, c, specimen)) {
            specimen.add(value);
            boolean all = allArrive(row, specimen);
            specimen.remove(c);
            if (!all) {
                return false;
            }
        }
        return true;
    }

    /** Controllers stand before the characters that depend on them. */
    private List<Object> values(int row, int c, List<Object> specimen) {
        Cell cell = matrix.cell(row, c);
        for (ControllingCondition controller : matrix.character(c).appliesWhen()) {
            Object shown = specimen.get(controller.character());
            if (shown == ABSENT || (controller.states() & (1 << ((Double) shown).intValue())) == 0) {
                return List.of(ABSENT);
            }
        }
        if (cell instanceof Cell.NotApplicable) {
            return List.of(ABSENT);
        }
        List<Object> values = new ArrayList<>();
        if (!matrix.character(c).type().isNumeric()) {
            for (int s = 0; s < matrix.character(c).stateCount(); s++) {
                if (!(cell instanceof Cell.Categorical shown) || (shown.readable() & (1 << s)) != 0) {
                    values.add((double) s);
                }
            }
            return values;
        }
        double step = matrix.character(c).type() == CharacterType.COUNT ? 1 : 0.25;
        double off = step == 1 ? 0 : matrix.character(c).uncertainty() / 2;
        double from = cell instanceof Cell.Numeric range ? range.min() - off : -1;
        double to = cell instanceof Cell.Numeric range ? range.max() + off : 90;
        for (double x = from; x <= to; x += step) {
            values.add(x);
        }
        return values;
    }

    private boolean arrives(int row, List<Object> specimen, int number) {
        if (number < 0) {
            return key.whole().rows().contains(row);
        }
        Key.Couplet couplet = key.couplets().stream()
                .filter(c -> c.number() == number)
                .findFirst()
                .orElseThrow();
        int accepted = 0;
        boolean absent = false;
        boolean all = true;
        for (Key.Lead lead : couplet.leads()) {
            boolean accepts = true;
            for (Key.Statement statement : lead.statements()) {
                Object value = specimen.get(statement.character());
                if (statement.role() == Key.Role.DECIDING) {
                    absent |= value == ABSENT;
                    accepts &= value == ABSENT || agrees(statement.atoms(), (Double) value);
                }
            }
            if (accepts) {
                accepted++;
                all &= lead.to() instanceof Key.ToRows rows
                        ? rows.rows().contains(row)
                        : arrives(row, specimen, ((Key.ToCouplet) lead.to()).number());
            }
        }
        return all && (accepted == 1 || (absent && accepted > 1));
    }

    private static boolean agrees(Atoms atoms, double value) {
        return atoms instanceof Atoms.States states
                ? (states.mask() & (1 << (int) value)) != 0
                : ((Atoms.Interval) atoms).contains(value);
    }
}
