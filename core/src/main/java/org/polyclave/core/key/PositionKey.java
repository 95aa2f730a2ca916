package org.polyclave.core.key;

import java.util.Arrays;
import org.polyclave.core.key.KeyProblem.Pattern;

/** What makes two positions one to a search, whichever way led there. */
final class PositionKey {
    private final long[] parts;
    private final int hash;

    private PositionKey(long[] parts) {
        this.parts = parts;
        hash = Arrays.hashCode(parts);
    }

    /**
     * The classes in play, and what is left of each character that counts: of which the path has taken something from one of
     * them, or, where wrong names count, that was asked at all, for it decides who else may arrive.
     */
    static PositionKey of(Position position, boolean allAsked) {
        Builder parts = new Builder(position.classes);
        KeyProblem problem = position.problem;
        for (int c = 0; c < position.masks.length; c++) {
            if (!position.isAsked(c)) {
                continue;
            }
            boolean numeric = problem.matrix.character(c).type().isNumeric();
            int union = 0;
            boolean narrowed = allAsked;
            for (int k = 0; k < position.size(); k++) {
                Pattern pattern = position.pattern(c, k);
                union |= pattern.mask();
                narrowed |= numeric
                        ? pattern.min() <= position.low[c] || pattern.max() > position.high[c]
                        : (pattern.mask() & ~position.masks[c]) != 0;
            }
            if (narrowed) {
                parts.add(c);
                if (numeric) {
                    parts.add(Double.doubleToLongBits(position.low[c]));
                    parts.add(Double.doubleToLongBits(position.high[c]));
                } else {
                    parts.add(allAsked ? position.masks[c] : union & position.masks[c]);
                }
            }
        }
        if (position.open >= 0) {
            parts.add(-1);
            parts.add(position.open);
            parts.add(position.leads);
        }
        for (int k = 0; position.guessed && k < position.size(); k++) {
            parts.add(Double.doubleToLongBits(position.mass[k]));
        }
        return new PositionKey(parts.finished());
    }

    private static final class Builder {
        private long[] parts;
        private int size;

        Builder(int[] classes) {
            parts = new long[classes.length + 9];
            for (int specimens : classes) {
                add(specimens);
            }
            add(-1);
        }

        void add(long part) {
            if (size == parts.length) {
                parts = Arrays.copyOf(parts, 2 * size);
            }
            parts[size++] = part;
        }

        long[] finished() {
            return Arrays.copyOf(parts, size);
        }
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof PositionKey key && Arrays.equals(parts, key.parts);
    }

    @Override
    public int hashCode() {
        return hash;
    }
}
