package underbaton.core.midi;

/** System exclusive whose meaning is the maker's own. */
public record SysEx(Bytes body) implements Exclusive {

    /** More than any wire of ours carries in one message, in bytes. */
    public static final int LONGEST = 65_535;

    /** @throws IllegalArgumentException when a byte of the body is over 127, or there are more than {@link #LONGEST} */
    public SysEx {
        Limits.within("length of a SysEx", body.length(), 0, LONGEST);
        for (int i = 0; i < body.length(); i++) {
            Limits.seven("SysEx byte " + i, body.at(i));
        }
    }
}
