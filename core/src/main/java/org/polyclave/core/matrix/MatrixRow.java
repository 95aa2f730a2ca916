package org.polyclave.core.matrix;

/**
 * A target: a row that a key must be able to end at.
 *
 * @param id stable identifier (slug)
 * @param name index of the name that readers want: the taxon, or the group at which a key stops. The sexes, stages and
 *     morphs of a taxon share it and need not be separated
 * @param kin index of the named group (usually the genus) it belongs to
 * @param weight how common it is, relative to the other rows; positive. The rows of a name share the weight of the name
 * @param hazard worst hazard of its taxon, as it goes down the tree
 * @param harm in which ways it harms
 * @param present bit set of the months in which it is met at all; 0: nobody says
 */
public record MatrixRow(String id, int name, int kin, double weight, Hazard hazard, Harm harm, int present) {
    /** A row of whose hazard only the severity is known. */
    public MatrixRow(String id, int name, int kin, double weight, Hazard hazard) {
        this(id, name, kin, weight, hazard, Harm.of(hazard));
    }

    /** A row that is met all year, or of which nobody says when. */
    public MatrixRow(String id, int name, int kin, double weight, Hazard hazard, Harm harm) {
        this(id, name, kin, weight, hazard, harm, 0);
    }

    /** The same row, met in some months only. */
    public MatrixRow in(int months) {
        return new MatrixRow(id, name, kin, weight, hazard, harm, months);
    }

    /** The same row under another name. */
    public MatrixRow named(int other) {
        return new MatrixRow(id, other, kin, weight, hazard, harm, present);
    }

    /** Whether it is known not to be met in any of some months. */
    public boolean isAbsentIn(int months) {
        return present != 0 && (present & months) == 0;
    }

    public MatrixRow {
        if (!(weight > 0)) {
            throw new IllegalArgumentException("The weight of row '" + id + "' must be above 0");
        }
    }
}
