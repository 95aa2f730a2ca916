package org.polyclave.core.matrix;

/**
 * A row that a key must lead to: a taxon without scored children, or a semaphoront.
 *
 * @param id stable identifier (slug)
 * @param target index of the taxon at which a key may stop; rows with one target need not be parted
 * @param kin index of the named group (usually the genus) it belongs to
 * @param weight how common it is, relative to the other rows; positive
 * @param hazard recorded hazard of its taxon
 */
public record MatrixRow(String id, int target, int kin, double weight, Hazard hazard) {
    public MatrixRow {
        if (!(weight > 0)) {
            throw new IllegalArgumentException("The weight of row '" + id + "' must be above 0");
        }
    }
}
