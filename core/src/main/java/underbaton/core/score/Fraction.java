package underbaton.core.score;

import java.math.BigInteger;

/** An exact fraction in lowest terms; the bottom is above 0. */
record Fraction(BigInteger top, BigInteger bottom) implements Comparable<Fraction> {

    static final Fraction ZERO = of(0);

    Fraction {
        BigInteger common = top.gcd(bottom).max(BigInteger.ONE);
        top = top.divide(common);
        bottom = bottom.divide(common);
    }

    static Fraction of(long whole) {
        return new Fraction(BigInteger.valueOf(whole), BigInteger.ONE);
    }

    Fraction plus(Fraction other) {
        return new Fraction(top.multiply(other.bottom).add(other.top.multiply(bottom)), bottom.multiply(other.bottom));
    }

    Fraction minus(Fraction other) {
        return plus(new Fraction(other.top.negate(), other.bottom));
    }

    Fraction times(Fraction other) {
        return new Fraction(top.multiply(other.top), bottom.multiply(other.bottom));
    }

    Fraction dividedBy(Fraction other) {
        return new Fraction(top.multiply(other.bottom), bottom.multiply(other.top));
    }

    /** To the nearest whole number, halves up. */
    long rounded() {
        return rounded(top, bottom);
    }

    /** This and a multiple of another one, rounded as {@link #rounded}; the sum is never brought to lowest terms. */
    long roundedWith(long times, Fraction other) {
        BigInteger sum = top.multiply(other.bottom)
                .add(other.top.multiply(BigInteger.valueOf(times)).multiply(bottom));
        return rounded(sum, bottom.multiply(other.bottom));
    }

    private static long rounded(BigInteger top, BigInteger bottom) {
        BigInteger twice = top.add(top).add(bottom);
        BigInteger[] parts = twice.divideAndRemainder(bottom.add(bottom));
        return (parts[1].signum() < 0 ? parts[0].subtract(BigInteger.ONE) : parts[0]).longValueExact();
    }

    @Override
    public int compareTo(Fraction other) {
        return top.multiply(other.bottom).compareTo(other.top.multiply(bottom));
    }
}
