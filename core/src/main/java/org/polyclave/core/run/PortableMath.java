package org.polyclave.core.run;

/**
 * Logarithm, exponential and arc tangent with the same bits on every engine.
 *
 * <p>{@code Math.log} and {@code Math.exp} may differ between Java and JavaScript engines. These use only + − × ÷ on
 * doubles, so a key read offline ranks exactly as the server does. Polynomials and constants follow fdlibm (Sun
 * Microsystems 1993, {@code e_log.c}, {@code e_exp.c} and {@code s_atan.c}); error below 1 ulp for {@link #ln} and {@link #exp}.
 */
@SuppressWarnings("FloatingPointLiteralPrecision") // as published
public final class PortableMath {
    private static final double LN2_HIGH = 6.93147180369123816490e-01;
    private static final double LN2_LOW = 1.90821492927058770002e-10;
    private static final double INVERSE_LN2 = 1.44269504088896338700e+00;
    private static final double SQRT2 = 1.41421356237309514547;
    private static final double[] POWERS = {
        0x1p512, 0x1p256, 0x1p128, 0x1p64, 0x1p32, 0x1p16, 0x1p8, 0x1p4, 0x1p2, 0x1p1
    };

    private static final double[] ATAN_HIGH = {
        4.63647609000806093515e-01, 7.85398163397448278999e-01, 9.82793723247329054082e-01, 1.57079632679489655800e+00
    };
    private static final double[] ATAN_LOW = {
        2.26987774529616870924e-17, 3.06161699786838301793e-17, 1.39033110312309984516e-17, 6.12323399573676603587e-17
    };
    private static final double[] ATAN = {
        3.33333333333329318027e-01,
        -1.99999999998764832476e-01,
        1.42857142725034663711e-01,
        -1.11111104054623557880e-01,
        9.09088713343650656196e-02,
        -7.69187620504482999495e-02,
        6.66107313738753120669e-02,
        -5.83357013379057348645e-02,
        4.97687799461593236017e-02,
        -3.65315727442169155270e-02,
        1.62858201153657823623e-02
    };

    private PortableMath() {}

    /** Natural logarithm; NaN below zero, minus infinity at zero. */
    public static double ln(double x) {
        if (Double.isNaN(x) || x < 0) {
            return Double.NaN;
        }
        if (x == 0) {
            return Double.NEGATIVE_INFINITY;
        }
        if (x == Double.POSITIVE_INFINITY) {
            return x;
        }
        int exponent = 0;
        double m = x;
        for (int i = 0; i < POWERS.length; i++) {
            int step = 512 >> i;
            // Scaling by powers of two is exact, except far below 2^-1022, where no precision is left to lose.
            while (m >= POWERS[i]) {
                m /= POWERS[i];
                exponent += step;
            }
            while (m * POWERS[i] < 2) {
                m *= POWERS[i];
                exponent -= step;
            }
        }
        if (m > SQRT2) {
            m /= 2;
            exponent += 1;
        }
        return lnNearOne(m - 1, exponent);
    }

    /** ln((1 + f) · 2^k), the parts added in the order that keeps the last bit. */
    private static double lnNearOne(double f, int k) {
        double s = f / (2.0 + f);
        double z = s * s;
        double w = z * z;
        double t1 = w * (3.999999999940941908e-01 + w * (2.222219843214978396e-01 + w * 1.531383769920937332e-01));
        double t2 = z
                * (6.666666666666735130e-01
                        + w
                                * (2.857142874366239149e-01
                                        + w * (1.818357216161805012e-01 + w * 1.479819860511658591e-01)));
        double halfSquare = 0.5 * f * f;
        return k * LN2_HIGH - ((halfSquare - (s * (halfSquare + t1 + t2) + k * LN2_LOW)) - f);
    }

    /** Logarithm to base 2: bits. */
    public static double log2(double x) {
        return ln(x) * INVERSE_LN2;
    }

    /** e to the power x. */
    public static double exp(double x) {
        if (Double.isNaN(x)) {
            return x;
        }
        if (x > 709.782712893384) {
            return Double.POSITIVE_INFINITY;
        }
        if (x < -745.1332191019411) {
            return 0;
        }
        int k = (int) Math.floor(x * INVERSE_LN2 + 0.5);
        double high = x - k * LN2_HIGH;
        double low = k * LN2_LOW;
        double r = high - low;
        double t = r * r;
        double c = r
                - t
                        * (1.66666666666666019037e-01
                                + t
                                        * (-2.77777777770155933842e-03
                                                + t
                                                        * (6.61375632143793436117e-05
                                                                + t
                                                                        * (-1.65339022054652515390e-06
                                                                                + t * 4.13813679705723846039e-08))));
        double y = 1.0 - ((low - (r * c) / (2.0 - c)) - high);
        return scale(y, k);
    }

    /** The angle whose tangent is x, in radians; error below 1 ulp (fdlibm, {@code s_atan.c}). */
    public static double atan(double x) {
        if (x < 0) {
            return -atan(-x);
        }
        if (!(x < 1e17)) {
            return Double.isNaN(x) ? x : ATAN_HIGH[3];
        }
        int part = x < 0.4375 ? -1 : x < 0.6875 ? 0 : x < 1.1875 ? 1 : x < 2.4375 ? 2 : 3;
        double y = x;
        switch (part) {
            case 0 -> y = (2 * x - 1) / (2 + x);
            case 1 -> y = (x - 1) / (x + 1);
            case 2 -> y = (x - 1.5) / (1 + 1.5 * x);
            case 3 -> y = -1 / x;
            default -> {}
        }
        double z = y * y;
        double w = z * z;
        double odd = 0;
        double even = 0;
        for (int i = 10; i >= 0; i -= 2) {
            even = even * w + ATAN[i];
            odd = i > 0 ? odd * w + ATAN[i - 1] : odd;
        }
        double series = y * (z * even + w * odd);
        return part < 0 ? y - series : ATAN_HIGH[part] - ((series - ATAN_LOW[part]) - y);
    }

    /** 2 to the power x. */
    public static double exp2(double x) {
        return exp(x * 0.6931471805599453);
    }

    private static double scale(double y, int k) {
        double result = y;
        int left = k < 0 ? -k : k;
        for (int i = 0; i < POWERS.length; i++) {
            int step = 512 >> i;
            while (left >= step) {
                result = k < 0 ? result / POWERS[i] : result * POWERS[i];
                left -= step;
            }
        }
        return result;
    }
}
