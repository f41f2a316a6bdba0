package underbaton.core.midi;

/** System exclusive whose meaning is the maker's own. */
public record SysEx(Bytes body) implements Exclusive {

    /** @throws IllegalArgumentException when a byte of the body is over 127 */
    public SysEx {
        for (int i = 0; i < body.length(); i++) {
            Limits.seven("SysEx byte " + i, body.at(i));
        }
    }
}
