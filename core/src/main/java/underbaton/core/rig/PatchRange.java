package underbaton.core.rig;

/** Numbers of MIDI, both ends included. @param from 0–127 @param to 0–127, not below it */
public record PatchRange(int from, int to) {

    public static final PatchRange ALL = new PatchRange(0, 127);

    public PatchRange {
        if (from < 0 || from > to || to > 127) {
            throw new Refusal("range", "A range goes from a number up to another, within those of MIDI.");
        }
    }

    /** Whether this number of the wire lies in it. */
    public boolean has(int number) {
        return number >= from && number <= to;
    }

    /** Whether it lets all pass. */
    public boolean isAll() {
        return equals(ALL);
    }
}
