package underbaton.core.midi;

import java.util.List;

/**
 * One Open Sound Control 1.0 message.
 *
 * @param address starts with a slash
 * @param arguments {@link Integer}, {@link Float} or {@link String} each, a text of at most 65,535 characters
 */
public record OscMessage(String address, List<Object> arguments) implements Message {

    private static final int LONGEST_TEXT = 65_535;

    public OscMessage {
        if (!address.matches("/[\\x21-\\x7E&&[^#]]*")) {
            throw new IllegalArgumentException(
                    "an OSC address starts with / and has no spaces and no #: “" + address + "”");
        }
        arguments = List.copyOf(arguments);
        for (Object argument : arguments) {
            if (!(argument instanceof Integer || argument instanceof Float || argument instanceof String)) {
                throw new IllegalArgumentException("an OSC argument is a whole number, a decimal or a text");
            }
            if (argument instanceof String text) {
                Limits.within("length of a text", text.length(), 0, LONGEST_TEXT);
                if (text.codePoints().anyMatch(c -> c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE)) {
                    throw new IllegalArgumentException("an OSC text holds half a character");
                }
            }
        }
    }
}
