package org.polyclave.core.key;

/**
 * What becomes of readers of a key who go by the deciding statement of each couplet; the shares of all specimens, by how
 * common their rows are. A character is read once a specimen, and the reading is kept where the key comes back to it. Right,
 * wrong and stuck sum to 1.
 *
 * @param right readers who end where the name of their specimen is among those given
 * @param wrong readers who end at other names
 * @param dangerousWrong the part of these whose specimen is dangerous, while no name that they are given is
 * @param stuck readers whose reading fits neither lead of a couplet
 */
public record KeyRisk(double right, double wrong, double dangerousWrong, double stuck) {
    KeyRisk plus(KeyRisk other) {
        return new KeyRisk(
                right + other.right, wrong + other.wrong, dangerousWrong + other.dangerousWrong, stuck + other.stuck);
    }
}
