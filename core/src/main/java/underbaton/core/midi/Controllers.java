package underbaton.core.midi;

import java.util.Set;

/** Controllers with a meaning of their own, by number (MIDI 1.0, table of control changes and channel mode messages). */
public final class Controllers {

    /** The pedal that lets notes sound on. */
    public static final int SUSTAIN = 64;

    private static final int SOSTENUTO = 66;
    private static final int SOFT = 67;
    private static final int SECOND_HOLD = 69;

    /** What feet hold down. */
    public static final Set<Integer> PEDALS = Set.of(SUSTAIN, SOSTENUTO, SOFT, SECOND_HOLD);

    /** The first of the channel mode messages: all sound off. */
    public static final int ALL_SOUND_OFF = 120;

    /** All controllers as they are when a machine is switched on. */
    public static final int RESET = 121;

    /** Whether a keyboard's keys reach its own sounds: 0 or 127. */
    public static final int LOCAL_CONTROL = 122;

    /** Ends all notes of a channel, as all mode messages above it do. */
    public static final int ALL_NOTES_OFF = 123;

    private static final int ON = 64;

    private Controllers() {}

    /** Whether it is a channel mode message and no control. @param controller 0–127 */
    public static boolean isMode(int controller) {
        return controller >= ALL_SOUND_OFF;
    }

    /** Whether a change ends what sounds or is held: a pedal that goes up, or one of the modes that end all notes. */
    public static boolean ends(ChannelMessage.ControlChange change) {
        int controller = change.controller();
        boolean up = PEDALS.contains(controller) && change.value() == 0;
        return up || controller == ALL_SOUND_OFF || controller >= ALL_NOTES_OFF;
    }

    /** Whether a switch or pedal of this value is on. @param value 0–127 */
    public static boolean isOn(int value) {
        return value >= ON;
    }
}
