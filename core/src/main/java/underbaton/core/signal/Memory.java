package underbaton.core.signal;

import java.util.OptionalInt;

/**
 * What was heard before from the same source on the same channel, as far as a pattern needs it.
 *
 * @param value of the same controller; empty when it was never heard
 * @param bank as two bank selects have set it (0/32 of MIDI 1.0), 0–16,383; empty when none was heard
 */
public record Memory(OptionalInt value, OptionalInt bank) {

    public static final Memory NONE = new Memory(OptionalInt.empty(), OptionalInt.empty());
}
