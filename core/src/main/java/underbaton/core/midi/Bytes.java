package underbaton.core.midi;

import java.util.Arrays;
import java.util.HexFormat;

/** A run of octets that never changes; equal when the octets are. */
public final class Bytes {

    public static final Bytes NONE = new Bytes(new byte[0]);
    private static final HexFormat SPACED = HexFormat.ofDelimiter(" ").withUpperCase();

    private final byte[] octets;

    private Bytes(byte[] octets) {
        this.octets = octets;
    }

    /** @param octets 0–255 each; higher bits are refused */
    public static Bytes of(int... octets) {
        byte[] copy = new byte[octets.length];
        for (int i = 0; i < octets.length; i++) {
            copy[i] = (byte) Limits.within("octet", octets[i], 0, 255);
        }
        return new Bytes(copy);
    }

    /** What is done to the array afterwards changes nothing here. */
    public static Bytes copyOf(byte[] octets) {
        return new Bytes(octets.clone());
    }

    /** Of a stretch of the array, from the first to before the last. */
    public static Bytes copyOf(byte[] octets, int from, int length) {
        return new Bytes(Arrays.copyOfRange(octets, from, from + length));
    }

    /**
     * Reads hexadecimal digits, with or without white space between the pairs.
     *
     * @throws IllegalArgumentException when something else than pairs of digits stands there
     */
    public static Bytes ofHex(String text) {
        return new Bytes(HexFormat.of().parseHex(text.replaceAll("\\s+", "")));
    }

    /** How many octets. */
    public int length() {
        return octets.length;
    }

    /** @return 0–255 */
    public int at(int index) {
        return octets[index] & 0xFF;
    }

    /** A copy that may be changed. */
    public byte[] toArray() {
        return octets.clone();
    }

    /** These, and behind them those. */
    public Bytes then(Bytes next) {
        byte[] joined = Arrays.copyOf(octets, octets.length + next.octets.length);
        System.arraycopy(next.octets, 0, joined, octets.length, next.octets.length);
        return new Bytes(joined);
    }

    /** A stretch of them, from the first to before the last. */
    public Bytes slice(int from, int to) {
        return new Bytes(Arrays.copyOfRange(octets, from, to));
    }

    /** Pairs of upper-case digits with a space between: {@code 90 1C 7F}. */
    public String hex() {
        return SPACED.formatHex(octets);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Bytes that && Arrays.equals(octets, that.octets);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(octets);
    }

    @Override
    public String toString() {
        return hex();
    }
}
