package org.polyclave.core.key;

import org.polyclave.core.matrix.Matrix;

/**
 * Checks any key against a matrix: does every specimen that the matrix admits reach a terminal that names its row, with
 * exactly one lead to follow at each couplet?
 */
public interface KeyProver {
    /** Checks {@code key}; character and row indices must belong to {@code matrix}. */
    Proof prove(Matrix matrix, Key key);
}
