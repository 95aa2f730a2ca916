package org.polyclave.core.statistics;

/**
 * What was measured on a sample of individuals.
 *
 * @param individuals at least 2
 * @param mean in the character's base unit
 * @param sd standard deviation of the individuals (n − 1), above 0
 */
public record Measured(int individuals, double mean, double sd) {
    public Measured {
        if (individuals < 2 || !(sd > 0)) {
            throw new IllegalArgumentException("A spread needs two individuals that differ");
        }
    }
}
