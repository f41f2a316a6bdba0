package underbaton.core.midi;

import java.util.List;

/**
 * One Open Sound Control message, with the types of OSC 1.0 and the common ones beyond.
 *
 * @param address starts with a slash
 * @param arguments each one of {@link Integer} (type tag i), {@link Float} (f), {@link String} (s), {@link Bytes} (b),
 *     {@link Long} (h), {@link Double} (d), {@link Character} (c), {@link Boolean} (T and F), {@link Bare} (N and I), {@link
 *     TimeTag} (t), {@link Symbol} (S), {@link Colour} (r), {@link MidiOctets} (m), or a {@link List} of these (an array);
 *     texts are at most 65,535 characters long
 */
public record OscMessage(String address, List<Object> arguments) implements Message {

    private static final int LONGEST_TEXT = 65_535;
    private static final int LONGEST_ADDRESS = 1000;
    private static final int DEEPEST_ARRAY = 8;

    /** Types that are said by their tag alone. */
    public enum Bare {
        /** N. */
        NIL,
        /** I: impulse, infinitum, bang. */
        IMPULSE
    }

    /** @param ntp seconds since 1900 in the high half, their fraction in the low one; 1 for at once */
    public record TimeTag(long ntp) {}

    /** A text that is told from other texts. */
    public record Symbol(String text) {
        public Symbol {
            requireText(text);
        }
    }

    /** @param rgba one octet each, red first */
    public record Colour(int rgba) {}

    /** @param octets port, status and two data bytes, in this order from the highest */
    public record MidiOctets(int octets) {}

    public OscMessage {
        if (address.length() > LONGEST_ADDRESS || !address.matches("/[\\x21-\\x7E&&[^#]]*")) {
            throw new IllegalArgumentException(
                    "an OSC address starts with / and has no spaces and no #: “" + address + "”");
        }
        arguments = List.copyOf(arguments);
        arguments.forEach(a -> require(a, 0));
    }

    private static void require(Object argument, int depth) {
        if (argument instanceof String text) {
            requireText(text);
        } else if (argument instanceof List<?> array) {
            if (depth >= DEEPEST_ARRAY) {
                throw new IllegalArgumentException("arrays are nested too deep");
            }
            array.forEach(a -> require(a, depth + 1));
        } else if (argument instanceof Character c && c > 127) {
            throw new IllegalArgumentException("an OSC character is one of ASCII");
        } else if (!isPlain(argument)) {
            throw new IllegalArgumentException("“" + argument + "” is of no type of OSC");
        }
    }

    private static boolean isPlain(Object a) {
        return a instanceof Integer
                || a instanceof Float
                || a instanceof Long
                || a instanceof Double
                || a instanceof Boolean
                || a instanceof Character
                || a instanceof Bytes
                || a instanceof Bare
                || a instanceof TimeTag
                || a instanceof Symbol
                || a instanceof Colour
                || a instanceof MidiOctets;
    }

    private static void requireText(String text) {
        Limits.within("length of a text", text.length(), 0, LONGEST_TEXT);
        if (text.codePoints().anyMatch(c -> c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE)) {
            throw new IllegalArgumentException("an OSC text holds half a character");
        }
    }

    /** An argument as people write it, numbers alike whatever their type: {@code 12} for 12, 12.0 and “12”, {@code 12.5} for 12.5. */
    public static String plain(Object argument) {
        if (argument instanceof Float || argument instanceof Double) {
            double value = ((Number) argument).doubleValue();
            return value == Math.rint(value) && Math.abs(value) < 1e9
                    ? Long.toString(Math.round(value))
                    : argument.toString();
        }
        return argument instanceof Symbol symbol ? symbol.text() : String.valueOf(argument);
    }
}
